import type { Bulk } from '~core/formats/bulkFiles';
import { ok } from '~core/model/result';
import { command, toAction } from '../form/command';
import { restoreCommand } from '../form/binAction';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { Link, useLoaderData, useNavigate, useRevalidator } from 'react-router';
import { z } from 'zod';
import { err } from '~core/model/result';
import { libraryToFile } from '~core/formats/libraryFile';
import type { Trial } from '~core/log/trial';
import { benchName, resetDemo } from '../store/bench';
import { unsavedSince } from '../store/unsaved';
import { listBin, purgeBin, purgeOld } from '../store/bin';
import { keepClash } from '../store/clashes';
import { storageRoom } from '../store/storage';
import { listProducts, changeProducts } from '../store/products';
import { type TakenIn, aFile, takeIn, takeInAsCopy } from '../store/takeIn';
import { sayStorageFault } from '../store/errors';
import { FileButton } from '../ui/FileButton';
import { readLibraryFile, readTrialFile, stopReading } from '../workers/files';
import { useNotice } from '../ui/Notices';
import { RoomHead } from '../ui/RoomHead';
import { Backup } from './Backup';
import { Bin } from './Bin';
import { WhereItLies } from './WhereItLies';
import { download } from '../ui/download';

export async function clientLoader() {
  await purgeOld();
  const [bin, room, unsaved] = await Promise.all([listBin(), storageRoom(), unsavedSince()]);
  return { bin, room, unsaved };
}

export const clientAction = toAction({
  restore: restoreCommand,
  empty: command(z.object({ intent: z.literal('empty') }), async () => {
    await purgeBin(new Date().toISOString());
    return ok({ message: 'The bin is empty.' });
  }),
});

export default function DataRoom() {
  const { bin, room, unsaved } = useLoaderData<typeof clientLoader>();
  const revalidator = useRevalidator();
  const notice = useNotice();

  const reset = async () => {
    const bringBack = await resetDemo();
    await revalidator.revalidate();
    notice({
      text: 'The demo bench is as new.',
      undo: async () => {
        await bringBack();
        await revalidator.revalidate();
      },
    });
  };
  return (
    <div style={{ maxWidth: '54rem' }}>
      <RoomHead title="Data">
        Everything stays in this browser, on this device. Files are how it travels; in one network phone and
        desk can also <Link to="/devices">be paired</Link>. Names, light and figures are{' '}
        <Link to="/settings">settings</Link>.
      </RoomHead>
      <Backup unsaved={unsaved} />
      <TakeIn />
      <LibraryFiles />
      <Bin rows={bin} />
      <WhereItLies room={room} />
      {benchName() === 'demo' && (
        <section className="section">
          <h2>Demo bench</h2>
          <p className="quiet">
            Made-up products, people and figures. Resetting makes it anew, with dates from today; your own
            bench isn’t touched.
          </p>
          <Button variant="outlined" color="secondary" onClick={() => void reset()}>
            Reset the demo
          </Button>
        </section>
      )}
    </div>
  );
}

/** What came of taking a file in. */
function takenInText(question: string, { outcome, brokenSeal, notFollowed, waiting }: TakenIn): string {
  const lines = (n: number) => `${n} new log ${n === 1 ? 'line' : 'lines'}`;
  const came =
    outcome.tag === 'added'
      ? `“${question}” is on the bench.`
      : `“${question}” was here: ${lines(outcome.newEntries)} ${outcome.newEntries === 1 ? 'was' : 'were'} added.`;
  const conflicts =
    outcome.tag === 'merged' && outcome.conflicts > 0
      ? ` ${outcome.conflicts === 1 ? 'One line says' : `${outcome.conflicts} lines say`} something else than here: nothing was overwritten, the log shows both.`
      : '';
  const aside =
    notFollowed.length > 0
      ? ` ${notFollowed.length === 1 ? 'One line isn’t' : `${notFollowed.length} lines aren’t`} followed: ${[...new Set(notFollowed)].join(' ')} The log shows ${notFollowed.length === 1 ? 'it' : 'them'}.`
      : '';
  const asks =
    waiting.length > 0
      ? ` ${waiting.length === 1 ? 'One line waits' : `${waiting.length} lines wait`} for your word in the log: a file may not seal or open a trial unasked.`
      : '';
  return `${came}${conflicts}${asks}${aside}${brokenSeal ? ` ${brokenSeal}` : ''}`;
}

const readingSteps = ['Opening the file …', 'Reading plan and log …', 'Looking at pictures and readings …'];

/** Takes in an exported trial; when another plan of it is here, offers to add it beside. */
function TakeIn() {
  const navigate = useNavigate();
  const revalidator = useRevalidator();
  const [message, setMessage] = useState<{ text: string; bad: boolean; id?: string } | null>(null);
  const [clash, setClash] = useState<{ trial: Trial; bulk: Bulk } | null>(null);
  const [step, setStep] = useState<number | null>(null);

  const onFiles = async ([file]: File[]) => {
    if (!file) return;
    setClash(null);
    setMessage(null);
    setStep(0);
    const read = await readTrialFile(file, ({ done }) => setStep(done)).catch((e: Error) => e);
    setStep(null);
    if (read instanceof Error) return setMessage({ text: read.message, bad: true });
    if (!read.ok) return setMessage({ text: `${file.name}: ${read.error}`, bad: true });
    const { trial, bulk, broken, altered } = read.value;
    const notAsSaid = [
      altered.length > 0
        ? ` ${altered.length === 1 ? 'One part' : `${altered.length} parts`} of the file ${altered.length === 1 ? 'isn’t' : 'aren’t'} as the file says of itself, changed after it was written: ${altered.slice(0, 3).join(', ')}${altered.length > 3 ? ' …' : ''}.`
        : '',
      broken > 0
        ? ` ${broken === 1 ? 'One picture or table of readings' : `${broken} pictures or tables of readings`} of it ${broken === 1 ? 'isn’t' : 'aren’t'} what the log names, and ${broken === 1 ? 'was' : 'were'} left out.`
        : '',
    ].join('');
    let takenIn: Awaited<ReturnType<typeof takeIn>>;
    try {
      takenIn = await takeIn(trial, { ...aFile, bulk });
    } catch (e) {
      return setMessage({
        text: `“${trial.plan.question}” was not taken in: ${sayStorageFault(e)} Nothing on the bench was changed.`,
        bad: true,
      });
    }
    if (!takenIn.ok && takenIn.error.tag === 'unsound')
      return setMessage({
        text: `“${trial.plan.question}” was not taken in: ${takenIn.error.why}`,
        bad: true,
      });
    if (!takenIn.ok) {
      setClash({ trial, bulk });
      return setMessage({
        text: [
          `“${trial.plan.question}” is here already with a different plan. Nothing was changed.`,
          takenIn.error.tag === 'differentPlan' ? (takenIn.error.seal ?? '') : '',
        ].join(' '),
        bad: true,
      });
    }
    setMessage({
      text: takenInText(trial.plan.question, takenIn.value) + notAsSaid,
      bad: takenIn.value.brokenSeal !== null || notAsSaid !== '',
      id: trial.plan.id,
    });
    await revalidator.revalidate();
  };
  const showBoth = async () => {
    if (!clash) return;
    await keepClash(clash.trial, 'the file');
    await navigate('/devices');
  };
  const addCopy = async () => {
    if (!clash) return;
    const id = await takeInAsCopy(clash.trial, clash.bulk);
    setClash(null);
    setMessage({ text: 'Added as a second trial.', bad: false, id });
    await revalidator.revalidate();
  };
  return (
    <section className="section">
      <h2>Take in a trial</h2>
      <p className="quiet" style={{ marginBottom: '0.8rem' }}>
        The zip that a trial’s Review exports. A trial that is here already gets the lines it lacks.
      </p>
      <FileButton
        label="Choose the file"
        accept=".zip,application/zip"
        testId="trial-file"
        onFiles={onFiles}
      />
      {step !== null && (
        <p role="status" className="inline-row">
          <span>{readingSteps[step] ?? readingSteps.at(-1)}</span>
          <Button size="small" color="inherit" onClick={stopReading}>
            Stop
          </Button>
        </p>
      )}
      {message && (
        <p
          role="status"
          style={{ marginTop: '0.7rem', color: message.bad ? 'var(--porphyry)' : 'var(--verdigris)' }}
        >
          {message.text} {message.id && <Link to={`/trial/${message.id}`}>Open it</Link>}
          {clash && (
            <>
              <Button size="small" color="secondary" onClick={() => void showBoth()}>
                Show both plans
              </Button>
              <Button size="small" color="secondary" onClick={() => void addCopy()}>
                Add it as a second trial
              </Button>
            </>
          )}
        </p>
      )}
    </section>
  );
}

/** The library as a file, out and in. */
function LibraryFiles() {
  const revalidator = useRevalidator();
  const [message, setMessage] = useState<{ text: string; bad: boolean } | null>(null);
  const save = async () => {
    download(
      new Blob([libraryToFile(await listProducts())], { type: 'application/json' }),
      'palazzo-library.json',
    );
  };
  const onFiles = async ([file]: File[]) => {
    if (!file) return;
    const read = await readLibraryFile(file).catch((e: Error) => err(e.message));
    if (!read.ok) return setMessage({ text: `${file.name}: ${read.error}`, bad: true });
    const here = new Set<string>((await listProducts()).map((p) => p.id));
    const added = read.value.filter((p) => !here.has(p.id));
    await changeProducts(() => added);
    setMessage({
      text: `${added.length} added; ${read.value.length - added.length} were here already and stay as they are.`,
      bad: false,
    });
    await revalidator.revalidate();
  };
  return (
    <section className="section">
      <h2>Library file</h2>
      <p className="quiet">Products with labels, claims, packs and prices, as JSON.</p>
      <div className="inline-row">
        <Button variant="outlined" color="secondary" onClick={() => void save()}>
          Save the library
        </Button>
        <FileButton
          label="Take in a library"
          accept=".json,application/json"
          testId="library-file"
          variant="text"
          color="secondary"
          onFiles={onFiles}
        />
      </div>
      {message && (
        <p
          role="status"
          style={{ marginTop: '0.7rem', color: message.bad ? 'var(--porphyry)' : 'var(--verdigris)' }}
        >
          {message.text}
        </p>
      )}
    </section>
  );
}
