import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useEffect, useRef, useState } from 'react';
import type { TrialState } from '~core/log/state';
import type { UnitId } from '~core/model/ids';
import { planIndex } from '~core/plan/planIndex';
import { getBlob } from '../../../store/bulk';
import { download } from '../../../ui/download';
import { useNotice } from '../../../ui/Notices';
import { PickOne } from '../../../ui/PickOne';
import { WorkerFailedError } from '../../../workers/pool';
import { type LapseFrame, makeTimeLapse } from '../../../workers/timeLapse';
import { type Photo, photoDays, sideBySide } from './photoData';

const speeds = ['2', '4', '8', '12'] as const;
/** Every picture, or every so many. */
const steps = ['1', '2', '3', '5', '10'] as const;
/** Longest side of a picture in the film, pixels; the small copies have the largest already. */
const sides = { small: 200, middle: 300, large: 480 } as const;
type Side = keyof typeof sides;
const sideNames = Object.keys(sides) as Side[];
/** Bytes a pixel of a photo takes in a film, as seen in films of plants. */
const BYTES_A_PIXEL = 0.66;
/** What can still be sent easily (practice). */
const EASILY_SENT_MB = 10;

/** About how large a film comes out, MB, of pictures of 4 : 3. @example megabytes('large', 1, 500) // 57 */
const megabytes = (side: Side, tiles: number, frames: number): number =>
  (sides[side] ** 2 * 0.75 * tiles * frames * BYTES_A_PIXEL) / 1e6;

type What = 'side' | UnitId;

interface Shot {
  photo: Photo;
  label: string;
}

/** The pictures of each frame: a day with one unit of each contender, or one unit picture by picture. */
function framesOf(
  state: TrialState,
  photos: readonly Photo[],
  what: What,
): { shots: Shot[]; caption: string }[] {
  const of = planIndex(state.plan);
  if (what !== 'side') {
    return photos
      .filter((p) => p.unitId === what)
      .map((photo) => ({
        shots: [{ photo, label: of.unit(what)?.code ?? '' }],
        caption: `day ${photo.day}, ${photo.at.slice(11, 16)}`,
      }));
  }
  return photoDays(photos).map((day) => ({
    shots: sideBySide(state, photos, day, 0).map(({ unit, photo }) => ({
      photo,
      label: of.treatment(unit.treatmentId)?.name ?? '',
    })),
    caption: `day ${day}`,
  }));
}

const shape = async (photo: Photo): Promise<number> => {
  const blob = await getBlob(photo.thumbSha256);
  if (!blob) return 0.75;
  const bitmap = await createImageBitmap(new Blob([Uint8Array.from(blob.bytes)]));
  const ratio = bitmap.height / bitmap.width;
  bitmap.close();
  return ratio;
};

/** A film of a trial’s pictures, made in a worker: one unit, or contenders side by side. */
export function TimeLapse({ state, photos }: { state: TrialState; photos: readonly Photo[] }) {
  const { plan } = state;
  const notice = useNotice();
  const [what, setWhat] = useState<What>('side');
  const [perSecond, setPerSecond] = useState<(typeof speeds)[number]>('4');
  const [chosenSide, setChosenSide] = useState<Side | null>(null);
  const [every, setEvery] = useState<(typeof steps)[number]>('1');
  const [done, setDone] = useState<number | null>(null);
  const [film, setFilm] = useState<{ url: string; blob: Blob; frames: number } | null>(null);
  const going = useRef(false);
  // Leaving the room ends it, and lets the last film go.
  useEffect(
    () => () => {
      going.current = false;
    },
    [],
  );
  useEffect(() => () => URL.revokeObjectURL(film?.url ?? ''), [film]);
  const all = framesOf(state, photos, what);
  const frames = all.filter((_, i) => i % Number(every) === 0);
  const tiles = Math.max(1, ...frames.map((f) => f.shots.length));
  // The largest that can be sent, until another is chosen.
  const side =
    chosenSide ?? sideNames.findLast((s) => megabytes(s, tiles, frames.length) <= EASILY_SENT_MB) ?? 'small';
  const about = Math.ceil(megabytes(side, tiles, frames.length));
  const withPhotos = plan.units.filter((u) => photos.filter((p) => p.unitId === u.id).length > 1);
  if (all.length < 2 && withPhotos.length === 0) return null;
  const make = async () => {
    const longest = sides[side];
    going.current = true;
    setDone(0);
    setFilm(null);
    try {
      const ratio = await shape(frames[0]!.shots[0]!.photo);
      const bytes = await makeTimeLapse(
        {
          tiles,
          tileWidth: ratio > 1 ? Math.round(longest / ratio) : longest,
          tileHeight: ratio > 1 ? longest : Math.round(longest * ratio),
          delayMs: Math.round(1000 / Number(perSecond)),
          frames: frames.length,
          frame: async (n): Promise<LapseFrame> => {
            const { shots, caption } = frames[n]!;
            return {
              caption,
              tiles: await Promise.all(
                shots.map(async ({ photo, label }) => ({
                  bytes: Uint8Array.from((await getBlob(photo.thumbSha256))?.bytes ?? []),
                  label,
                  gains: photo.gains,
                })),
              ),
            };
          },
        },
        setDone,
        () => going.current,
      );
      if (bytes) {
        const blob = new Blob([bytes], { type: 'image/gif' });
        setFilm({ url: URL.createObjectURL(blob), blob, frames: frames.length });
      }
    } catch (e) {
      if (!(e instanceof WorkerFailedError)) throw e;
      notice({ text: e.message });
    } finally {
      going.current = false;
      setDone(null);
    }
  };
  return (
    <section aria-labelledby="lapse" className="no-print section">
      <h2 id="lapse">Time-lapse</h2>
      <div className="inline-row" style={{ marginTop: '0.8rem' }}>
        <PickOne<What>
          label="Of"
          value={what}
          options={[['side', 'contenders side by side'], ...withPhotos.map((u) => [u.id, u.code] as const)]}
          onPick={setWhat}
          sx={{ width: 260 }}
        />
        <PickOne
          label="Pictures a second"
          value={perSecond}
          options={speeds.map((s) => [s, s] as const)}
          onPick={setPerSecond}
          sx={{ width: 150 }}
        />
        <PickOne
          label="Take"
          value={every}
          options={steps.map((s) => [s, s === '1' ? 'every picture' : `one in ${s}`] as const)}
          onPick={setEvery}
          sx={{ width: 150 }}
        />
        <PickOne<Side>
          label="Size"
          value={side}
          options={sideNames.map((s) => [s, `${s}, ${sides[s]} px`] as const)}
          onPick={setChosenSide}
          sx={{ width: 150 }}
        />
        {done === null ? (
          <Button variant="outlined" disabled={frames.length < 2} onClick={() => void make()}>
            Make it from {frames.length} {what === 'side' ? 'days' : 'pictures'}
          </Button>
        ) : (
          <>
            <LinearProgress
              variant="determinate"
              value={(100 * done) / Math.max(1, frames.length)}
              aria-label="Time-lapse"
              sx={{ width: 160 }}
            />
            <span className="small num">
              {done} of {frames.length}
            </span>
            <Button
              size="small"
              color="secondary"
              onClick={() => {
                going.current = false;
              }}
            >
              Stop
            </Button>
          </>
        )}
        {done === null && !film && frames.length >= 2 && (
          <span className="small quiet">about {about} MB</span>
        )}
        {film && (
          <Button
            variant="contained"
            onClick={() =>
              download(
                film.blob,
                `${plan.code}-${what === 'side' ? 'side-by-side' : (planIndex(plan).unit(what)?.code ?? 'unit')}.gif`,
              )
            }
          >
            Save ({(film.blob.size / 1e6).toFixed(1)} MB)
          </Button>
        )}
      </div>
      {film && (
        <img
          src={film.url}
          alt={`Time-lapse, ${what === 'side' ? 'contenders side by side' : (planIndex(plan).unit(what)?.code ?? '')}`}
          style={{ maxWidth: '100%', marginTop: '0.6rem' }}
        />
      )}
    </section>
  );
}
