import { z } from 'zod';
import { UnitId } from '~core/model/ids';

/** A weight as the scale gave it. */
export const Weighed = z.object({
  grams: z.number(),
  steady: z.boolean(),
  instrument: z.string(),
  /** smallest step of the scale, g */
  stepG: z.number().nullable(),
});
export type Weighed = z.infer<typeof Weighed>;

/** What stood on the pad of a unit when it was left, and isn't in the log. */
export const LeftTyped = z.object({
  unitId: UnitId,
  sample: z.number().nullable(),
  text: z.string(),
  /** words beside the value, by trait */
  words: z.record(z.string(), z.string()),
  borderline: z.number(),
  offType: z.number(),
  /** where the scale gave it */
  reading: Weighed.nullable(),
});
export type LeftTyped = z.infer<typeof LeftTyped>;

const keyOf = (scope: string) => `palazzo/left/${scope}`;
const samePad = (a: LeftTyped, b: Pick<LeftTyped, 'unitId' | 'sample'>) =>
  a.unitId === b.unitId && a.sample === b.sample;

/** Whether nothing was typed. */
export const isBlank = ({ text, words, borderline, offType }: LeftTyped): boolean =>
  text === '' && borderline === 0 && offType === 0 && Object.values(words).every((w) => w.trim() === '');

/** What was left of a walk in this tab, oldest first. @param scope the trial, round and trait */
export function leftOf(scope: string, storage: Storage = sessionStorage): LeftTyped[] {
  try {
    return z.array(LeftTyped).parse(JSON.parse(storage.getItem(keyOf(scope)) ?? '[]'));
  } catch {
    return [];
  }
}

/** Puts it by, over what was left at the same pad before. @returns all that is left */
export const putBy = (scope: string, left: LeftTyped, storage: Storage = sessionStorage): LeftTyped[] =>
  write(scope, [...leftOf(scope, storage).filter((l) => !samePad(l, left)), left], storage);

/** Takes what was left at a pad away: it is on the pad again, in the log, or not wanted. @returns what is still left */
export const takeAway = (
  scope: string,
  at: Pick<LeftTyped, 'unitId' | 'sample'>,
  storage: Storage = sessionStorage,
): LeftTyped[] =>
  write(
    scope,
    leftOf(scope, storage).filter((l) => !samePad(l, at)),
    storage,
  );

function write(scope: string, all: LeftTyped[], storage: Storage): LeftTyped[] {
  try {
    if (all.length === 0) storage.removeItem(keyOf(scope));
    else storage.setItem(keyOf(scope), JSON.stringify(all));
  } catch {
    // A full or blocked storage: it is left on this page alone.
  }
  return all;
}
