import { Link } from 'react-router';
import { shortDate } from '../ui/clock';

/** Says on a plan's form that it is frozen, and where changes go now. */
export function SealedBanner({ trialId, sealedAt }: { trialId: string; sealedAt: string | null }) {
  if (!sealedAt) return null;
  return (
    <div className="note good" style={{ marginBottom: '1.2rem' }}>
      <h2>The plan is sealed since {shortDate(sealedAt)}.</h2>
      <p className="small quiet">
        It can be read but not changed. What happens differently is written into{' '}
        <Link to={`/trial/${trialId}/log`}>the log</Link>.
      </p>
    </div>
  );
}
