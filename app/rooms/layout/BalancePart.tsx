import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useState } from 'react';
import { describeLayoutError } from '~core/design/randomise';
import type { Plan } from '~core/model/plan';
import { formatFigure } from '~core/quantity/format';
import { usePost } from '../../form/usePost';
import { type Progress, balanceInWorker } from '../../workers/planning';
import { freshSeed } from './DesignPart';

const CANDIDATES = 2000;

/** Draws the layout again and again until the light is shared fairly. */
export function BalancePart({ plan, planRev, ready }: { plan: Plan; planRev: number; ready: boolean }) {
  const post = usePost();
  const [progress, setProgress] = useState<Progress | null>(null);
  const [said, setSaid] = useState('');
  const [end, setEnd] = useState<(() => void) | null>(null);
  const { design } = plan;
  const chance = design !== null && design.kind !== 'hand' && design.kind !== 'interleave';
  if (!ready) return null;
  if (!chance)
    return (
      <p className="small quiet">Choose a random design under Arrange; then the light can be balanced.</p>
    );

  const run = async () => {
    setSaid('');
    setProgress({ done: 0, total: CANDIDATES });
    const task = balanceInWorker(plan, { ...design, seed: Number(freshSeed()) }, CANDIDATES, setProgress);
    setEnd(() => task.end);
    let result: Awaited<typeof task.answer>;
    try {
      result = await task.answer;
    } catch (e) {
      setSaid(e instanceof Error ? e.message : 'It failed.');
      return;
    } finally {
      setProgress(null);
      setEnd(null);
    }
    if (!result.ok) {
      setSaid(
        result.error.tag === 'unread'
          ? `${result.error.positions} positions that are used weren’t read yet.`
          : result.error.tag === 'noReadings'
            ? 'There are no readings yet.'
            : describeLayoutError(result.error),
      );
      return;
    }
    const { seed, balance, firstSpreadPercent } = result.value.result;
    setSaid(
      `${balance.candidates} layouts drawn. The first had the means ${formatFigure(firstSpreadPercent, 1)} % apart; the one taken, by lot among the twentieth that are most alike, ${formatFigure(balance.spreadPercent, 1)} %.`,
    );
    post({
      intent: 'balanced',
      kind: design.kind,
      replicates: design.replicates,
      settings: design.settings,
      seed,
      balance,
      // The draws were for the plan as it is now: one that has changed since is drawn for anew.
      seenPlanRev: planRev,
    });
  };
  return (
    <section className="stack tight">
      <h2>Balance</h2>
      <p className="small quiet">
        Chance deals {CANDIDATES} times; one of the deals that share the light most evenly is taken.
      </p>
      {progress ? (
        <>
          <LinearProgress
            variant="determinate"
            value={(100 * progress.done) / progress.total}
            aria-label="Layouts drawn"
          />
          <div className="inline-row">
            <span className="small num">
              {progress.done} of {progress.total}
            </span>
            <Button size="small" color="inherit" onClick={() => end?.()}>
              Stop here
            </Button>
          </div>
        </>
      ) : (
        <div>
          <Button variant="contained" onClick={() => void run()}>
            Randomise in balance
          </Button>
        </div>
      )}
      <p className="small" aria-live="polite">
        {said}
      </p>
    </section>
  );
}
