import { localDay } from '../log/localDay';
import { type TrialState, ofKind } from '../log/state';
import type { ReviewText } from '../log/trial';
import { dayOfDate } from '../plan/days';
import { planIndex } from '../plan/planIndex';
import type { Block } from './block';

/** A photo of the log that the reviewer put into the review. */
export interface ChosenPhoto {
  /** id of its line */
  id: string;
  sha256: string;
  /** as it stands under the picture */
  caption: string;
  /** as it is said to who can't see it */
  alt: string;
}

/** What a photo shows, from the log alone. @example 'Duo Lume, tray COR-03, day 12' */
export function photoShows(state: Pick<TrialState, 'plan' | 'byKind'>, id: string): string {
  const { plan } = state;
  const line = ofKind(state, 'photo').find((e) => e.id === id);
  if (!line) return '';
  const of = planIndex(plan);
  const unit = line.body.unitId === null ? undefined : of.unit(line.body.unitId);
  const day = dayOfDate(plan.startDate, localDay(line));
  const what = unit
    ? `${of.treatment(unit.treatmentId)?.name ?? ''}, ${plan.unitNoun} ${unit.code}`
    : line.body.caption || line.body.file;
  return `${what}, day ${day}`;
}

/** Photos chosen for the review that are still in the log, with what stands under them. */
export function chosenPhotos(state: TrialState, { photos = [] }: ReviewText): ChosenPhoto[] {
  const lines = new Map(ofKind(state, 'photo').map((e) => [e.id as string, e.body]));
  return photos.flatMap(({ photoId, caption, alt }) => {
    const body = lines.get(photoId);
    if (!body) return [];
    const shows = photoShows(state, photoId);
    return [{ id: photoId, sha256: body.sha256, caption: caption || shows, alt: alt || shows }];
  });
}

/** Id of the figure of a chosen photo. */
export const photoFigure = (id: string): string => `photo-${id}`;

/** The chosen photos, one figure each, in the reviewer's order. */
export const chosenPhotoBlocks = (state: TrialState, review: ReviewText): Block[] =>
  chosenPhotos(state, review).map(({ id, caption, alt }) => ({
    type: 'figure',
    id: photoFigure(id),
    alt,
    caption,
  }));
