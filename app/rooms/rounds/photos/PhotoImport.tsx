import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { type DragEvent, useRef, useState } from 'react';
import type { UnitId } from '~core/model/ids';
import type { Unit } from '~core/model/plan';
import { unitNamedIn } from '~core/plan/matchUnit';
import { sayStorageFault } from '../../../store/errors';
import { LeaveGuard } from '../../../form/UnsavedGuard';
import { FileButton } from '../../../ui/FileButton';
import { PickOne } from '../../../ui/PickOne';
import { useNotice } from '../../../ui/Notices';
import { preparePhoto } from '../../../workers/photos';
import { shortTime } from '../../../ui/clock';
import { CameraPart } from './CameraPart';
import { type NewPhoto, keepPhoto } from './keepPhotos';

interface Pending extends NewPhoto {
  key: string;
  thumbUrl: string;
  how: string;
}

interface Props {
  trialId: string;
  /** in walking order */
  units: readonly Unit[];
  /** address of the newest picture of a unit, for framing the next alike */
  lastOf: (unitId: UnitId) => string | undefined;
  onKept: () => void;
}

let count = 0;

/** New pictures: taken or chosen, matched to their units, looked through, kept. */
export function PhotoImport({ trialId, units, lastOf, onKept }: Props) {
  const [pending, setPending] = useState<Pending[]>([]);
  const [faults, setFaults] = useState<string[]>([]);
  const [reading, setReading] = useState<{ done: number; total: number } | null>(null);
  const [over, setOver] = useState(false);
  const [camera, setCamera] = useState(false);
  const stopped = useRef(false);
  const notice = useNotice();

  const add = async (
    files: readonly { name: string; bytes: Uint8Array<ArrayBuffer>; at: Date; unitId?: UnitId | null }[],
  ) => {
    stopped.current = false;
    setReading({ done: 0, total: files.length });
    for (const [i, f] of files.entries()) {
      if (stopped.current) break;
      try {
        const prepared = await preparePhoto(f.bytes);
        const byCode = prepared.code ? unitNamedIn(units, prepared.code) : undefined;
        const byName = byCode ? undefined : unitNamedIn(units, f.name);
        const unit = byCode ?? byName;
        count += 1;
        const next: Pending = {
          key: `new-${count}`,
          prepared,
          file: f.name,
          unitId: f.unitId ?? unit?.id ?? null,
          caption: '',
          at: prepared.takenAt ? new Date(prepared.takenAt) : f.at,
          thumbUrl: URL.createObjectURL(new Blob([prepared.thumb as BlobPart], { type: 'image/jpeg' })),
          how: f.unitId ? 'taken for it' : byCode ? 'by the code in it' : byName ? 'by its name' : '',
        };
        setPending((all) => [...all, next]);
      } catch {
        setFaults((all) => [...all, `${f.name} isn’t a picture that can be opened here.`]);
      }
      setReading({ done: i + 1, total: files.length });
    }
    setReading(null);
  };
  const addFiles = async (files: readonly File[]) => {
    setFaults([]);
    const read = [];
    for (const file of files) {
      read.push({
        name: file.name,
        bytes: new Uint8Array(await file.arrayBuffer()),
        at: new Date(file.lastModified),
      });
    }
    await add(read);
  };
  const onDrop = (e: DragEvent) => {
    e.preventDefault();
    setOver(false);
    void addFiles([...e.dataTransfer.files]);
  };
  const setUnit = (key: string, unitId: UnitId | null) =>
    setPending((all) => all.map((p) => (p.key === key ? { ...p, unitId, how: 'by hand' } : p)));
  /** Pictures without a unit get those still without a picture, in walking order. */
  const byWalk = () =>
    setPending((all) => {
      const photographed = new Set(all.map((p) => p.unitId));
      const free = units.filter((u) => !photographed.has(u.id));
      const inOrder = [...all].sort(
        (a, b) => a.at.getTime() - b.at.getTime() || a.file.localeCompare(b.file),
      );
      const given = new Map(
        inOrder.filter((p) => p.unitId === null).map((p, i) => [p.key, free[i]?.id ?? null]),
      );
      return all.map((p) =>
        given.get(p.key) ? { ...p, unitId: given.get(p.key)!, how: 'by the order of the walk' } : p,
      );
    });
  const drop = (key: string) => setPending((all) => all.filter((p) => p.key !== key));
  const keep = async () => {
    let keptCount = 0;
    for (const p of pending) {
      try {
        const refusal = await keepPhoto(trialId, p);
        if (refusal) {
          setFaults([refusal]);
          break;
        }
      } catch (e) {
        setFaults([`${p.file} isn’t kept: ${sayStorageFault(e)} It stays in the list.`]);
        break;
      }
      keptCount += 1;
      URL.revokeObjectURL(p.thumbUrl);
      drop(p.key);
    }
    notice({
      text: `${keptCount} ${keptCount === 1 ? 'photo' : 'photos'} kept; the log names each by its hash.`,
    });
    onKept();
  };
  const loose = pending.filter((p) => p.unitId === null).length;
  return (
    <section className="section no-print" aria-labelledby="new-photos">
      <h2 id="new-photos">New photos</h2>
      <div
        className={`drop${over ? ' over' : ''}`}
        onDragOver={(e) => {
          e.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={onDrop}
      >
        <div className="inline-row">
          <FileButton
            label="Choose photos"
            accept="image/*"
            multiple
            testId="photo-files"
            onFiles={addFiles}
          />
          <FileButton
            label="With the phone’s camera"
            accept="image/*"
            camera
            variant="outlined"
            color="secondary"
            onFiles={addFiles}
          />
          <Button color="secondary" onClick={() => setCamera(!camera)} aria-expanded={camera}>
            {camera ? 'Close the camera' : 'From the same spot …'}
          </Button>
          <span className="small quiet">or drop them here</span>
        </div>
        <p className="small quiet" style={{ marginTop: '0.5rem' }}>
          Place, camera and whatever else is written in a picture is left out; date and orientation are kept.
          Coloured lamps off, the same mark, the label in the picture: its code says which{' '}
          {units.length > 0 ? 'unit' : 'one'} it is.
        </p>
      </div>
      {camera && (
        <CameraPart
          units={units}
          lastOf={lastOf}
          onTaken={(bytes, unitId) => void add([{ name: 'camera.jpg', bytes, at: new Date(), unitId }])}
        />
      )}
      {reading && (
        <div className="inline-row" style={{ marginTop: '0.6rem' }}>
          <LinearProgress
            variant="determinate"
            value={(100 * reading.done) / Math.max(1, reading.total)}
            aria-label="Photos read"
            sx={{ flex: 1 }}
          />
          <Button size="small" onClick={() => (stopped.current = true)}>
            Stop
          </Button>
        </div>
      )}
      <LeaveGuard unsaved={pending.length > 0} what="The photos that aren’t kept yet" />
      {faults.map((f) => (
        <p key={f} role="alert" style={{ color: 'var(--porphyry)' }}>
          {f}
        </p>
      ))}
      {pending.length > 0 && (
        <>
          <ul className="new-photos">
            {pending.map((p) => (
              <li key={p.key}>
                <img src={p.thumbUrl} alt={p.file} />
                <span>
                  {p.file}
                  <span className="small quiet" style={{ display: 'block' }}>
                    {shortTime(p.at.toISOString())}
                    {p.how && ` · ${p.how}`}
                  </span>
                </span>
                <PickOne<UnitId | ''>
                  label="Unit"
                  value={p.unitId ?? ''}
                  options={[['', 'the whole trial'], ...units.map((u) => [u.id, u.code] as const)]}
                  onPick={(id) => setUnit(p.key, id === '' ? null : id)}
                />
                <Button
                  size="small"
                  color="inherit"
                  onClick={() => drop(p.key)}
                  aria-label={`Leave out ${p.file}`}
                >
                  Leave out
                </Button>
              </li>
            ))}
          </ul>
          <div className="inline-row">
            <Button variant="contained" disabled={reading !== null} onClick={() => void keep()}>
              Keep {pending.length === 1 ? 'the photo' : `${pending.length} photos`}
            </Button>
            {loose > 0 && (
              <Button color="secondary" onClick={byWalk}>
                Match {loose} by the order of the walk
              </Button>
            )}
          </div>
        </>
      )}
    </section>
  );
}
