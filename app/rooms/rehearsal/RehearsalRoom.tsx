import { ofWhat } from '~core/plan/control';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
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
import { numberIn } from '~core/quantity/number';
import { formatCount, plural, sentenceCase } from '~core/quantity/format';
import type { BodyOf } from '~core/log/entry';
import { shortDate } from '../../ui/clock';
import { usePost } from '../../form/usePost';
import { RoomHead } from '../../ui/RoomHead';
import { type Progress, canSeeInWorker, rehearseInWorker } from '../../workers/planning';
import { HowManyPart } from './HowManyPart';
import { RehearsalReport } from './RehearsalReport';
import type { RehearsalData } from './rehearsalData';
import './rehearsal.css';

interface Field {
  key: 'cv' | 'block' | 'gradient' | 'plant' | 'loss' | 'runs' | 'seed';
  label: string;
  suffix: string;
  low: number;
  high: number;
}

/** How many units, and the rehearsal: this very plan run thousands of times. */
export function RehearsalRoom({ plan, spreads, sealed, kept }: RehearsalData) {
  const post = usePost();
  const plants = plantsPerUnit(plan);
  const blocked =
    plan.units.length > 0 ? plan.units.every((u) => u.block !== null) : plan.design?.kind !== 'crd';
  const firstCv = spreads[0]?.cvPercent ?? 15;
  const [typed, setTyped] = useState({
    cv: String(firstCv),
    difference: String(differencePercent(plan) ?? 10),
    power: '80',
    block: String(Number((firstCv * 0.7).toPrecision(2))),
    gradient: plan.gradient ? '15' : '0',
    plant: String(firstCv),
    loss: '2',
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

  const number = (key: keyof typeof typed) => numberIn(typed[key]);
  const fields: Field[] = [
    {
      key: 'block',
      label: blocked ? 'Spread between blocks' : 'Spread between positions',
      suffix: '%',
      low: 0,
      high: 200,
    },
    {
      key: 'gradient',
      label: plan.gradient ? 'Darkest to brightest position' : 'Difference along the positions',
      suffix: '%',
      low: 0,
      high: 200,
    },
    ...(plants > 1
      ? [
          {
            key: 'plant' as const,
            label: `Spread of plants in a ${plan.unitNoun}`,
            suffix: '%',
            low: 0,
            high: 200,
          },
        ]
      : []),
    {
      key: 'loss',
      label: `${sentenceCase(plural(plan.unitNoun))} lost on the way`,
      suffix: '%',
      low: 0,
      high: 60,
    },
    { key: 'runs', label: 'Runs', suffix: '', low: 100, high: 500_000 },
    { key: 'seed', label: 'Seed', suffix: '', low: 0, high: 4294967295 },
  ];
  const wrong = (key: keyof typeof typed, low: number, high: number) => {
    const value = number(key);
    return value === null || value < low || value > high ? `A number from ${low} to ${high}.` : '';
  };
  const cvWrong = wrong('cv', 0.1, 200);
  const set = (key: keyof typeof typed) => (e: { target: { value: string } }) =>
    setTyped({ ...typed, [key]: e.target.value });

  const cv = number('cv');
  const sizedFor =
    cvWrong || wrong('power', 50, 99) || wrong('difference', 0.1, 1000)
      ? ''
      : [cv, number('difference'), number('power')].join('/');
  // What is typed is shown at once; the sizes follow when there is time.
  const settled = useDeferredValue(sizedFor);
  const sized = useMemo(() => {
    if (settled === '') return null;
    const [spread, difference, power] = settled.split('/').map(Number) as [number, number, number];
    return howMany(plan, spread, difference, power / 100);
  }, [settled, plan]);

  const run = async () => {
    if (cvWrong || fields.some((f) => wrong(f.key, f.low, f.high))) {
      setProblem('Some of the assumptions aren’t numbers in range; they say which.');
      return;
    }
    setProblem('');
    const input = rehearsalInput(plan, {
      unitCvPercent: cv!,
      blockCvPercent: number('block')!,
      gradientPercent: number('gradient')!,
      plantCvPercent: number('plant')!,
      lossPercent: number('loss')!,
      runs: Math.round(number('runs')!),
      seed: Math.floor(number('seed')!),
      alpha: 0.05,
    });
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
              {wrong('runs', 100, 500_000) ? 'Rehearse' : `Rehearse ${formatCount(number('runs')!)} times`}
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
          differenceWrong={wrong('difference', 0.1, 1000)}
          powerWrong={wrong('power', 50, 99)}
        />
      </div>
      <aside className="side stack">
        <h2>Reckoned with</h2>
        <TextField
          label={`Spread from ${plan.unitNoun} to ${plan.unitNoun}`}
          value={typed.cv}
          onChange={set('cv')}
          error={cvWrong !== ''}
          helperText={cvWrong || 'of the deciding trait, inside blocks'}
          slotProps={{
            input: { endAdornment: <span className="unit">%</span> },
            htmlInput: { inputMode: 'decimal' },
          }}
        />
        {spreads.length > 0 && (
          <TextField
            select
            label="Take it from"
            value={spreads.find((s) => String(s.cvPercent) === typed.cv)?.label ?? ''}
            onChange={(e) => {
              const spread = spreads.find((s) => s.label === e.target.value);
              if (spread) setTyped({ ...typed, cv: String(spread.cvPercent) });
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
        {!sealed && !cvWrong && cv !== plan.cvPercent && (
          <div>
            <Button size="small" color="secondary" onClick={() => post({ intent: 'cv', cvPercent: cv })}>
              Keep this spread in the plan
            </Button>
          </div>
        )}
        {fields.map((f) => (
          <TextField
            key={f.key}
            label={f.label}
            value={typed[f.key]}
            onChange={set(f.key)}
            error={wrong(f.key, f.low, f.high) !== ''}
            helperText={wrong(f.key, f.low, f.high) || undefined}
            slotProps={{
              input: { endAdornment: <span className="unit">{f.suffix}</span> },
              htmlInput: { inputMode: 'decimal' },
            }}
          />
        ))}
        <p className="small quiet">All in per cent {ofWhat(plan)}. The same seed gives the same runs.</p>
      </aside>
    </div>
  );
}
