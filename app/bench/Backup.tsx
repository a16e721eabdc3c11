import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useState } from 'react';
import { useRevalidator } from 'react-router';
import {
  type BackupPreview,
  type BackupTarget,
  type TrialThere,
  readBackup,
  writeBackup,
} from '../store/backup';
import { benchName } from '../store/bench';
import { sayStorageFault } from '../store/errors';
import { err } from '~core/model/result';
import type { UnreadPart } from '../workers/backupFile';
import { backupBeside, stopReading } from '../workers/files';
import { FileButton } from '../ui/FileButton';
import { download } from '../ui/download';
import { KeptFolder } from './KeptFolder';
import { shortTime, todayDate } from '../ui/clock';

interface Props {
  unsaved: { at: string | null; trials: number };
}

type Saver = (options: object) => Promise<{
  createWritable: () => Promise<BackupTarget['stream']>;
  getFile: () => Promise<Blob>;
}>;

/** Straight onto the disk where the browser can; else through a file it keeps until it is saved. */
async function target(name: string): Promise<BackupTarget | undefined | 'cancelled'> {
  const pick = (window as { showSaveFilePicker?: Saver }).showSaveFilePicker;
  if (!pick) return undefined;
  try {
    const handle = await pick({ suggestedName: name, types: [{ accept: { 'application/zip': ['.zip'] } }] });
    return { stream: await handle.createWritable(), written: () => handle.getFile() };
  } catch (e) {
    return (e as Error).name === 'AbortError' ? 'cancelled' : undefined;
  }
}

/** What isn't saved outside this browser yet. @example 'Two trials changed since the last backup.' */
const sayUnsaved = ({ at, trials }: Props['unsaved']): string => {
  const changed = `${trials === 1 ? 'One trial was' : `${trials} trials were`} changed`;
  if (at === null)
    return trials === 0 ? 'There is nothing to lose yet.' : 'No backup was made on this device yet.';
  return trials === 0
    ? `Everything is in the backup of ${shortTime(at)}.`
    : `${changed} since the backup of ${shortTime(at)}.`;
};

/** The whole bench in one file, out and in. */
export function Backup({ unsaved }: Props) {
  const revalidator = useRevalidator();
  const [withKeys, setWithKeys] = useState(false);
  const [busy, setBusy] = useState<string | null>(null);
  const [said, setSaid] = useState<{ text: string; bad: boolean } | null>(null);
  const [reading, setReading] = useState(false);
  const [found, setFound] = useState<BackupPreview | null>(null);
  const step = (what: string) => (done: number, of: number) => setBusy(`${what} ${done} of ${of} …`);

  const save = async () => {
    const name = `palazzo-${benchName() === 'demo' ? 'demo-' : ''}bench-${todayDate()}.zip`;
    const to = await target(name);
    if (to === 'cancelled') return;
    setSaid(null);
    setBusy('Writing …');
    try {
      const { blob, faults } = await writeBackup(
        { withKeys, onProgress: step('Writing and reading back') },
        to,
        backupBeside,
      );
      if (blob) download(blob, name);
      setSaid({
        text:
          faults.length === 0
            ? `The bench is in ${name}, and was read back.`
            : `The bench is in ${name}, but for what couldn’t be read back from it: ${sayParts(faults)}`,
        bad: faults.length > 0,
      });
    } catch (e) {
      setSaid({ text: `The backup wasn’t written: ${sayStorageFault(e)}`, bad: true });
    } finally {
      setBusy(null);
      await revalidator.revalidate();
    }
  };
  const open = async ([file]: File[]) => {
    if (!file) return;
    setFound(null);
    setSaid(null);
    setBusy('Reading …');
    setReading(true);
    const read = await readBackup(file, backupBeside, ({ done, total }) =>
      step('Reading')(done, total),
    ).catch((e: Error) => err(e.message));
    setReading(false);
    setBusy(null);
    if (read.ok) setFound(read.value);
    else setSaid({ text: `${file.name}: ${read.error}`, bad: true });
  };
  const bringBack = async () => {
    if (!found) return;
    setBusy('Bringing back …');
    try {
      const { brokenPhotos, failed, waiting } = await found.apply(step('Bringing back'));
      const broken = brokenPhotos === 1 ? 'One picture was' : `${brokenPhotos} pictures were`;
      setSaid({
        text: [
          failed.length === 0
            ? 'The backup is on the bench.'
            : `Not brought back: ${sayParts(failed)} The rest is on the bench.`,
          brokenPhotos > 0 ? `${broken} damaged and left out.` : '',
          waiting > 0
            ? `${waiting === 1 ? 'One line waits' : `${waiting} lines wait`} for your word in the logs: a file may not seal or open a trial unasked.`
            : '',
        ]
          .filter(Boolean)
          .join(' '),
        bad: brokenPhotos + failed.length > 0,
      });
      setFound(null);
    } catch (e) {
      setSaid({
        text: `Not all of it was brought back: ${sayStorageFault(e)} What is here stays; try again when there is room.`,
        bad: true,
      });
    } finally {
      setBusy(null);
      await revalidator.revalidate();
    }
  };
  return (
    <section>
      <h2>Backup</h2>
      <p className="quiet">
        The whole bench in one file: trials, library, pictures, readings. What is in the bin isn’t in it.
      </p>
      <p>{sayUnsaved(unsaved)}</p>
      <div className="inline-row" style={{ marginTop: '0.6rem' }}>
        <Button variant="contained" disabled={busy !== null} onClick={() => void save()}>
          Save a backup
        </Button>
        <FileButton
          label="Bring a backup back …"
          accept=".zip,application/zip"
          testId="backup-file"
          variant="outlined"
          color="secondary"
          disabled={busy !== null}
          onFiles={open}
        />
        <FormControlLabel
          control={
            <Checkbox size="small" checked={withKeys} onChange={(e) => setWithKeys(e.target.checked)} />
          }
          label="With the keys of blind trials and panels"
        />
      </div>
      {withKeys && (
        <p className="small note">
          Whoever has this file can open every code. Without the keys, blind trials stay blind where it is
          brought back.
        </p>
      )}
      <KeptFolder />
      {busy && (
        <p role="status">
          {busy}{' '}
          {reading && (
            <Button size="small" color="inherit" onClick={stopReading}>
              Stop
            </Button>
          )}
        </p>
      )}
      {said && (
        <p role="status" style={{ color: said.bad ? 'var(--porphyry)' : 'var(--verdigris)' }}>
          {said.text}
        </p>
      )}
      {found && (
        <div className="note plain" role="region" aria-label="What is in the backup">
          <h3>Made {shortTime(found.madeAt)}</h3>
          <ul className="report-list">
            {found.trials.map((t) => (
              <li key={`${t.code}${t.question}`}>
                {t.question} ({t.code}): {sayThere(t)}
              </li>
            ))}
            {found.unread.map((u) => (
              <li key={u.filename} className="warning">
                {u.filename} can’t be read and stays out: {u.why}
              </li>
            ))}
            <li>{sayProducts(found.products)}</li>
            <li>
              {found.photos === 0
                ? 'No picture that isn’t here.'
                : `${found.photos} pictures that aren’t here.`}
            </li>
            {!found.withKeys && <li>No keys: blind trials that are new here stay blind.</li>}
          </ul>
          <p className="inline-row" style={{ marginTop: '0.6rem' }}>
            <Button variant="contained" disabled={busy !== null} onClick={() => void bringBack()}>
              Bring it back
            </Button>
            <Button color="inherit" onClick={() => setFound(null)}>
              Leave it
            </Button>
          </p>
          <p className="small quiet">Nothing here is overwritten.</p>
        </div>
      )}
    </section>
  );
}

/** Parts with their reasons, the first few. */
const sayParts = (parts: readonly UnreadPart[]): string =>
  parts
    .slice(0, 5)
    .map((p) => `${p.filename}: ${p.why.replace(/\.$/, '')}.`)
    .join(' ') + (parts.length > 5 ? ` And ${parts.length - 5} more.` : '');

const sayThere = ({ what }: TrialThere): string => {
  switch (what.tag) {
    case 'new':
      return 'isn’t here, is added';
    case 'same':
      return 'is here, nothing new';
    case 'adds':
      return `is here, gets ${what.lines === 1 ? 'one line' : `${what.lines} lines`} more`;
    case 'differs':
      return 'is here with another plan; comes beside it as a copy';
  }
};

const sayProducts = ({ added, here }: BackupPreview['products']): string =>
  `${added === 0 ? 'No new product' : added === 1 ? 'One new product' : `${added} new products`}${here > 0 ? `; ${here} are here and stay as they are` : ''}.`;
