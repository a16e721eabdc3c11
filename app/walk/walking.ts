import { z } from 'zod';
import { UnitId } from '~core/model/ids';
import { type Asking, nothingAsked, typedOver } from './asking';
import type { Drafts } from './capture';
import type { WalkStep } from './stops';

/** What was typed at a stop that was left, or that the log didn't take: it isn't kept, and is taken up again from a list. */
export interface PutBy<D> extends WalkStep {
  draft: D;
}

/** Somebody on a walk: where, and with what in hand. */
export interface Walking<D> {
  /** undefined: the first that is open */
  unitId: UnitId | undefined;
  /** undefined: the first of the unit that is open */
  sample: number | null | undefined;
  draft: D;
  asking: Asking;
  /** why what was sent off with Enter can't be kept */
  fault: string | null;
  putBy: readonly PutBy<D>[];
}

/** Who typed a change: figures taken off put a value right; what an instrument gives, or another unit, is asked about anew. */
export type How = 'typed' | 'corrected' | 'taken';

export type Move<D> =
  | { put: Partial<D>; how?: How }
  | { asking: Asking }
  | { fault: string }
  /** leaves a stop for another: what is typed there is put by */
  | { leave: WalkStep; go: UnitId; sample?: number | null | undefined }
  /** what stands on the pad was sent to the log */
  | { sent: WalkStep }
  /** the log didn't take it */
  | { refused: PutBy<D> }
  /** leaves a stop to go on with what was put by */
  | { leave: WalkStep; takeUp: PutBy<D> }
  | { drop: WalkStep };

const isAt = (a: WalkStep) => (b: WalkStep) => a.unitId === b.unitId && a.sample === b.sample;
const without = <D>(all: readonly PutBy<D>[], at: WalkStep) => all.filter((p) => !isAt(at)(p));
/** With what is put by at a stop, over what was put by there before. */
const withPutBy = <D>(all: readonly PutBy<D>[], p: PutBy<D>) => [...without(all, p), p];

/** Nothing in hand, with what was put by before. */
export const setOut = <D>(
  drafts: Drafts<D>,
  unitId: UnitId | undefined,
  putBy: readonly PutBy<D>[],
): Walking<D> => ({
  ...{ unitId, sample: undefined, draft: drafts.blank, asking: nothingAsked, fault: null, putBy },
});

/** All that isn't in the log, should the page go away now. */
export const notKept = <D>({ draft, putBy }: Walking<D>, drafts: Drafts<D>, here: WalkStep | null) =>
  here && !drafts.isBlank(draft) ? withPutBy(putBy, { ...here, draft }) : putBy;

/** One move of a walk. What is typed is in hand, put by, or sent: never gone. */
export function walking<D>(w: Walking<D>, move: Move<D>, drafts: Drafts<D>): Walking<D> {
  const emptyHanded = { draft: drafts.blank, asking: nothingAsked, fault: null };
  if ('put' in move) {
    const draft = { ...w.draft, ...move.put };
    const text = drafts.textOf(draft);
    return {
      ...{ ...w, draft, fault: null },
      asking:
        move.how === 'taken'
          ? { ...nothingAsked, text }
          : typedOver(w.asking, text, move.how === 'corrected'),
    };
  }
  if ('asking' in move) return { ...w, asking: move.asking, fault: null };
  if ('fault' in move) return { ...w, fault: move.fault };
  if ('sent' in move) return { ...w, ...emptyHanded, putBy: without(w.putBy, move.sent) };
  if ('refused' in move) return { ...w, putBy: withPutBy(w.putBy, move.refused) };
  if ('drop' in move) return { ...w, putBy: without(w.putBy, move.drop) };
  if ('takeUp' in move) {
    // At the same stop the two change places.
    const putBy = notKept({ ...w, putBy: without(w.putBy, move.takeUp) }, drafts, move.leave);
    const { unitId, sample, draft } = move.takeUp;
    const asking = { ...nothingAsked, text: drafts.textOf(draft) };
    return { unitId, sample, draft, asking, fault: null, putBy };
  }
  const putBy = notKept(w, drafts, move.leave);
  const to = { ...w, ...emptyHanded, unitId: move.go, sample: move.sample, putBy };
  const there = drafts.resumes && putBy.find((p) => p.unitId === move.go);
  return there ? walking(to, { leave: there, takeUp: there }, drafts) : to;
}

const keyOf = (scope: string) => `palazzo/left/${scope}`;

/** What was put by on a walk in this tab, oldest first. @param scope the trial, round and trait */
export function readPutBy<D>(scope: string, drafts: Drafts<D>, storage = sessionStorage): PutBy<D>[] {
  const kept = z.array(z.object({ unitId: UnitId, sample: z.number().nullable(), draft: drafts.schema }));
  try {
    return kept.parse(JSON.parse(storage.getItem(keyOf(scope)) ?? '[]'));
  } catch {
    return [];
  }
}

/** Keeps what was put by as long as the tab lasts. */
export function storePutBy<D>(scope: string, all: readonly PutBy<D>[], storage = sessionStorage): void {
  try {
    if (all.length === 0) storage.removeItem(keyOf(scope));
    else storage.setItem(keyOf(scope), JSON.stringify(all));
  } catch {
    // A full or blocked storage: it is left on this page alone.
  }
}
