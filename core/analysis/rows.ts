import { type Response, cropsTaken, exclusionReason, responseOf } from '../log/response';
import type { TrialState } from '../log/state';
import type { RoundId, TreatmentId, UnitId } from '../model/ids';
import type { Plan, Round, Trait, Unit } from '../model/plan';
import { experimentalUnits, sharesPlace } from '../plan/sharing';
import { kindOf } from '../model/traitKinds';
import { pickDays, pickVisits } from '../log/picks';
import { localDay } from '../log/localDay';
import { dayOfDate } from '../plan/days';
import { isOver, lastDayOf } from '../plan/ended';
import type { AnalysisRow } from './analysis';
import { givenDivisor } from '../log/givenDivisor';
import { givenPlan } from '../mixing/givenPlan';
import { elementPerUnit } from '../mixing/perUnit';
import { figureOfVisits, seenOf } from './number';

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

/** A round that was begun and isn't finished: its values don't count yet. */
export interface OpenRound {
  name: string;
  day: number;
  /** units that have their values, of those that are wanted */
  done: number;
  wanted: number;
  /** codes of the units without */
  missing: string[];
}

/** Which visits a finding rests on. */
export interface Basis {
  /** rounds that count, in the order of their days; empty where values belong to no round */
  rounds: { id: RoundId; name: string; day: number }[];
  /** rounds that were begun and don't count */
  open: OpenRound[];
  /** planned rounds of this trait that aren't begun, still to come or waited for */
  toCome: number;
  /** planned rounds that nobody made, once the trial is over */
  missed: number;
  /** the trial is over: what is missing was missed */
  over: boolean;
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

export interface UnitRows {
  rows: FindingRow[];
  leftOut: LeftOut[];
  basis: Basis;
  /** picks were begun and none is finished: there is no sum that means the same for all */
  unfinished: boolean;
}

interface UnitState {
  unit: Unit;
  response: Response;
  excluded: string | null;
  died: string | null;
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
    const taken = response.visits.filter(
      (v) => (counted === null || counted.has(v.roundId)) && isWhole(v, state, trait, crop),
    );
    const zero = taken.length === 0 && died !== null && trait.deadIsZero ? nothingLeft(state, unit) : null;
    // Who died later than what is looked at was alive then, and just wasn't measured.
    const until = Math.max(-1, ...basis.rounds.map((r) => r.day));
    const visits = zero && (until < 0 || zero.day <= until) ? [zero] : taken;
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

/** A planned round as it was made. */
interface LookedRound {
  round: Round;
  begun: boolean;
  done: number;
  wanted: number;
  missing: string[];
}

const known = new WeakMap<TrialState, WeakMap<Trait, Map<string, Looked>>>();

function lookedAt(state: TrialState, trait: Trait, options: Omit<RowOptions, 'roundId' | 'today'>): Looked {
  let ofTrait = known.get(state);
  if (!ofTrait) known.set(state, (ofTrait = new WeakMap()));
  let ways = ofTrait.get(trait);
  if (!ways) ofTrait.set(trait, (ways = new Map()));
  const key = JSON.stringify(options);
  let looked = ways.get(key);
  if (!looked) ways.set(key, (looked = look(state, trait, options)));
  return looked;
}

function look(state: TrialState, trait: Trait, options: Omit<RowOptions, 'roundId' | 'today'>): Looked {
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

/** Once the trial is over, rounds that aren't begun were missed. */
const dated = (basis: Omit<Basis, 'missed' | 'over'>, over: boolean): Basis => ({
  ...basis,
  toCome: over ? 0 : basis.toCome,
  missed: over ? basis.toCome : 0,
  over,
});

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

/** Whether the figure of a unit is made of several days, for which two are needed. */
const overTime = ({ summary }: Trait): boolean => summary !== 'last' && summary !== 'sum';

/** Days of picks that count: those on which every living unit was looked at; the others are named. */
function daysPicked(
  state: TrialState,
  until: number,
): { counted: ReadonlySet<number>; open: OpenRound[]; toCome: number } {
  const codes = new Map(state.plan.units.map((u) => [u.id, u.code]));
  const all = pickDays(state).filter((d) => d.day <= until);
  const whole = all.filter((d) => d.missing.length === 0);
  // Picking goes on until the last planned day.
  const end = lastDayOf(state.plan) ?? -1;
  return {
    toCome: end > (all.at(-1)?.day ?? -1) ? 1 : 0,
    counted: new Set(whole.map((d) => d.day)),
    open: all
      .filter((d) => d.missing.length > 0)
      .map((d) => ({
        name: 'The pick',
        day: d.day,
        done: d.done.length,
        wanted: d.done.length + d.missing.length,
        missing: d.missing.map((id) => codes.get(id) ?? '?'),
      })),
  };
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

/** Whether a visit has what its kind of trait needs: of weights that are added, every crop. */
function isWhole(
  visit: Response['visits'][number],
  { plan }: TrialState,
  trait: Trait,
  crop: number | null,
): boolean {
  if (crop !== null || kindOf(trait).overCrops !== 'sum') return true;
  return new Set(visit.samples.map((s) => s.crop)).size >= cropsTaken(plan, trait);
}

/** The planned rounds of a trait, in the order of their days. */
function roundsOf(
  state: TrialState,
  trait: Trait,
  units: readonly UnitState[],
  crop: number | null,
): LookedRound[] {
  const planned = state.plan.rounds
    .filter((r) => r.traitIds.includes(trait.id) || units.some((u) => hasRound(u, r)))
    .sort((a, b) => a.day - b.day);
  const event = kindOf(trait).observes === 'event';
  return planned.map((round) => {
    const has = (u: UnitState) =>
      u.response.visits.some((v) => v.roundId === round.id && isWhole(v, state, trait, crop)) ||
      // To whom it had happened before is asked no more.
      (event && (seenOf({ visits: u.response.visits.filter((v) => v.day < round.day) })?.happened ?? false));
    // The dead are asked for nothing, nor are units that are left out.
    const wanted = units.filter((u) => u.excluded === null && (u.died === null || has(u)));
    const missing = wanted.filter((u) => !has(u)).map((u) => u.unit.code);
    const begun = units.some((u) => hasRound(u, round));
    return { round, begun, done: wanted.length - missing.length, wanted: wanted.length, missing };
  });
}

function basisOf(
  trait: Trait,
  looked: readonly LookedRound[],
  only: RoundId | null,
): {
  counted: ReadonlySet<RoundId | null> | null;
  basis: Omit<Basis, 'missed' | 'over'>;
  unfinished: boolean;
} {
  const planned = looked.map((l) => l.round);
  const event = kindOf(trait).observes === 'event';
  const begun = looked.filter((l) => l.begun && l.done > 0);
  const finished = begun.filter((l) => l.missing.length === 0);
  const counts = (list: typeof looked, unfinished = false) => {
    const chosen = new Set<RoundId | null>(list.map((l) => l.round.id));
    // What happened at an earlier look is known at the last one.
    const until = Math.max(-1, ...list.map((l) => l.round.day));
    const counted = event
      ? new Set<RoundId | null>([null, ...planned.filter((r) => r.day <= until).map((r) => r.id)])
      : chosen;
    // Before a last value rounds may be as they like; of a sum every pick is part.
    const from = trait.summary !== 'last' ? -1 : Math.max(-1, ...list.map((l) => l.round.day));
    const matters = (l: (typeof looked)[number]) => !chosen.has(l.round.id) && l.round.day > from;
    return {
      counted,
      basis: {
        rounds: list.map(({ round: { id, name, day } }) => ({ id, name, day })),
        open: begun
          .filter((l) => matters(l) && l.missing.length > 0)
          .map((l) => ({
            name: l.round.name,
            day: l.round.day,
            done: l.done,
            wanted: l.wanted,
            missing: l.missing,
          })),
        toCome: looked.filter((l) => matters(l) && !l.begun && l.missing.length > 0).length,
      },
      unfinished,
    };
  };
  if (only !== null) return counts(looked.filter((l) => l.round.id === only));
  if (begun.length === 0) {
    return { counted: null, basis: { rounds: [], open: [], toCome: looked.length }, unfinished: false };
  }
  if (overTime(trait)) return finished.length > 0 ? counts(finished) : counts([], begun.length > 1);
  if (trait.summary === 'sum') {
    if (finished.length > 0) return counts(finished);
    return planned.length > 1 && begun.length > 1 ? counts([], true) : counts(begun);
  }
  const last = finished[finished.length - 1];
  if (last) return counts([last]);
  // None is finished: the round that was taken furthest, the later of equals.
  const share = (l: (typeof looked)[number]) => l.done / l.wanted;
  return counts([begun.reduce((best, l) => (share(l) >= share(best) ? l : best))]);
}

const hasRound = (u: UnitState, round: Round) => u.response.visits.some((v) => v.roundId === round.id);
