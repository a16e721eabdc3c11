import type { Gains } from '~core/imaging/balance';
import { localDay } from '~core/log/localDay';
import { type TrialState, ofKind } from '~core/log/state';
import type { BodyOf } from '~core/log/entry';
import type { EntryId, TreatmentId, UnitId } from '~core/model/ids';
import type { Trait, Unit } from '~core/model/plan';
import { dayOfDate } from '~core/plan/days';
import { planIndex } from '~core/plan/planIndex';
import { blobUrls } from '../../../store/blobUrls';

/** A picture as the screen knows it. */
export interface Photo {
  entryId: EntryId;
  standsFrom: EntryId;
  unitId: UnitId | null;
  sha256: string;
  thumbSha256: string;
  /** when it was taken */
  at: string;
  day: number;
  caption: string;
  cover: Omit<BodyOf<'canopy'>, 'kind'> | null;
  /** by the grey card in it; null: as taken */
  gains: Gains | null;
}

export type Spot = Omit<BodyOf<'spot'>, 'kind'>;

/** Every picture of a trial in the order it was taken, with the newest cover measured on it. */
export function photosOf(state: TrialState): Photo[] {
  const covers = new Map(ofKind(state, 'canopy').map((e) => [e.body.photoId, e.body]));
  const balances = new Map(ofKind(state, 'balance').map((e) => [e.body.photoId, e.body.gains]));
  return ofKind(state, 'photo').map((e) => ({
    entryId: e.id,
    standsFrom: e.standsFrom,
    unitId: e.body.unitId,
    sha256: e.body.sha256,
    thumbSha256: e.body.thumbSha256 ?? e.body.sha256,
    at: e.at,
    day: dayOfDate(state.plan.startDate, localDay(e)),
    caption: e.body.caption,
    cover: covers.get(e.id) ?? null,
    gains: balances.get(e.id) ?? null,
  }));
}

/** The spot of a unit: its own, else the one all are taken from. */
export function spotOf(state: TrialState, unitId: UnitId | null): Spot | null {
  const spots = ofKind(state, 'spot').map((e) => e.body);
  return spots.findLast((s) => s.unitId === unitId) ?? spots.findLast((s) => s.unitId === null) ?? null;
}

/** Days with pictures, each once. */
export const photoDays = (photos: readonly Photo[]): number[] =>
  [...new Set(photos.filter((p) => p.unitId !== null).map((p) => p.day))].sort((a, b) => a - b);

/** The newest picture of a unit up to a day. */
export const latestOf = (photos: readonly Photo[], unitId: UnitId, day: number): Photo | undefined =>
  photos.findLast((p) => p.unitId === unitId && p.day <= day);

/**
 * One unit of each contender that has a picture of that day, from the same block where there is one: neighbours in
 * place are compared.
 * @param turn which of them, counted from 0
 */
export function sideBySide(
  state: TrialState,
  photos: readonly Photo[],
  day: number,
  turn: number,
): { unit: Unit; photo: Photo }[] {
  const unitsToday = new Set(photos.filter((p) => p.day === day).map((p) => p.unitId));
  const groups = state.plan.treatments.map((t) =>
    state.plan.units.filter((u) => u.treatmentId === t.id && unitsToday.has(u.id)),
  );
  return groups.flatMap((units) => {
    if (units.length === 0) return [];
    const unit = units[turn % units.length]!;
    return [{ unit, photo: photos.findLast((p) => p.unitId === unit.id && p.day === day)! }];
  });
}

/** Mean cover of each contender on a day, in the order of the plan. */
export function coverByTreatment(
  state: TrialState,
  photos: readonly Photo[],
  day: number,
): { id: TreatmentId; name: string; mean: number; n: number }[] {
  return state.plan.treatments.flatMap((t) => {
    // One figure a unit, the one its tile shows: of several pictures on a day the newest that was measured.
    const covers = planIndex(state.plan)
      .unitsOf(t.id)
      .flatMap((u) => {
        const own = photos.findLast((p) => p.unitId === u.id && p.day === day && p.cover);
        return own?.cover ? [own.cover.coverPercent] : [];
      });
    return covers.length === 0
      ? []
      : [
          {
            id: t.id,
            name: t.name,
            mean: covers.reduce((a, b) => a + b, 0) / covers.length,
            n: covers.length,
          },
        ];
  });
}

/**
 * What a day's pictures show: the most and the least covered contender, as means of what was measured and no more.
 * @example coverWords([{ name: 'Duo', mean: 70, n: 4 }, { name: 'Water', mean: 33, n: 4 }]) // 'Duo covers 70 %, Water 33 %'
 */
export function coverWords(means: readonly { name: string; mean: number }[]): string {
  if (means.length < 2) return '';
  const sorted = [...means].sort((a, b) => b.mean - a.mean);
  const [most, least] = [sorted[0]!, sorted.at(-1)!];
  const round = (x: number) => Math.round(x);
  return round(most.mean) === round(least.mean)
    ? `all cover about ${round(most.mean)} %`
    : `${most.name} covers ${round(most.mean)} %, ${least.name} ${round(least.mean)} %`;
}

/** The trait a measured cover goes into, where the plan has one. */
export const coverTrait = (traits: readonly Trait[]): Trait | undefined =>
  traits.find((t) => /cover/i.test(t.name) && t.unit === '%' && t.kind === 'number');

export interface PhotosData {
  photos: Photo[];
  urls: ReadonlyMap<string, string>;
}

export async function photosData(state: TrialState): Promise<PhotosData> {
  const photos = photosOf(state);
  return { photos, urls: await blobUrls(photos.map((p) => p.thumbSha256)) };
}
