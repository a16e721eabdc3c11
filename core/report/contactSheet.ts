import { localDay } from '../log/localDay';
import { type TrialState, ofKind } from '../log/state';
import { dayOfDate } from '../plan/days';
import { listNames } from '../quantity/format';
import type { Block } from './block';

/** One picture of the sheet. */
export interface SheetCell {
  treatmentId: string;
  name: string;
  code: string;
  /** of the small copy */
  sha256: string;
  gains: readonly [number, number, number] | null;
}

/** Pictures of one day, one unit of each contender, in the plan's order. */
export interface SheetRow {
  day: number;
  cells: SheetCell[];
}

export const CONTACT_SHEET = 'contact-sheet';
/** More days than this make a sheet nobody reads. */
const MOST_DAYS = 4;

/** So many of the days, the first and the last among them. */
function some(days: readonly number[]): number[] {
  if (days.length <= MOST_DAYS) return [...days];
  const step = (days.length - 1) / (MOST_DAYS - 1);
  return Array.from({ length: MOST_DAYS }, (_, i) => days[Math.round(i * step)]!);
}

/**
 * Contenders side by side over the trial: the same unit of each on every day it was photographed on, at most four
 * days. Days on which fewer than two contenders have a picture are left out.
 */
export function contactSheet(state: TrialState): SheetRow[] {
  const { plan } = state;
  const gains = new Map(ofKind(state, 'balance').map((e) => [e.body.photoId, e.body.gains]));
  const photos = ofKind(state, 'photo').map((e) => ({
    unitId: e.body.unitId,
    day: dayOfDate(plan.startDate, localDay(e)),
    sha256: e.body.thumbSha256 ?? e.body.sha256,
    gains: gains.get(e.id) ?? null,
  }));
  // The unit of each contender that has pictures of most days: the same plant is followed.
  const followed = plan.treatments.flatMap((t) => {
    const units = plan.units
      .filter((u) => u.treatmentId === t.id)
      .map((u) => ({ u, days: new Set(photos.filter((p) => p.unitId === u.id).map((p) => p.day)).size }));
    const best = units.reduce<(typeof units)[number] | null>(
      (a, b) => (b.days > (a?.days ?? 0) ? b : a),
      null,
    );
    return best ? [{ treatment: t, unit: best.u }] : [];
  });
  const days = [...new Set(photos.map((p) => p.day))].sort((a, b) => a - b);
  const rows = days.map((day) => ({
    day,
    cells: followed.flatMap(({ treatment, unit }): SheetCell[] => {
      const photo = photos.findLast((p) => p.unitId === unit.id && p.day === day);
      return photo
        ? [
            {
              treatmentId: treatment.id,
              name: treatment.name,
              code: unit.code,
              sha256: photo.sha256,
              gains: photo.gains,
            },
          ]
        : [];
    }),
  }));
  const whole = rows.filter((r) => r.cells.length >= 2);
  const wanted = new Set(some(whole.map((r) => r.day)));
  return whole.filter((r) => wanted.has(r.day));
}

/** The photos in the review: one picture, said in words for who can't see it. */
export function photoBlocks(state: TrialState): Block[] {
  const rows = contactSheet(state);
  if (rows.length === 0) return [];
  const names = [...new Set(rows.flatMap((r) => r.cells.map((c) => c.name)))];
  const days = rows.map((r) => String(r.day));
  const when = `day${days.length === 1 ? '' : 's'} ${listNames(days)}`;
  const balanced = rows.some((r) => r.cells.some((c) => c.gains !== null));
  return [
    { type: 'heading', level: 2, text: 'Photos' },
    {
      type: 'figure',
      id: CONTACT_SHEET,
      alt: `Photos of one ${state.plan.unitNoun} of each contender on ${when}: ${listNames(names)}.`,
      caption: `One ${state.plan.unitNoun} of each contender on ${when}, the same one each time.${balanced ? ' Colours are balanced by a grey card.' : ''}`,
    },
  ];
}
