import { ofWhat } from '~core/plan/control';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { z } from 'zod';
import { useDeferredValue, useMemo, useState } from 'react';
import { howMany } from '~core/design/howMany';
import type { RehearsalResult } from '~core/design/rehearsal';
import {
  differencePercent,
  isPredicted,
  plantsPerUnit,
  rehearsalInput,
  rehearsedOf,
} from '~core/design/rehearsalInput';
import { rightOf } from '~core/design/rehearsalWords';
import { sayRehearsed } from '~core/plan/rehearsed';
import { describeLayoutError } from '~core/design/randomise';
import { formatCount, plural, sentenceCase } from '~core/quantity/format';
import type { BodyOf } from '~core/log/entry';
import { shortDate } from '../../ui/clock';
import { numberFrom } from '../../form/schemaFields';
import { TypedField } from '../../form/TypedField';
import { usePost } from '../../form/usePost';
import { RoomHead } from '../../ui/RoomHead';
import { type Progress, canSeeInWorker, rehearseInWorker } from '../../workers/planning';
import { HowManyPart, asked } from './HowManyPart';
import { RehearsalReport } from './RehearsalReport';
import type { RehearsalData } from './rehearsalData';
import './rehearsal.css';

/** What a rehearsal reckons with, as it is typed. */
const Assumed = z.object({
  unitCvPercent: numberFrom(0.1, 200),
  blockCvPercent: numberFrom(0, 200),
  gradientPercent: numberFrom(0, 200),
  plantCvPercent: numberFrom(0, 200),
  lossPercent: numberFrom(0, 60),
  runs: numberFrom(100, 500_000).transform(Math.round),
  seed: numberFrom(0, 0xffffffff).transform(Math.floor),
});
type Assumption = keyof typeof Assumed.shape;

/** How many units, and the rehearsal: this very plan run thousands of times. */
export function RehearsalRoom({ plan, spreads, sealed, kept }: RehearsalData) {
  const post = usePost();
  const plants = plantsPerUnit(plan);
  const blocked =
    plan.units.length > 0 ? plan.units.every((u) => u.block !== null) : plan.design?.kind !== 'crd';
  const firstCv = spreads[0]?.cvPercent ?? 15;
  const [typed, setTyped] = useState({
    unitCvPercent: String(firstCv),
    difference: String(differencePercent(plan) ?? 10),
    power: '80',
    blockCvPercent: String(Number((firstCv * 0.7).toPrecision(2))),
    gradientPercent: plan.gradient ? '15' : '0',
    plantCvPercent: String(firstCv),
    lossPercent: '2',
    runs: '5000',
    seed: String(plan.design?.seed ?? 1),
  });
  const [progress, setProgress] = useState<Progress | null>(null);
  const [end, setEnd] = useState<(() => void) | null>(null);
  const [result, setResult] = useState<{
    value: RehearsalResult;
    stopped: boolean;
    /** what the deciding trait can tell where it isn't a figure */
    sees: string | null;
    /** what of it can be kept */
    found: Omit<BodyOf<'rehearsal'>, 'kind'> | null;
  } | null>(null);
  const [problem, setProblem] = useState('');

  const fields: [Assumption, label: string][] = [
    ['blockCvPercent', blocked ? 'Spread between blocks' : 'Spread between positions'],
    ['gradientPercent', plan.gradient ? 'Darkest to brightest position' : 'Difference along the positions'],
    ...(plants > 1
      ? [['plantCvPercent', `Spread of plants in a ${plan.unitNoun}`] as [Assumption, string]]
      : []),
    ['lossPercent', `${sentenceCase(plural(plan.unitNoun))} lost on the way`],
    ['runs', 'Runs'],
    ['seed', 'Seed'],
  ];
  const set = (key: keyof typeof typed) => (text: string) => setTyped({ ...typed, [key]: text });
  /** Null where what is typed isn't a figure that can be meant. */
  const figure = (of: z.ZodType<number, string>, text: string) => of.safeParse(text).data ?? null;
  const cv = figure(Assumed.shape.unitCvPercent, typed.unitCvPercent);
  const runs = figure(Assumed.shape.runs, typed.runs);
  const difference = figure(asked.difference, typed.difference);
  const power = figure(asked.power, typed.power);
  const sizedFor = [cv, difference, power].includes(null) ? '' : [cv, difference, power].join('/');
  // What is typed is shown at once; the sizes follow when there is time.
  const settled = useDeferredValue(sizedFor);
  const sized = useMemo(() => {
    if (settled === '') return null;
    const [spread, difference, power] = settled.split('/').map(Number) as [number, number, number];
    return howMany(plan, spread, difference, power / 100);
  }, [settled, plan]);

  const run = async () => {
    const assumed = Assumed.safeParse(typed);
    if (!assumed.success) {
      setProblem('Some of the assumptions aren’t numbers in range; they say which.');
      return;
    }
    setProblem('');
    const input = rehearsalInput(plan, { ...assumed.data, alpha: 0.05 });
    if (!input.ok) {
      setProblem(
        input.error.tag === 'noControl'
          ? 'A control is needed.'
          : input.error.tag === 'tooFewTreatments'
            ? 'Two contenders are needed.'
            : describeLayoutError(input.error),
      );
      return;
    }
    setResult(null);
    setProgress({ done: 0, total: input.value.runs });
    const task = rehearseInWorker(input.value, setProgress);
    setEnd(() => task.end);
    let answer: Awaited<typeof task.answer>;
    let sees: string | null;
    try {
      answer = await task.answer;
      sees = await canSeeInWorker(plan);
    } catch (e) {
      setProblem(e instanceof Error ? e.message : 'It failed.');
      return;
    } finally {
      setProgress(null);
      setEnd(null);
    }
    if (answer.ok) {
      const { result, stopped } = answer.value;
      const of = rehearsedOf(plan);
      const found = of !== null && {
        ...{ of, runs: result.runs, seed: input.value.seed, cvPercent: cv!, sees, ...rightOf(result) },
        hasPrediction: isPredicted(plan),
        falseWinner: result.nothing.plan.falseWinner,
      };
      setResult({ value: result, stopped, sees, found: found || null });
    } else
      setProblem(
        answer.error.tag === 'noResidual'
          ? `One ${plan.unitNoun} of each leaves nothing to judge the spread by: no run could name a winner.`
          : 'Some contenders share no block with the others; lay the plan out again.',
      );
  };

  const found = result?.stopped || sealed ? null : result?.found;
  const isKept =
    !!found && !!kept && Object.entries(found).every(([key, v]) => kept[key as keyof typeof found] === v);

  return (
    <div className="with-side">
      <div className="main">
        <RoomHead title="Rehearsal">
          The trial run a few thousand times on paper, with this very layout: how often the right winner is
          named, how often a false one, and what the usual shortcuts would do.
        </RoomHead>
        {result ? (
          <RehearsalReport plan={plan} result={result.value} stopped={result.stopped} sees={result.sees} />
        ) : progress ? (
          <div className="empty">
            <h2>Running</h2>
            <LinearProgress
              variant="determinate"
              value={(100 * progress.done) / progress.total}
              aria-label="Runs done"
              sx={{ height: 10, borderRadius: 1, my: 1 }}
            />
            <div className="inline-row">
              <span className="num" data-testid="rehearsal-progress">
                {progress.done} of {progress.total}
              </span>
              <Button variant="outlined" color="inherit" onClick={() => end?.()}>
                Stop here
              </Button>
            </div>
          </div>
        ) : (
          <div className="empty">
            {kept && (
              <p className={`note ${kept.isOfThisPlan ? 'good' : 'open'}`}>
                Rehearsed on {shortDate(kept.on)}: {sayRehearsed(kept)}
                {!kept.isOfThisPlan && ' The plan has changed since.'}
              </p>
            )}
            <p>
              {plan.units.length > 0
                ? `${plan.units.length} ${plural(plan.unitNoun)} stand as they are laid out; what each contender truly does is what you expect in Contenders.`
                : 'Nothing is laid out yet: blocks are imagined.'}
            </p>
            <Button variant="contained" size="large" onClick={() => void run()}>
              {runs === null ? 'Rehearse' : `Rehearse ${formatCount(runs)} times`}
            </Button>
          </div>
        )}
        {problem && (
          <p role="alert" className="note bad" style={{ marginTop: '0.8rem' }}>
            {problem}
          </p>
        )}
        {result && !progress && (
          <div className="inline-row" style={{ marginTop: '1.2rem' }}>
            <Button variant="outlined" color="secondary" onClick={() => void run()}>
              Rehearse again
            </Button>
            {found && !isKept && (
              <Button variant="outlined" color="secondary" onClick={() => post({ intent: 'keep', ...found })}>
                Keep this rehearsal
              </Button>
            )}
          </div>
        )}
        <HowManyPart
          plan={plan}
          sized={sized}
          difference={typed.difference}
          power={typed.power}
          onDifference={set('difference')}
          onPower={set('power')}
        />
      </div>
      <aside className="side stack">
        <h2>Reckoned with</h2>
        <TypedField
          label={`Spread from ${plan.unitNoun} to ${plan.unitNoun}`}
          of={Assumed.shape.unitCvPercent}
          value={typed.unitCvPercent}
          onType={set('unitCvPercent')}
          suffix="%"
          size="medium"
          helperText="of the deciding trait, inside blocks"
        />
        {spreads.length > 0 && (
          <TextField
            select
            label="Take it from"
            value={spreads.find((s) => String(s.cvPercent) === typed.unitCvPercent)?.label ?? ''}
            onChange={(e) => {
              const spread = spreads.find((s) => s.label === e.target.value);
              if (spread) setTyped({ ...typed, unitCvPercent: String(spread.cvPercent) });
            }}
          >
            <MenuItem value="" disabled>
              typed
            </MenuItem>
            {spreads.map((s) => (
              <MenuItem key={s.label} value={s.label} sx={{ whiteSpace: 'normal' }}>
                {s.cvPercent} %: {s.label}
              </MenuItem>
            ))}
          </TextField>
        )}
        {!sealed && cv !== null && cv !== plan.cvPercent && (
          <div>
            <Button size="small" color="secondary" onClick={() => post({ intent: 'cv', cvPercent: cv })}>
              Keep this spread in the plan
            </Button>
          </div>
        )}
        {fields.map(([key, label]) => (
          <TypedField
            key={key}
            label={label}
            of={Assumed.shape[key]}
            value={typed[key]}
            onType={set(key)}
            size="medium"
            {...(key.endsWith('Percent') && { suffix: '%' })}
          />
        ))}
        <p className="small quiet">All in per cent {ofWhat(plan)}. The same seed gives the same runs.</p>
      </aside>
    </div>
  );
}
