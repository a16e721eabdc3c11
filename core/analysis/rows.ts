import { keptOf } from '../log/keptOf';
import { type Response, exclusionReason, responseOf } from '../log/response';
import type { TrialState } from '../log/state';
import type { RoundId, TreatmentId, UnitId } from '../model/ids';
import type { Plan, Trait, Unit } from '../model/plan';
import { experimentalUnits, sharesPlace } from '../plan/sharing';
import { kindOf } from '../model/traitKinds';
import { pickVisits } from '../log/picks';
import { localDay } from '../log/localDay';
import { dayOfDate } from '../plan/days';
import { isOver } from '../plan/ended';
import type { AnalysisRow } from './analysis';
import { givenDivisor } from '../log/givenDivisor';
import { givenPlan } from '../mixing/givenPlan';
import { elementPerUnit } from '../mixing/perUnit';
import {
  type Basis,
  type LookedRound,
  type UnitState,
  basisOf,
  dated,
  daysPicked,
  isWhole,
  overTime,
  roundsOf,
} from './basis';
import { figureOfVisits } from './number';

/** A row with what a reader calls the unit. */
export interface FindingRow extends AnalysisRow {
  code: string;
  /** day of the trial from which on a spare stands in it; left out: what was planted at the start */
  spareSince?: number;
}

/** A unit that isn't in a finding, and why. */
export interface LeftOut {
  unitId: UnitId;
  code: string;
  treatmentId: TreatmentId;
  /** its value when there is one */
  value: number | null;
  why: 'excluded' | 'died' | 'notMeasured';
  reason: string;
}

export interface RowOptions {
  /** one round alone; default: the trait's own summary over all finished rounds */
  roundId?: RoundId | null;
  /** one crop within the units alone, counted from 0 */
  crop?: number | null;
  /** what was lost to pests or neglect counts as yield too */
  withLosses?: boolean;
  /** of k of n: borderline cases count */
  withBorderline?: boolean;
  /** of k of n: what isn't true to type doesn't count */
  withoutOffTypes?: boolean;
  /** keep units that were excluded, to see whether the finding stands without the exclusion */
  withExcluded?: boolean;
  /** as if the trial had ended that day: nothing later is looked at */
  until?: number;
  /** YYYY-MM-DD; left out: nobody knows whether what is missing is still to come */
  today?: string;
}

interface UnitRows {
  rows: FindingRow[];
  leftOut: LeftOut[];
  basis: Basis;
  /** picks were begun and none is finished: there is no sum that means the same for all */
  unfinished: boolean;
}

/**
 * The units of a trial as rows of an analysis, on visits that are the same for all: a round counts when every
 * living unit has its value in it. The last value is that of the last such round; a sum takes all such rounds.
 * Where there is only one round, or none is finished, what was measured counts and the rest is left out.
 */
export function rowsOf(state: TrialState, trait: Trait, options: RowOptions = {}): UnitRows {
  const { plan } = state;
  const { roundId, today, ...looking } = options;
  const crop = options.crop ?? null;
  const { units, days, looked } = lookedAt(state, trait, looking);
  const nitrogen = nitrogenOf(state, trait);
  const { counted, basis, unfinished } = basisOf(trait, looked, roundId ?? null);
  const rows: FindingRow[] = [];
  const leftOut: LeftOut[] = [];
  for (const { unit, response, excluded, died } of units) {
    const visitsTaken = response.visits.filter(
      (v) => (counted === null || counted.has(v.roundId)) && isWhole(v, state, trait, crop),
    );
    const zero =
      visitsTaken.length === 0 && died !== null && trait.deadIsZero ? nothingLeft(state, unit) : null;
    // Who died later than what is looked at was alive then, and just wasn't measured.
    const until = Math.max(-1, ...basis.rounds.map((r) => r.day));
    const visits = zero && (until < 0 || zero.day <= until) ? [zero] : visitsTaken;
    const base = { unitId: unit.id, code: unit.code, treatmentId: unit.treatmentId };
    const divisor = givenDivisor(state, unit, trait, visits.at(-1)?.day ?? 0, nitrogen);
    const figure = figureOfVisits(visits, trait);
    const value = figure === null || divisor === null ? null : figure / divisor;
    if (excluded !== null) {
      leftOut.push({ ...base, value, why: 'excluded', reason: excluded });
    } else if (visits.length > 0 && figure === null && overTime(trait)) {
      leftOut.push({ ...base, value: null, why: 'notMeasured', reason: 'measured on fewer than two days' });
    } else if (visits.length > 0 && divisor === null) {
      leftOut.push({ ...base, value: null, why: 'notMeasured', reason: notDivided[trait.per!] });
    } else if (visits.length > 0 && divisor !== null) {
      rows.push({
        unit: unit.id,
        code: unit.code,
        treatment: unit.treatmentId,
        block: unit.block === null ? null : String(unit.block),
        column: unit.columnBlock === null ? null : String(unit.columnBlock),
        visits,
        divisor,
        ...spareIn(state, unit.id, visits),
      });
    } else if (died !== null) leftOut.push({ ...base, value: null, why: 'died', reason: died });
    else leftOut.push({ ...base, value: null, why: 'notMeasured', reason: 'not measured' });
  }
  return {
    rows: sharesPlace(plan) ? asPlaces(rows, plan, trait) : inBlocks(rows),
    leftOut,
    basis: dated(
      days === null ? basis : { ...basis, open: days.open, toCome: days.toCome },
      isOver(plan, today),
    ),
    unfinished,
  };
}

/** Units as they were observed, and the rounds of a trait: the same for each round that is asked about. */
interface Looked {
  units: UnitState[];
  days: ReturnType<typeof daysPicked> | null;
  looked: LookedRound[];
}

/** What of the options changes what was observed. */
type Looking = Omit<RowOptions, 'roundId' | 'today'>;

const lookedAt = keptOf(look, (looking: Looking) => JSON.stringify(looking));

function look(state: TrialState, trait: Trait, options: Looking): Looked {
  const { plan } = state;
  const crop = options.crop ?? null;
  const { until: end = Infinity } = options;
  const days = kindOf(trait).takenBy === 'picks' ? daysPicked(state, end) : null;
  const counting = (response: Response): Response => ({
    ...response,
    visits: response.visits
      .filter((v) => v.day <= end)
      .map((v) => (options.withBorderline ? borderlineIn(v) : v))
      .map((v) => (options.withoutOffTypes ? offTypesOut(v) : v)),
  });
  const units = plan.units.map((unit): UnitState => {
    const death = state.deaths.get(unit.id);
    return {
      unit,
      response:
        days === null
          ? counting(responseOf(state, unit.id, trait, crop))
          : {
              unitId: unit.id,
              traitId: trait.id,
              visits: pickVisits(state, unit.id, trait, days.counted, options.withLosses),
            },
      excluded: options.withExcluded ? null : exclusionReason(state, unit.id, trait.id),
      died: death ? `died: ${death.cause || 'no cause given'}` : null,
    };
  });
  return { units, days, looked: roundsOf(state, trait, units, crop) };
}

/** A block counts only where all units have one. */
function inBlocks(rows: FindingRow[]): FindingRow[] {
  const blocked = rows.every((r) => r.block !== null);
  const inColumns = blocked && rows.every((r) => r.column !== null);
  return rows.map((r) => ({ ...r, block: blocked ? r.block : null, column: inColumns ? r.column : null }));
}

/** Of what is added up, a unit that was gone by then gave nothing: it goes on counting among those of its place. */
function withNothing(visit: Visit, own: readonly FindingRow[]): Visit['samples'] {
  const [first] = visit.samples;
  if (!first || (first.observed.type !== 'continuous' && first.observed.type !== 'count'))
    return visit.samples;
  const gone = own.filter((r) => !r.visits.some((v) => v.roundId === visit.roundId && v.day === visit.day));
  const nothing: Visit['samples'][number]['observed'] =
    first.observed.type === 'count' ? { ...first.observed, count: 0 } : { type: 'continuous', value: 0 };
  const crops = [...new Set(visit.samples.map((s) => s.crop))];
  return [
    ...visit.samples,
    ...gone.flatMap(() => crops.map((crop) => ({ sample: null, crop, observed: nothing }))),
  ];
}

/** Units that share their place are samples of it: one row a place, their visits put together round by round. */
function asPlaces(rows: readonly FindingRow[], plan: Plan, trait: Trait): FindingRow[] {
  return experimentalUnits(plan).flatMap(({ members, name }): FindingRow[] => {
    const ids = new Set<string>(members.map((u) => u.id));
    const own = rows.filter((r) => ids.has(r.unit));
    const [first] = own;
    if (!first) return [];
    const visits = new Map<string, Visit>();
    // To whom it had happened is asked no more: each one's last look counts.
    const event = kindOf(trait).observes === 'event';
    const last = own.flatMap((r) => r.visits.slice(-1)).sort((a, b) => a.day - b.day);
    if (event && last.length > 0)
      visits.set('last', { ...last.at(-1)!, samples: last.flatMap((v) => v.samples) });
    for (const v of event ? [] : own.flatMap((r) => r.visits)) {
      const key = v.roundId ?? `day ${v.day}`;
      const there = visits.get(key);
      visits.set(key, there ? { ...there, samples: [...there.samples, ...v.samples] } : { ...v });
    }
    if (trait.summary === 'sum') for (const v of visits.values()) v.samples = withNothing(v, own);
    return [
      {
        ...first,
        code: own.length === 1 ? name : `${name} (${own.length})`,
        block: null,
        column: null,
        visits: [...visits.values()].sort((a, b) => a.day - b.day),
        divisor: own.reduce((s, r) => s + r.divisor, 0) / own.length,
      },
    ];
  });
}

/** Since when a spare stands in a unit, where values of the spare are among these visits. */
function spareIn(state: TrialState, unitId: UnitId, visits: Response['visits']): { spareSince?: number } {
  const replaced = state.replaced.get(unitId);
  if (!replaced) return {};
  const spareSince = dayOfDate(state.plan.startDate, localDay(replaced));
  return visits.some((v) => v.day >= spareSince) ? { spareSince } : {};
}

/** Grams of nitrogen one unit of a treatment gets, by plan and dose changes; asked only where it divides. */
function nitrogenOf(state: TrialState, trait: Trait): (treatmentId: string) => number | null {
  if (trait.per !== 'nitrogen') return () => null;
  const plan = givenPlan(state);
  return (id) => {
    const treatment = plan.treatments.find((t) => t.id === id);
    return treatment ? elementPerUnit(treatment, plan, 'N') : null;
  };
}

type Visit = Response['visits'][number];
type KOfN = Extract<Visit['samples'][number]['observed'], { type: 'kOfN' }>;

/** A visit in which its k of n are counted otherwise. */
const recounted = (visit: Visit, over: (o: KOfN) => Partial<KOfN>): Visit => ({
  ...visit,
  samples: visit.samples.map((s) =>
    s.observed.type === 'kOfN' ? { ...s, observed: { ...s.observed, ...over(s.observed) } } : s,
  ),
});

const borderlineIn = (visit: Visit) =>
  recounted(visit, (o) => ({ k: Math.min(o.n, o.k + (o.borderline ?? 0)) }));
const offTypesOut = (visit: Visit) =>
  recounted(visit, (o) => ({ k: Math.max(0, o.k - (o.offType ?? 0)), offType: 0 }));

/** What a unit that died is worth where the plan says that it counts as nothing. */
function nothingLeft(state: TrialState, unit: Unit): Response['visits'][number] {
  const day = dayOfDate(state.plan.startDate, localDay(state.deaths.get(unit.id)!));
  return {
    roundId: null,
    day,
    samples: [{ sample: null, crop: 0, observed: { type: 'continuous', value: 0 } }],
  };
}

/** Why a unit with a value isn't in a finding whose figures are divided. */
const notDivided: Record<NonNullable<Trait['per']>, string> = {
  plant: 'the plan doesn’t say how many plants it has',
  area: 'the plan doesn’t say what ground it covers',
  water: 'the log has no water for it',
  energy: 'Contenders doesn’t say how strong its lamp is and how long it burns',
  light: 'neither plan nor readings say how much light it gets, or what ground it covers',
  nitrogen: 'its products don’t say how much nitrogen they carry, or it got none',
  day: 'it was taken on the first day',
};
