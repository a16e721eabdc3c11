import Button from '@mui/material/Button';
import { useEffect, useMemo, useState } from 'react';
import { useNavigation, useSubmit } from 'react-router';
import type { Finding } from '~core/account/finding';
import { trialFindings } from '~core/account/trialFindings';
import { planIndex } from '~core/plan/planIndex';
import { experimentalNoun } from '~core/plan/sharing';
import { sentenceCase } from '~core/quantity/format';
import { toMarkdown } from '~core/report/markdown';
import { headline, methodText, notes } from '~core/say/words';
import { againstControlTable, byCodeTable, findingBlocks } from '~core/report/findingBlocks';
import { type OnItsOwn, passing, trialsOfTable } from '~core/table/findingsOfTable';
import type { Understood } from '~core/table/understood';
import { Report, ReportTable } from '../../ui/Report';
import { ToggleRow } from '../../ui/ToggleRow';
import { download } from '../../ui/download';
import { findings, looksAt } from '../../workers/findings';
import type { SecondLooks } from '~core/looks/secondLooks';
import { FindingPicture, lanesIn } from '../../rooms/findings/FindingPicture';
import { FromWhat } from '../../rooms/findings/FromWhat';
import { LooksList } from '../../rooms/findings/LooksView';
import { rOf } from '../../rooms/findings/findingData';
import { type Held, directed, nounOf } from './tablePlan';

/** What follows from the table: picture, sentence, figures, small print, and the two things it can't say. */
export function FoundInTable({ held, understood }: { held: Held; understood: Understood }) {
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
