import type { Plan } from '../model/plan';
import { canonicalJson } from './seal';

/** One part of a plan that two copies don't agree on, in words. */
export interface Difference {
  what: string;
  mine: string;
  theirs: string;
}

/** What parts of a plan are called; one that isn't named is called by what it is in the file. */
const names: Partial<Record<keyof Plan, string>> = {
  question: 'Question',
  crop: 'Crop',
  unitNoun: 'Unit',
  prediction: 'Prediction',
  finishingRule: 'Rule for the end',
  winning: 'What counts as winning',
  scorer: 'Who measures',
  startDate: 'Start',
  currency: 'Currency',
  primaryTraitId: 'What decides',
  smallestDifference: 'Difference that matters',
  cvPercent: 'Spread',
  traits: 'What is measured',
  rounds: 'Rounds',
  tasks: 'Tasks',
  treatments: 'Contenders',
  factors: 'Factors',
  matchedOn: 'Made alike in',
  blinding: 'Blinding',
  areas: 'Areas',
  gradient: 'Light readings',
  design: 'Design',
  rotation: 'Turns',
  spares: 'Spares',
  mixing: 'Mixing set-up',
  accepted: 'Findings accepted',
  units: 'Layout',
  products: 'Labels and prices of products',
};

const titleOf = (item: unknown): string | null => {
  if (typeof item !== 'object' || item === null) return null;
  const named = item as { name?: unknown; what?: unknown; code?: unknown };
  const title = named.name ?? named.what ?? named.code;
  return typeof title === 'string' ? title : null;
};

const same = (a: unknown, b: unknown) => canonicalJson(a ?? null) === canonicalJson(b ?? null);

/** A list by the names of its items, those marked that the other side has otherwise. */
function listed(own: readonly unknown[], other: readonly unknown[]): string {
  if (own.length === 0) return 'none';
  const differences = own.map((item, i) => {
    const title = titleOf(item) ?? String(i + 1);
    const twin = other.find((o) => titleOf(o) === title);
    return twin === undefined || same(item, twin) ? title : `${title} (otherwise)`;
  });
  return differences.length > 12
    ? `${differences.slice(0, 12).join(', ')} and ${differences.length - 12} more`
    : differences.join(', ');
}

function valueText(value: unknown, other: unknown, plan: Plan, key: string): string {
  if (value === null || value === undefined || value === '') return 'nothing';
  if (key === 'primaryTraitId') return plan.traits.find((t) => t.id === value)?.name ?? 'nothing';
  if (Array.isArray(value)) return listed(value, Array.isArray(other) ? other : []);
  if (typeof value === 'object')
    return Object.entries(value)
      .filter(([, v]) => v !== null && typeof v !== 'object')
      .map(([k, v]) => `${k} ${String(v)}`)
      .join(', ');
  return String(value);
}

/**
 * Where two copies of a plan differ, part by part, in words; ids aren't told.
 * @example planDifferences(mine, theirs) // [{ what: 'Start', mine: '2026-03-01', theirs: '2026-03-04' }]
 */
export function planDifferences(mine: Plan, theirs: Plan): Difference[] {
  const keys = [...new Set([...Object.keys(mine), ...Object.keys(theirs)])] as (keyof Plan)[];
  return keys
    .filter((key) => key !== 'id' && !same(mine[key], theirs[key]))
    .map((key) => ({
      what: names[key] ?? key,
      mine: valueText(mine[key], theirs[key], mine, key),
      theirs: valueText(theirs[key], mine[key], theirs, key),
    }));
}
