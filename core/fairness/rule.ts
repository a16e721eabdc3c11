import type { Happening } from '../model/happening';
import type { TreatmentId, UnitId } from '../model/ids';
import type { Plan, Position, Treatment } from '../model/plan';

/**
 * breaks: readers would reject the result · weakens: they would doubt it · note: they would ask
 */
export type Severity = 'breaks' | 'weakens' | 'note';
export const severityNames: Record<Severity, string> = {
  breaks: 'breaks the comparison',
  weakens: 'weakens it',
  note: 'readers will ask',
};

export type PlanRoom =
  | 'rounds'
  | 'question'
  | 'contenders'
  | 'layout'
  | 'mixing'
  | 'labels'
  | 'review'
  | 'library';

/** What the audit looks at. */
export interface AuditInput {
  plan: Plan;
  /** a printing of the labels is in the log */
  labelsPrinted: boolean;
  /** what the review says about free samples and own products */
  disclosure: string;
  /** who works on this bench, for “scored by”; empty when not said */
  me: string;
  /** newest strength reading of each treatment's solution, mS/cm */
  ecByTreatment: ReadonlyMap<string, number>;
  /** what went otherwise than planned since the seal */
  happened?: readonly { what: Happening; unitIds: readonly UnitId[]; text: string }[];
  /** units whose labels are lost, group by group */
  lost?: readonly (readonly UnitId[])[];
  /** where units stand now */
  positions?: ReadonlyMap<UnitId, Position>;
  /** vessels of units that were split at transplanting */
  parts?: ReadonlyMap<UnitId, number>;
  /** plants counted in each unit */
  stands?: readonly { unitId: UnitId; count: number }[];
  /** newest height of each unit, cm */
  heights?: readonly { unitId: UnitId; cm: number }[];
  /** day of the trial on which the deciding trait was taken of each unit for the last time, in its last round */
  ended?: readonly { unitId: UnitId; day: number }[];
  /** doses changed since the seal, with the day from which they hold */
  doseChanges?: readonly { treatmentId: TreatmentId; day: number }[];
  /** batches as they were mixed: of each product, what went in and what the recipe wanted, in one unit */
  batches?: readonly { batch: string; amounts: readonly { given: number; wanted: number }[] }[];
  /** products of which the log tells of fewer days than were planned, once the last round is begun */
  notLogged?: readonly { name: string; product: string; days: number; planned: number }[];
  /** means of loggers by area */
  air?: readonly { areaId: string; quantity: string; mean: number }[];
}

/** What a cure changes. */
export interface Cured {
  plan?: Plan;
  disclosure?: string;
}

export interface Cure {
  /** what the button says */
  label: string;
  /** changes only how the trial is laid out or kept: it says nothing of the world that someone has to know */
  byItself?: true;
  /** @param seed for cures that lay out anew */
  apply: (seed: number) => Cured;
}

export interface Found {
  /** what was found, with names */
  found: string;
  units?: UnitId[];
  /** the cure in words */
  cure: string;
  /** where it is done by hand */
  room: PlanRoom;
  fix?: Cure;
}

/** One rule of the audit. */
export interface Rule {
  id: string;
  severity: Severity;
  title: string;
  /** why it matters, in a sentence */
  why: string;
  check: (input: AuditInput) => Found | null;
}

/** Treatments grouped by what they say; those that say nothing are left out. */
export function groupsOf(
  treatments: readonly Treatment[],
  pick: (t: Treatment) => string | number | null,
): Map<string, Treatment[]> {
  const groups = new Map<string, Treatment[]>();
  for (const t of treatments) {
    const value = pick(t);
    if (value === null || value === '') continue;
    const key = String(value).trim().toLowerCase();
    groups.set(key, [...(groups.get(key) ?? []), t]);
  }
  return groups;
}

/** “clay (Water, A); peat (B)” when treatments differ; null when they are alike or say nothing. */
export function differenceText(
  treatments: readonly Treatment[],
  pick: (t: Treatment) => string | number | null,
): string | null {
  const groups = groupsOf(treatments, pick);
  if (groups.size < 2) return null;
  return [...groups.values()]
    .map((ts) => `${String(pick(ts[0]!)).trim()} (${ts.map((t) => t.name).join(', ')})`)
    .join('; ');
}

/** The plan with every treatment changed. */
export const withTreatments = (plan: Plan, change: (t: Treatment) => Treatment): Plan => ({
  ...plan,
  treatments: plan.treatments.map(change),
});

/** Whether feeds, additives or the like are what is compared. */
export const comparesFeeds = (plan: Plan): boolean => comparesCategory(plan, ['fertilizer', 'additive']);

export const comparesCategory = (plan: Plan, categories: readonly string[]): boolean =>
  plan.treatments.some((t) =>
    t.products.some((u) =>
      categories.includes(plan.products.find((p) => p.id === u.productId)?.category ?? ''),
    ),
  );
