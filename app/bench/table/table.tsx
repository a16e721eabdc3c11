import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useEffect, useMemo, useState } from 'react';
import { redirect } from 'react-router';
import { z } from 'zod';
import type { TrialId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import { freeCode } from '~core/plan/copy';
import { countOf } from '~core/quantity/format';
import { trialsOfTable } from '~core/table/findingsOfTable';
import { type Grid, gridOf } from '~core/table/sheet';
import { understand } from '~core/table/understand';
import type { Named } from '~core/table/understood';
import { command, toAction } from '../../form/command';
import { refuse } from '../../form/recordForm';
import { createTrial, listPlans } from '../../store/trials';
import { FileButton } from '../../ui/FileButton';
import { RoomHead } from '../../ui/RoomHead';
import { currencyHere } from '../../ui/region';
import { todayDate } from '../../ui/clock';
import { titled } from '../../ui/title';
import { UnderstoodTable } from './UnderstoodTable';
import { workbookGrid } from './workbook';
import { FoundInTable } from './FoundInTable';
import { type Held, directed, nounOf } from './tablePlan';
import './table.css';

export const meta = () => titled('Read a table');

const Kept = z.object({
  grid: z.array(z.array(z.string())),
  named: z.record(z.string(), z.string()),
  onItsOwn: z.enum(['unit', 'shared']),
  before: z.boolean(),
  /** which of several crops */
  crop: z.number().int().min(0),
  /** traits of which the other way is better than is usual for their kind */
  turned: z.array(z.string()),
  name: z.string(),
});

async function keep(_: string | undefined, sent: z.output<typeof Kept>) {
  const understood = understand(sent.grid, sent.named as Named);
  if (!understood.ok) return refuse('table', understood.error.text);
  const takenCodes = (await listPlans()).map((p) => p.code as string);
  const code = freeCode('TAB', 'TAB', takenCodes);
  const id = newId<TrialId>();
  const lastDay = Math.max(0, ...understood.value.readings.map((r) => r.day ?? 0));
  const start = new Date(Date.parse(`${todayDate()}T12:00:00Z`) - lastDay * 86_400_000);
  const made = trialsOfTable(understood.value, sent.onItsOwn, {
    ...{
      id,
      code,
      crop: '',
      unitNoun: nounOf(understood.value),
      startDate: start.toISOString().slice(0, 10),
    },
    question: `What does ${sent.name || 'a table'} say? Taken in from a table, not sealed`.slice(0, 200),
    currency: currencyHere(),
  });
  const { plan, log } = (made[sent.crop] ?? made[0]!).trial;
  await createTrial(
    { ...directed(plan, sent.turned), ...(!sent.before && { primaryTraitId: null }) },
    undefined,
    log,
  );
  return redirect(`/trial/${id}/${sent.before ? 'findings' : 'question'}`);
}

export const clientAction = toAction({ keep: command(Kept, keep) });

const HELD = 'palazzo/table';
const nothing: Held = { text: '', grid: [], name: '', named: {} };

/** What was pasted last lasts as long as the tab. */
function heldBefore(): Held {
  try {
    return { ...nothing, ...(JSON.parse(sessionStorage.getItem(HELD) ?? '{}') as Partial<Held>) };
  } catch {
    return nothing;
  }
}

export default function ReadTable() {
  const [held, setHeld] = useState(heldBefore);
  const [fault, setFault] = useState('');
  useEffect(() => {
    try {
      sessionStorage.setItem(HELD, JSON.stringify(held));
    } catch {
      // too large for the tab: it stays as long as the page does
    }
  }, [held]);
  const take = (grid: Grid, text: string, name: string) => {
    setFault('');
    setHeld({ grid, text, name, named: {} });
  };
  const open = async ([file]: File[]) => {
    if (!file) return;
    const name = file.name.replace(/\.\w+$/, '');
    if (/\.xlsx$/i.test(file.name)) {
      const grid = await workbookGrid(file);
      if (grid === null) return setFault(`${file.name} can’t be read as a workbook.`);
      return take(grid, '', name);
    }
    const text = await file.text();
    take(gridOf(text), text, name);
  };
  const made = useMemo(
    () => (held.grid.length === 0 ? null : understand(held.grid, held.named)),
    [held.grid, held.named],
  );
  return (
    <>
      <RoomHead
        title="Read a table"
        actions={
          <FileButton
            label="Open a file"
            accept=".csv,.tsv,.txt,.xlsx"
            variant={made ? 'outlined' : 'contained'}
            color="secondary"
            testId="table-file"
            onFiles={open}
          />
        }
      >
        {made?.ok
          ? `${countOf(made.value.rows, 'line')} of data. This is what was understood; say otherwise at a heading.`
          : 'Results you already have: pasted from a spreadsheet, or as a file (CSV, TSV, XLSX).'}
      </RoomHead>
      <div
        onDragOver={(e) => e.preventDefault()}
        onDrop={(e) => {
          e.preventDefault();
          void open([...e.dataTransfer.files]);
        }}
      >
        {(!made || !made.ok) && (
          <TextField
            label="Paste the table here, with its heading"
            multiline
            minRows={6}
            maxRows={14}
            fullWidth
            value={held.text}
            error={made !== null || fault !== ''}
            helperText={fault || (made && !made.ok ? made.error.text : 'or drop a file on this page')}
            slotProps={{ htmlInput: { style: { fontFamily: 'var(--mono)' }, spellCheck: false } }}
            onChange={(e) => take(gridOf(e.target.value), e.target.value, '')}
          />
        )}
        {made && (
          <div className="read-table">
            <div className="stack">
              <UnderstoodTable
                grid={held.grid}
                understood={made.ok ? made.value : null}
                named={held.named}
                onNamed={(named) => setHeld({ ...held, named })}
              />
              <div>
                <Button color="secondary" size="small" onClick={() => setHeld(nothing)}>
                  Another table
                </Button>
              </div>
            </div>
            {made.ok && <FoundInTable held={held} understood={made.value} />}
          </div>
        )}
      </div>
    </>
  );
}
