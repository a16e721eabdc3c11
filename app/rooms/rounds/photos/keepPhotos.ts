import type { EntryId, UnitId } from '~core/model/ids';
import type { RoundId } from '~core/model/ids';
import type { Plan, Trait } from '~core/model/plan';
import { balanceErrors } from '~core/imaging/balance';
import { type Point, areaOfPixel } from '~core/imaging/canopy';
import { getBlob, photoFile } from '../../../store/bulk';
import type { Saying } from '../../../store/change';
import { describeChangeError } from '../../../store/errors';
import { appendEntries } from '../../../store/trials';
import { type PreparedPhoto, balanceAt, coverOf } from '../../../workers/photos';
import type { Photo, Spot } from './photoData';

/** A picture about to be kept. */
export interface NewPhoto {
  prepared: PreparedPhoto;
  file: string;
  unitId: UnitId | null;
  caption: string;
  /** when it was taken */
  at: Date;
}

const happenedAt = (at: Date) => ({ at: at.toISOString(), offsetMin: -at.getTimezoneOffset() });

/** Keeps a picture and its small copy, and names both in the log. @returns what was wrong; null when it is kept */
export async function keepPhoto(
  trialId: string,
  { prepared, file, unitId, caption, at }: NewPhoto,
): Promise<string | null> {
  const [full, thumb] = [photoFile(prepared.full, 'image/jpeg'), photoFile(prepared.thumb, 'image/jpeg')];
  const written = await appendEntries(
    trialId,
    [
      {
        kind: 'photo',
        unitId,
        // A phone's file name may hold a place or a person; the code says what it is of.
        file: file.slice(0, 200),
        sha256: full.sha256,
        thumbSha256: thumb.sha256,
        caption,
        width: prepared.width,
        height: prepared.height,
      },
    ],
    happenedAt(at),
    { photos: [full, thumb], series: [] },
  );
  return written.ok ? null : describeChangeError(written.error);
}

export interface Measured {
  coverPercent: number;
  areaCm2: number | null;
  darkGreenColourIndex: number | null;
  palePercent: number | null;
  brownPercent: number;
  threshold: number;
  rule: 'otsu' | 'mostlyGround' | 'mostlyPlant' | 'byHand';
  overlay: string | null;
}

const inPixels = (p: Point, width: number, height: number): Point => ({ x: p.x * width, y: p.y * height });

/** Measures the cover of a kept picture within its spot. @returns null where the picture isn't on this device */
export async function measureCover(
  photo: Pick<Photo, 'sha256' | 'gains'>,
  spot: Spot | null,
  threshold: number | null,
  mask: boolean,
): Promise<Measured | null> {
  const blob = await getBlob(photo.sha256);
  if (!blob) return null;
  const cover = await coverOf(Uint8Array.from(blob.bytes), {
    region: spot?.region ?? null,
    threshold,
    mask,
    gains: photo.gains,
  });
  const { width, height } = cover;
  const scale = spot?.scale;
  const perPixel = scale
    ? areaOfPixel(inPixels(scale.a, width, height), inPixels(scale.b, width, height), scale.cm)
    : null;
  return {
    coverPercent: cover.coverPercent,
    areaCm2: perPixel === null ? null : perPixel * cover.plantPixels,
    darkGreenColourIndex: cover.darkGreenColourIndex,
    palePercent: cover.palePercent,
    brownPercent: cover.brownPercent,
    threshold: cover.threshold,
    rule: cover.rule,
    overlay: cover.overlay
      ? URL.createObjectURL(new Blob([cover.overlay as BlobPart], { type: 'image/png' }))
      : null,
  };
}

/** Balances a kept picture by a tapped grey card, and writes it into the log. @returns what was wrong, in words */
export async function keepBalance(
  trialId: string,
  photo: Pick<Photo, 'sha256' | 'entryId'>,
  at: Point,
): Promise<string | null> {
  const blob = await getBlob(photo.sha256);
  if (!blob) return 'This picture isn’t on this device.';
  const gains = await balanceAt(Uint8Array.from(blob.bytes), at);
  if (typeof gains === 'string') return balanceErrors[gains];
  const [r, g, b] = gains;
  const written = await appendEntries(trialId, [
    { kind: 'balance', photoId: photo.entryId, x: at.x, y: at.y, gains: [r, g, b] },
  ]);
  return written.ok ? null : describeChangeError(written.error);
}

/** The round a day's value belongs to: the nearest that takes the trait, not more than three days off. */
function roundOfDay(plan: Plan, trait: Trait, day: number): RoundId | null {
  const near = plan.rounds
    .filter((r) => r.traitIds.includes(trait.id) && Math.abs(r.day - day) <= 3)
    .sort((a, b) => Math.abs(a.day - day) - Math.abs(b.day - day))[0];
  return near?.id ?? null;
}

/** Writes a measured cover into the log, and into the trait that takes it. */
export async function keepCover(
  trialId: string,
  plan: Plan,
  photo: Photo,
  measured: Measured,
  trait: Trait | undefined,
): Promise<string | null> {
  const { overlay: _, ...figures } = measured;
  const roundId = trait ? roundOfDay(plan, trait, photo.day) : null;
  const lines: Saying[] = [
    {
      kind: 'canopy',
      photoId: photo.entryId as EntryId,
      unitId: photo.unitId,
      ...figures,
      ...(photo.gains && { balanced: true as const }),
    },
    ...(trait && photo.unitId && roundId
      ? [
          {
            kind: 'measurement' as const,
            unitId: photo.unitId,
            traitId: trait.id,
            roundId,
            sample: null,
            value: Number(measured.coverPercent.toFixed(trait.decimals)),
          },
        ]
      : []),
  ];
  const written = await appendEntries(trialId, lines, happenedAt(new Date(photo.at)));
  return written.ok ? null : describeChangeError(written.error);
}
