import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useEffect, useMemo, useState } from 'react';
import { redirect, useNavigation, useSubmit } from 'react-router';
import { z } from 'zod';
import type { Finding } from '~core/account/finding';
import { trialFindings } from '~core/account/trialFindings';
import type { TrialId } from '~core/model/ids';
import type { Plan } from '~core/model/plan';
import { newId } from '~core/model/newId';
import { freeCode } from '~core/plan/copy';
import { planIndex } from '~core/plan/planIndex';
import { experimentalNoun } from '~core/plan/sharing';
import { countOf, sentenceCase } from '~core/quantity/format';
import { toMarkdown } from '~core/report/markdown';
import { headline, methodText, notes } from '~core/say/words';
import { againstControlTable, byCodeTable, findingBlocks } from '~core/report/findingBlocks';
import { type OnItsOwn, passing, trialsOfTable } from '~core/table/findingsOfTable';
import { type Grid, gridOf } from '~core/table/sheet';
import { understand } from '~core/table/understand';
import type { Named, Understood } from '~core/table/understood';
import { command, toAction } from '../../form/command';
import { refuse } from '../../form/recordForm';
import { createTrial, listPlans } from '../../store/trials';
import { FileButton } from '../../ui/FileButton';
import { Report, ReportTable } from '../../ui/Report';
import { RoomHead } from '../../ui/RoomHead';
import { ToggleRow } from '../../ui/ToggleRow';
import { currencyHere } from '../../ui/region';
import { todayDate } from '../../ui/clock';
import { download } from '../../ui/download';
import { titled } from '../../ui/title';
import { findings, looksAt } from '../../workers/findings';
import type { SecondLooks } from '~core/looks/secondLooks';
import { FindingPicture, lanesIn } from '../../rooms/findings/FindingPicture';
import { FromWhat } from '../../rooms/findings/FromWhat';
import { LooksList } from '../../rooms/findings/LooksView';
import { rOf } from '../../rooms/findings/findingData';
import { UnderstoodTable } from './UnderstoodTable';
import { workbookGrid } from './workbook';
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

/** What a unit is called: as its column is, where that is one word. @example nounOf(understood) // 'pot' */
const nounOf = ({ columns }: Understood): string => {
  const name = columns.find((c) => c.role === 'unit')?.name.toLowerCase() ?? '';
  return /^[a-z]{3,12}$/.test(name) ? name : 'unit';
};

/** A plan in which of some traits the other way is better. */
const directed = (plan: Plan, turned: readonly string[]): Plan => ({
  ...plan,
  traits: plan.traits.map((t) =>
    turned.includes(t.id) ? { ...t, direction: t.direction === 'lower' ? 'higher' : 'lower' } : t,
  ),
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
interface Held {
  text: string;
  grid: Grid;
  name: string;
  named: Named;
}
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
            {made.ok && <Found held={held} understood={made.value} />}
          </div>
        )}
      </div>
    </>
  );
}

/** What follows from the table: picture, sentence, figures, small print, and the two things it can't say. */
function Found({ held, understood }: { held: Held; understood: Understood }) {
  const submit = useSubmit();
  const [onItsOwn, setOnItsOwn] = useState<OnItsOwn>('unit');
  const [before, setBefore] = useState(false);
  const [at, setAt] = useState(0);
  const [crop, setCrop] = useState(0);
  const [turned, setTurned] = useState<string[]>([]);
  const { state: busy } = useNavigation();
  const trials = useMemo(
    () => trialsOfTable(understood, onItsOwn, { ...passing, unitNoun: nounOf(understood) }),
    [understood, onItsOwn],
  );
  const { trial, inputs } = useMemo(() => {
    const { trial } = trials[crop] ?? trials[0]!;
    const told = { ...trial, plan: directed(trial.plan, turned) };
    return { trial: told, inputs: trialFindings(told).inputs.filter((i) => i.round === null) };
  }, [trials, crop, turned]);
  const [found, setFound] = useState<(Finding | null)[]>([]);
  useEffect(() => {
    let gone = false;
    void findings(inputs.map((i) => i.input)).then((all) => {
      if (!gone) setFound(all.map((f) => (f.ok ? f.value : null)));
    });
    return () => {
      gone = true;
    };
  }, [inputs]);
  const { plan } = trial;
  const finding = found[at] ?? found[0] ?? null;
  const input = inputs[found[at] ? at : 0]?.input;
  const [open, setOpen] = useState(false);
  const [looked, setLooked] = useState<{ input: typeof input; looks: SecondLooks | null } | null>(null);
  useEffect(() => {
    let gone = false;
    if (input) void looksAt(input).then((made) => !gone && setLooked({ input, looks: made?.looks ?? null }));
    return () => {
      gone = true;
    };
  }, [input]);
  if (!finding) return <p className="quiet">{found.length === 0 ? 'Reckoning …' : 'Nothing can be compared in this column.'}</p>; // prettier-ignore
  const nameOf = (id: string) => planIndex(plan).treatment(id)?.name ?? id;
  const noun = experimentalNoun(plan);
  const sentence = headline(finding, nameOf).text;
  const file = `${held.name || 'table'} ${finding.trait.name}`;
  return (
    <div className="stack">
      {trials.length > 1 && (
        <ToggleRow
          label="Which crop"
          value={crop}
          options={trials.map((t, n) => [n, sentenceCase(t.crop ?? '')] as const)}
          onPick={setCrop}
        />
      )}
      {inputs.length > 1 && (
        <ToggleRow
          label="Which figure"
          value={at}
          options={inputs.map((i, n) => [n, sentenceCase(i.trait)] as const)}
          onPick={setAt}
        />
      )}
      <div>
        <h2>{sentence}</h2>
        {!before && <p className="small warning">A first look: the figure wasn’t chosen before the start.</p>}
      </div>
      <FindingPicture
        plan={plan}
        finding={finding}
        lanes={lanesIn(plan, plan.treatments.map((t) => t.id))} // prettier-ignore
        unmarked={finding.peers}
        title={sentence}
      />
      <ReportTable
        table={
          finding.peers ? byCodeTable(finding, plan, nameOf) : againstControlTable(finding, plan, nameOf)
        }
      />
      <Report
        blocks={notes(finding, nameOf, noun).map(({ tone, title, text }) => ({
          type: 'note',
          ...{ tone, title, text },
        }))}
      />
      {looked?.looks && looked.input === input && (
        <details className="folded">
          <summary>Would it be another finding, looked at otherwise?</summary>
          <LooksList plan={plan} finding={finding} looks={looked.looks} said={() => []} />
        </details>
      )}
      <section className="stack tight">
        <h2>What a table can’t say</h2>
        <p>What got its product on its own?</p>
        <ToggleRow
          label="What got its product on its own"
          value={onItsOwn}
          options={[
            ['unit', understood.columns.some((c) => c.role === 'unit') ? 'each unit' : 'each line'],
            ['shared', 'one tank or tray for all of a product'],
          ]}
          onPick={setOnItsOwn}
        />
        <p>Was {finding.trait.name.toLowerCase()} chosen as the deciding figure before the start?</p>
        <ToggleRow
          label="Chosen before the start"
          value={before ? 'yes' : 'no'}
          options={[
            ['yes', 'yes'],
            ['no', 'no, it is a first look'],
          ]}
          onPick={(to) => setBefore(to === 'yes')}
        />
        <p>Which is better, more or less of it?</p>
        <ToggleRow
          label="Which is better"
          value={finding.trait.direction}
          options={[
            ['higher', 'more'],
            ['lower', 'less'],
          ]}
          onPick={(to) => {
            if (to === finding.trait.direction) return;
            const { id } = finding.trait;
            setTurned(turned.includes(id) ? turned.filter((t) => t !== id) : [...turned, id]);
          }}
        />
        <p className="small quiet">
          Whether chance put the units where they stood, and who scored them, isn’t in a table either: the
          fairness audit of a trial asks.
        </p>
      </section>
      <div className="inline-row">
        <Button
          variant="contained"
          disabled={busy !== 'idle'}
          onClick={() =>
            void submit(
              {
                intent: 'keep',
                grid: held.grid,
                named: held.named,
                ...{ onItsOwn, before, crop, turned },
                name: held.name,
              } as never,
              { method: 'post', encType: 'application/json' },
            )
          }
        >
          Keep as a trial
        </Button>
        <Button
          color="secondary"
          onClick={() =>
            download(
              new Blob([toMarkdown(findingBlocks(finding, plan, nameOf), () => `${file}.png`)], {
                type: 'text/markdown',
              }),
              `${file.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-')}.md`,
            )
          }
        >
          Text (Markdown)
        </Button>
      </div>
      <p className="small quiet">
        {methodText(finding, noun)}{' '}
        <button type="button" className="link" onClick={() => setOpen(true)}>
          How this was worked out, and the same in R
        </button>{' '}
        Kept as a trial, cost and claims can be added; nothing of it is sealed.
      </p>
      {open && input && (
        <FromWhat plan={plan} finding={finding} r={rOf(plan, input)} onClose={() => setOpen(false)} />
      )}
    </div>
  );
}
