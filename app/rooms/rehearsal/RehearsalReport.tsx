import { formatCount, plural } from '~core/quantity/format';
import { isPredicted } from '~core/design/rehearsalInput';
import { rehearsalRemarks, rightOf } from '~core/design/rehearsalWords';
import { rehearsalHeadline } from '~core/plan/rehearsed';
import type { RehearsalResult, Scenario } from '~core/design/rehearsal';
import type { Outcome } from '~core/design/rehearsalOutcome';
import type { Plan } from '~core/model/plan';
import { SweepChart } from './SweepChart';

/** One row of the report: an outcome split into right, too close and false. */
function OutcomeBar({ label, outcome }: { label: string; outcome: Outcome }) {
  const parts = [
    ['right', outcome.right],
    ['close', outcome.tooClose],
    ['false', outcome.falseWinner],
  ] as const;
  const whole = (v: number) => Math.round(v * 100);
  return (
    <div className="outcome">
      <span>{label}</span>
      <span
        className="outcome-bar"
        role="img"
        aria-label={`right ${whole(outcome.right)}, too close ${whole(outcome.tooClose)}, false ${whole(outcome.falseWinner)} of 100`}
      >
        {parts.map(([name, share]) => (
          <span key={name} className={name} style={{ width: `${share * 100}%` }}>
            {share >= 0.06 ? whole(share) : ''}
          </span>
        ))}
      </span>
    </div>
  );
}

function Outcomes({ scenario, unitNoun }: { scenario: Scenario; unitNoun: string }) {
  return (
    <div className="outcomes">
      <OutcomeBar label="as planned" outcome={scenario.plan} />
      {scenario.plantsAsUnits && (
        <OutcomeBar label={`plants counted, not ${plural(unitNoun)}`} outcome={scenario.plantsAsUnits} />
      )}
      {scenario.withoutBlocks && <OutcomeBar label="without blocks" outcome={scenario.withoutBlocks} />}
      {scenario.withoutControl && (
        <OutcomeBar label="without the control" outcome={scenario.withoutControl} />
      )}
    </div>
  );
}

/** What the rehearsal found: a sentence, the outcomes drawn, the sweep of differences, the small print. */
export function RehearsalReport({
  plan,
  result,
  stopped,
  sees,
}: {
  plan: Plan;
  result: RehearsalResult;
  stopped: boolean;
  /** what the deciding trait can tell where it isn't a figure: runs are of figures */
  sees: string | null;
}) {
  const predicted = isPredicted(plan);
  const headline = rehearsalHeadline({ ...rightOf(result), hasPrediction: predicted });
  return (
    <div className="stack" data-testid="rehearsal-report">
      <div className={`note ${!sees && result.predicted.plan.right >= 0.8 ? 'good' : 'open'}`}>
        <h2>{sees ?? headline}</h2>
        <p className="small quiet">
          {sees
            ? `By the findings’ own test. The ${formatCount(result.runs)} runs below take it for a weighed figure; they would say: ${headline}`
            : `${formatCount(result.runs)} runs, each judged as the findings will be.`}
          {stopped && ' Stopped by hand.'}
        </p>
      </div>
      <p className="outcome-key">
        <span>
          <i style={{ background: 'var(--verdigris)' }} />
          right winner
        </span>
        <span>
          <i
            style={{
              background: 'repeating-linear-gradient(45deg, var(--sunk) 0 4px, var(--sheet) 4px 6px)',
            }}
          />
          too close to call
        </span>
        <span>
          <i style={{ background: 'var(--porphyry)' }} />
          false winner
        </span>
        <span className="quiet">of 100 runs</span>
      </p>
      <section>
        <h3>{predicted ? 'If things go as predicted' : 'If the first product differs by what matters'}</h3>
        <Outcomes scenario={result.predicted} unitNoun={plan.unitNoun} />
      </section>
      <section>
        <h3>If nothing differs</h3>
        <Outcomes scenario={result.nothing} unitNoun={plan.unitNoun} />
      </section>
      <ul className="small" style={{ margin: 0, paddingLeft: '1.1rem' }}>
        {rehearsalRemarks(result).map((r) => (
          <li key={r}>{r}</li>
        ))}
      </ul>
      <section>
        <h3>If the difference were smaller or larger</h3>
        <SweepChart sweep={result.sweep} />
      </section>
    </div>
  );
}
