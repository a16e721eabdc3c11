import type { EntryId, RoundId, TraitId, UnitId } from '../model/ids';
import { dayOfDate } from '../plan/days';
import type { PlanIndex } from '../plan/planIndex';
import type { BodyOf, EntryBody } from './entry';
import { isAdded, netG } from './kinds/weighing';
import { localDay } from './localDay';
import { compareLines, compareTimes } from './order';
import type { ResolvedEntry } from './resolve';

interface Earlier {
  value: number;
  reason: string;
  recordedAt: string;
}

/** Most values replace none: they share an empty list. */
const nothingEarlier: readonly Earlier[] = [];

/** One standing value of one trait on one unit as it was written down, weighings included (as net grams). */
export interface Observation {
  entryId: EntryId;
  unitId: UnitId;
  traitId: TraitId;
  roundId: RoundId | null;
  /** day of the trial it belongs to: its round's, else the day it was taken on */
  day: number;
  sample: number | null;
  value: number;
  /** n of a k-of-n value, where it was said with the value */
  outOf: number | null;
  /** of `days until`: it hadn't happened on that day */
  notYet: boolean;
  /** of k of n: so many more are borderline */
  borderline?: number;
  /** of k of n: so many of k aren't true to type */
  offType?: number;
  at: string;
  offsetMin: number | null;
  recordedAt: string;
  by: string;
  counter: number;
  device: string;
  /** the line that gave the value: a new value for the same place puts this one right */
  standsFrom: EntryId;
  /** values this one replaced, oldest first; a load that another was added to isn't replaced */
  earlier: readonly Earlier[];
  weighing: BodyOf<'weighing'> | null;
}

/** Where a value belongs among those of its unit and trait. */
export const placeOf = (unitId: UnitId, traitId: TraitId): string => `${unitId}/${traitId}`;

/**
 * The value a line gives, or null for lines that give none or tell of a unit that isn't in the plan.
 * @param startDate day 0 of the trial, YYYY-MM-DD
 */
export function observationOf(e: ResolvedEntry, of: PlanIndex, startDate: string): Observation | null {
  const { body } = e;
  if (body.kind !== 'measurement' && body.kind !== 'weighing') return null;
  if (!of.unit(body.unitId)) return null;
  const round = body.roundId === null ? undefined : of.round(body.roundId);
  return {
    entryId: e.id,
    unitId: body.unitId,
    traitId: body.traitId,
    roundId: body.roundId,
    day: round?.day ?? dayOfDate(startDate, localDay(e)),
    sample: body.sample,
    value: valueOf(body),
    outOf: (body.kind === 'measurement' && body.outOf) || null,
    notYet: body.kind === 'measurement' && body.notYet === true,
    ...(body.kind === 'measurement' && body.borderline !== undefined && { borderline: body.borderline }),
    ...(body.kind === 'measurement' && body.offType !== undefined && { offType: body.offType }),
    at: e.at,
    offsetMin: e.offsetMin,
    recordedAt: e.recordedAt,
    by: e.by,
    counter: e.counter,
    device: e.device,
    standsFrom: e.standsFrom,
    earlier:
      e.superseded.length === 0
        ? nothingEarlier
        : e.superseded.flatMap((s, i) =>
            (s.body.kind === 'measurement' || s.body.kind === 'weighing') &&
            !isAddedLoad(s.body, e.superseded[i + 1]?.body ?? body)
              ? [{ value: valueOf(s.body), reason: s.reason, recordedAt: s.recordedAt }]
              : [],
          ),
    weighing: body.kind === 'weighing' ? body : null,
  };
}

/** Whether a state only has another load than the one before. */
const isAddedLoad = (before: EntryBody, after: EntryBody): boolean =>
  before.kind === 'weighing' && after.kind === 'weighing' && isAdded(before, after);

const valueOf = (
  b: { kind: 'measurement'; value: number } | { kind: 'weighing'; grossG: number; tareG: number },
) => (b.kind === 'measurement' ? b.value : netG(b));

/**
 * Which of two values is the later one: by the day of the round, then by when it was taken, then by when it was
 * written. A round typed in after a later one doesn't become the last.
 */
export const compareObservations = (a: Observation, b: Observation): number =>
  // Written out: it is asked for each value of a log, several times.
  a.day - b.day ||
  compareTimes(a.at, b.at) ||
  compareLines(a.counter, a.device, a.entryId, b.counter, b.device, b.entryId);

/** Whether a value stands for another one: typing the same again corrects nothing. */
export const isCorrected = (o: Pick<Observation, 'value' | 'earlier'>): boolean =>
  o.earlier.some((e) => e.value !== o.value);
