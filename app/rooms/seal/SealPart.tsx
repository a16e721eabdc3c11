import { shortCode } from '~core/plan/shortCode';
import { shortTime } from '../../ui/clock';
import Button from '@mui/material/Button';
import { Link } from 'react-router';
import type { TrialState } from '~core/log/state';
import type { Missing } from '~core/plan/seal';
import { usePost } from '../../form/usePost';

interface Props {
  trialId: string;
  seal: TrialState['seal'];
  missing: readonly Missing[];
  canBreakSeal: boolean;
  /** findings of the fairness audit that are neither cured nor accepted */
  openFindings: number;
  /** the plan as it is looked at */
  planRev: number;
  /** days from the start to the seal */
  lateDays: number;
  /** why the seal doesn’t stand for the plan, in words; null when it does */
  broken: string | null;
}

/** Freezes the plan with time and hash; shows both ever after. */
export function SealPart(props: Props) {
  const { trialId, seal, missing, canBreakSeal, openFindings, planRev, lateDays, broken } = props;
  const post = usePost();
  if (seal) {
    return (
      <section className="stack tight">
        <h2>Sealed</h2>
        <p>
          {shortTime(seal.at)}
          <br />
          <span className="small quiet">SHA-256 of the plan</span>
          <br />
          <code className="num small" style={{ wordBreak: 'break-all' }} data-testid="seal-hash">
            {seal.planSha256}
          </code>
        </p>
        {broken && (
          <p role="alert" className="note bad">
            {broken}
          </p>
        )}
        {lateDays > 0 && (
          <p className="note open small">
            Sealed {lateDays} {lateDays === 1 ? 'day' : 'days'} after the start: what was predicted may have
            been seen. The review says so.
          </p>
        )}
        <p className="small quiet">
          Code to post beforehand: <code className="num">{shortCode(seal.planSha256)}</code>. It stands in the
          review: whoever knows it can tell a plan that was changed and sealed anew. Moves are log entries
          now.
        </p>
        {canBreakSeal && (
          <div>
            <Button size="small" color="inherit" onClick={() => post({ intent: 'breakSeal' })}>
              Break the seal
            </Button>
          </div>
        )}
      </section>
    );
  }
  return (
    <section className="stack tight">
      <h2>Seal the plan</h2>
      <p className="small quiet">
        Freezes question, contenders and layout with the time and a fingerprint, so that readers can trust
        what was planned.
      </p>
      {openFindings > 0 && (
        <p className="small">
          <Link to={`/trial/${trialId}/fairness`}>
            {openFindings} {openFindings > 1 ? 'findings' : 'finding'} of the fairness audit
          </Link>{' '}
          {openFindings > 1 ? 'are' : 'is'} neither cured nor accepted; the review will list{' '}
          {openFindings > 1 ? 'them' : 'it'}.
        </p>
      )}
      {missing.length > 0 ? (
        <>
          <p className="small">Still missing:</p>
          <ul className="small" style={{ margin: 0, paddingLeft: '1.1rem' }}>
            {missing.map((m) => (
              <li key={m.what}>
                <Link to={`/trial/${trialId}/${m.room}`}>{m.what}</Link>
              </li>
            ))}
          </ul>
        </>
      ) : (
        <Button variant="contained" onClick={() => post({ intent: 'seal', seenPlanRev: planRev })}>
          Seal the plan
        </Button>
      )}
    </section>
  );
}
