import { type FindingRow, rowsOf } from '../analysis/rows';
import { type SeedlingFigure, asSeedlingDays, seedlingRows } from '../analysis/seedlings';
import type { TrialState } from '../log/state';
import { type Plan, type Trait, kindOf } from '../model/plan';
import { positionKey, readingsOf } from '../model/positions';
import type { Result } from '../model/result';
import { comparedTrait } from '../plan/divisor';
import { comparesPeers, controlOf, heldAgainst } from '../plan/control';
import { againstIn, groundsOf } from '../plan/against';
import { asListed } from '../plan/letters';
import { planIndex } from '../plan/planIndex';
import {
  type Earlier,
  type Finding,
  type FindingError,
  type FindingInput,
  type FindingOptions,
  makeFinding,
} from './finding';

/** Gathers what a finding of a trait needs from the state of a trial. */
export function findingInput(state: TrialState, trait: Trait, options: FindingOptions = {}): FindingInput {
  const { plan } = state;
  const roundId = options.roundId ?? null;
  const held = heldAgainst(plan);
  const grounds = new Set(groundsOf(plan).values());
  return {
    ...(options.as ? seedlingsOf(state, trait, options, options.as) : rowsOf(state, trait, options)),
    trait: options.as ? asSeedlingDays(trait, options.as) : comparedTrait(trait),
    isPrimary: trait.id === plan.primaryTraitId && !options.as,
    roundId,
    roundName: roundId === null ? null : (planIndex(plan).round(roundId)?.name ?? null),
    crop: options.crop == null ? null : (plan.cropsWithin[options.crop] ?? null),
    control: controlOf(plan)?.id ?? null,
    peers: comparesPeers(plan),
    ...(held && { heldAgainst: held.id }),
    order: asListed(plan).map((t) => t.id),
    against: againstIn(plan),
    ...(grounds.size > 1 && { grounds: Object.fromEntries(groundsOf(plan)) }),
    ...(plan.factors.length > 1 && {
      factors: {
        names: plan.factors.map((f) => f.name),
        levels: Object.fromEntries(
          plan.treatments.map((t) => [t.id, plan.factors.map((f) => t.levels[f.name] ?? '')]),
        ),
      },
    }),
    ...settingsOf(plan),
    places: placesOf(plan),
    alpha: options.alpha ?? 0.05,
    smallestDifference: plan.smallestDifference,
    method: options.method ?? null,
  };
}

/** Kinds of value for which an earlier end is another look at the same thing. */
const hasEarlier = new Set(['continuous', 'count', 'kOfN', 'level']);

/**
 * What a finding would rest on had the trial ended at the visit before its last.
 * @returns null where there was but one, where one round alone is looked at, or for days until
 */
export function endedEarlier(state: TrialState, trait: Trait, options: FindingOptions = {}): Earlier | null {
  if (options.roundId || options.as || !hasEarlier.has(kindOf(trait).observes)) return null;
  const lastOf = (rows: readonly FindingRow[]) =>
    Math.max(-Infinity, ...rows.map((r) => r.visits.at(-1)?.day ?? -Infinity));
  const { rows: now } = rowsOf(state, trait, options);
  const last = lastOf(now);
  if (!Number.isFinite(last)) return null;
  const { rows, unfinished, basis } = rowsOf(state, trait, { ...options, until: last - 1 });
  const day = lastOf(rows);
  const had = new Set(rows.map((r) => r.unit));
  if (unfinished || !Number.isFinite(day) || now.some((r) => !had.has(r.unit))) return null;
  return { day, name: basis.rounds.at(-1)?.name ?? null, rows };
}

/** The finding of a trait as the state of its trial has it. */
export const findingOf = (
  state: TrialState,
  trait: Trait,
  options: FindingOptions = {},
): Result<Finding, FindingError> => makeFinding(findingInput(state, trait, options));

/** Units with the days their seedlings came up, of all rounds that are whole. */
function seedlingsOf(state: TrialState, trait: Trait, options: FindingOptions, as: SeedlingFigure) {
  // Gathered as a curve is: every round that all units have counts.
  const all = rowsOf(state, { ...trait, summary: 'sum' }, { ...options, roundId: null });
  const { rows, leftOut } = seedlingRows(all.rows, as);
  return { ...all, rows, leftOut: [...all.leftOut, ...leftOut] };
}

/** What main plots were given, by unit; nothing where plots weren't split by a setting. */
function settingsOf(plan: Plan): Pick<FindingInput, 'settings'> {
  const given = plan.units.flatMap((u) => (u.setting === null ? [] : [[u.id as string, u.setting] as const]));
  return new Set(given.map(([, s]) => s)).size > 1 ? { settings: Object.fromEntries(given) } : {};
}

function placesOf(plan: Plan): NonNullable<FindingInput['places']> {
  const readings = readingsOf(plan.gradient);
  return Object.fromEntries(
    plan.units.map(({ id, position }) => [
      id,
      {
        reading: readings.get(positionKey(position)) ?? null,
        area: position.areaId as string,
        row: position.row,
        column: position.column,
        edge: atEdge(planIndex(plan).area(position.areaId), position),
      },
    ]),
  );
}

/** Whether a position has no neighbour on some side: the rim of a bench, the end of a shelf. */
const atEdge = (area: Plan['areas'][number] | undefined, { row, column }: { row: number; column: number }) =>
  area !== undefined && (row === 0 || column === 0 || row === area.rows - 1 || column === area.columns - 1);
