import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useEffect, useRef, useState } from 'react';
import type { TrialState } from '~core/log/state';
import type { UnitId } from '~core/model/ids';
import { planIndex } from '~core/plan/planIndex';
import { getBlob } from '../../store/bulk';
import { download } from '../../ui/download';
import { useNotice } from '../../ui/Notices';
import { PickOne } from '../../ui/PickOne';
import { WorkerFailedError } from '../../workers/pool';
import { type LapseFrame, makeTimeLapse } from '../../workers/timeLapse';
import { type Photo, photoDays, sideBySide } from './photoData';

const speeds = ['2', '4', '8', '12'] as const;
/** Longest side of a picture in the film; the small copies have it already. */
const SIDE = 480;
/** Side by side each is smaller, so that the film can be sent. */
const SIDE_OF_MANY = 300;

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
  const frames = framesOf(state, photos, what);
  const withPhotos = plan.units.filter((u) => photos.filter((p) => p.unitId === u.id).length > 1);
  if (frames.length < 2 && withPhotos.length === 0) return null;
  const make = async () => {
    const tiles = Math.max(1, ...frames.map((f) => f.shots.length));
    const side = tiles === 1 ? SIDE : SIDE_OF_MANY;
    going.current = true;
    setDone(0);
    setFilm(null);
    try {
      const ratio = await shape(frames[0]!.shots[0]!.photo);
      const bytes = await makeTimeLapse(
        {
          tiles,
          tileWidth: ratio > 1 ? Math.round(side / ratio) : side,
          tileHeight: ratio > 1 ? side : Math.round(side * ratio),
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
