import { formatCount } from '~core/quantity/format';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useRef, useState } from 'react';
import type { Plan } from '~core/model/plan';
import { type LoggerError, type LoggerTable, describeLoggerError } from '~core/series/loggerFile';
import { wallText } from '~core/series/moment';
import { sayStorageFault } from '../../../store/errors';
import { LeaveGuard } from '../../../form/UnsavedGuard';
import { FileButton } from '../../../ui/FileButton';
import { PickOne } from '../../../ui/PickOne';
import { useNotice } from '../../../ui/Notices';
import { readLoggerInWorker } from '../../../workers/logger';
import type { Progress } from '../../../workers/steps';
import { keepLogger } from './keepLogger';
import { type ColumnUse, keepMapping, mapped, mappingFor, quantityChoices, usesOf } from './loggerMapping';

interface Read {
  file: File;
  bytes: Uint8Array;
  table: LoggerTable;
  stopped: boolean;
}

/** Faulty rows that are listed on the screen. */
const LISTED = 12;

/** A logger’s file: read beside the screen, looked at, put to its place, kept. */
export function LoggerImport({ plan, onKept }: { plan: Plan; onKept: () => void }) {
  const [read, setRead] = useState<Read | null>(null);
  const [asked, setAsked] = useState<{ file: File; bytes: Uint8Array; error: LoggerError } | null>(null);
  const [fault, setFault] = useState('');
  const [progress, setProgress] = useState<Progress | null>(null);
  const [place, setPlace] = useState<string>(plan.areas[0]?.id ?? 'bench');
  const [uses, setUses] = useState<Readonly<Record<string, ColumnUse>>>({});
  const [remembered, setRemembered] = useState(false);
  const [order, setOrder] = useState<'dmy' | 'mdy'>();
  const [keeping, setKeeping] = useState(false);
  const task = useRef<{ end: () => void } | null>(null);
  const notice = useNotice();

  const start = async (file: File, bytes: Uint8Array, order?: 'dmy' | 'mdy') => {
    setRead(null);
    setAsked(null);
    setFault('');
    setProgress({ done: 0, total: 1 });
    setOrder(order);
    // The worker gets a copy, so that the file can be read again in another order of dates.
    const running = readLoggerInWorker(bytes.slice(), { order }, setProgress);
    task.current = running;
    try {
      const answer = await running.answer;
      if (!answer.ok) {
        if (answer.error.tag === 'ambiguous') setAsked({ file, bytes, error: answer.error });
        else setFault(`${file.name}: ${describeLoggerError(answer.error)}`);
      } else {
        setRead({ file, bytes, table: answer.value.result, stopped: answer.value.stopped });
        const { columns } = answer.value.result;
        const lastMapping = mappingFor(columns.map((c) => c.name));
        setUses(usesOf(columns, lastMapping));
        setRemembered(lastMapping !== undefined);
        if (
          lastMapping &&
          (lastMapping.place === 'bench' || plan.areas.some((a) => a.id === lastMapping.place))
        )
          setPlace(lastMapping.place);
      }
    } catch (e) {
      setFault(e instanceof Error ? e.message : String(e));
    }
    setProgress(null);
  };
  const onFiles = async ([file]: File[]) => {
    if (file) await start(file, new Uint8Array(await file.arrayBuffer()));
  };
  const columns = read ? mapped(read.table.columns, uses) : [];
  const keep = async () => {
    if (!read) return;
    setKeeping(true);
    try {
      keepMapping(
        read.table.columns.map((c) => c.name),
        { columns: { ...uses }, place, ...(order && { order }) },
      );
      const refusal = await keepLogger(
        plan.id,
        { ...read.table, columns },
        read.file.name,
        place === 'bench' ? null : place,
      );
      if (refusal) setFault(refusal);
      else {
        setRead(null);
        notice({ text: 'Kept; the log names it by its hash.' });
        onKept();
      }
    } catch (e) {
      setFault(`Not kept: ${sayStorageFault(e)} The file is as it was.`);
    }
    setKeeping(false);
  };
  return (
    <section className="section">
      <h2>Read in a logger</h2>
      <p className="quiet">
        CSV of temperature, humidity, light, EC (strength), pH or water level, from any logger. Columns,
        dates, decimal commas and encoding are found from the file.
      </p>
      <FileButton
        label="Choose the file"
        accept=".csv,.txt,.tsv,text/csv,text/plain"
        testId="logger-file"
        disabled={progress !== null}
        onFiles={onFiles}
      />
      {progress && (
        <div className="inline-row" style={{ marginTop: '0.8rem' }}>
          <LinearProgress
            variant="determinate"
            value={(100 * progress.done) / Math.max(1, progress.total)}
            aria-label="Rows read"
            sx={{ flex: 1 }}
          />
          <Button size="small" onClick={() => task.current?.end()}>
            Stop
          </Button>
        </div>
      )}
      <LeaveGuard unsaved={read !== null} what="The readings that aren’t kept yet" />
      {fault && (
        <p role="alert" style={{ color: 'var(--porphyry)' }}>
          {fault}
        </p>
      )}
      {asked && (
        <div role="alert" className="note open" style={{ marginTop: '0.8rem' }}>
          <p>{describeLoggerError(asked.error)}</p>
          <div className="inline-row">
            <Button variant="outlined" onClick={() => void start(asked.file, asked.bytes, 'dmy')}>
              Day first
            </Button>
            <Button variant="outlined" onClick={() => void start(asked.file, asked.bytes, 'mdy')}>
              Month first
            </Button>
          </div>
        </div>
      )}
      {read && (
        <div className="stack" style={{ marginTop: '1rem' }}>
          <p>
            <strong>{formatCount(read.table.times.length)} rows</strong>
            {read.stopped && ' up to where it was stopped'} from{' '}
            <span className="num">{wallText(read.table.times[0]!).replace('T', ' ')}</span> to{' '}
            <span className="num">{wallText(read.table.times.at(-1)!).replace('T', ' ')}</span>.
          </p>
          <fieldset style={{ border: 0, padding: 0, margin: 0 }}>
            <legend className="small quiet">What the columns are</legend>
            {remembered && <p className="small">Read as the last file of this logger was.</p>}
            <div className="count-grid wide">
              {read.table.columns.map((c) => (
                <PickOne<ColumnUse>
                  key={c.name}
                  label={c.name}
                  value={uses[c.name] ?? 'asItIs'}
                  options={[
                    ...Object.entries(quantityChoices).map(
                      ([q, { name }]) =>
                        [
                          q as ColumnUse,
                          `${name}${q === c.quantity && c.unit ? `, ${c.unit}` : ''}`,
                        ] as const,
                    ),
                    ['asItIs', 'kept as it is'],
                    ['leave', 'left out'],
                  ]}
                  onPick={(use) => setUses({ ...uses, [c.name]: use })}
                />
              ))}
            </div>
          </fieldset>
          {read.table.skippedRows > 0 && (
            <details>
              <summary>
                {read.table.skippedRows} {read.table.skippedRows === 1 ? 'row wasn’t' : 'rows weren’t'} taken
                whole
              </summary>
              <ul className="small">
                {read.table.skipped.slice(0, LISTED).map((s) => (
                  <li key={s.row}>
                    row {s.row}: {s.why}
                  </li>
                ))}
                {read.table.skippedRows > LISTED && <li>and {read.table.skippedRows - LISTED} more</li>}
              </ul>
            </details>
          )}
          <div className="inline-row">
            <PickOne
              label="It hung in"
              value={place}
              options={[...plan.areas.map((a) => [a.id as string, a.name] as const), ['bench', 'the bench']]}
              onPick={setPlace}
              sx={{ minWidth: 200 }}
            />
            <Button
              variant="contained"
              disabled={keeping || columns.length === 0}
              onClick={() => void keep()}
            >
              Keep the readings
            </Button>
          </div>
        </div>
      )}
    </section>
  );
}
