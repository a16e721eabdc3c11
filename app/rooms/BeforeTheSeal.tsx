import { Link, useLocation } from 'react-router';
import type { Missing } from '~core/plan/seal';
import './BeforeTheSeal.css';

/** Rooms in which the plan is made. */
const planning = ['question', 'contenders', 'layout', 'fairness', 'rehearsal'];
/** More than this is too much to read; the list of rooms marks the rest. */
const MOST_SAID = 4;

/** What the seal still wants, where the plan is made: what is to be done here, and what in which other room. */
export function BeforeTheSeal({ trialId, missing }: { trialId: string; missing: readonly Missing[] }) {
  const room = useLocation().pathname.split('/').pop() ?? '';
  if (!planning.includes(room)) return null;
  if (missing.length === 0) {
    return room === 'layout' ? null : (
      <section aria-label="Before the seal">
        <p className="before-seal no-print">
          Nothing is missing: <Link to={`/trial/${trialId}/layout`}>seal the plan in Layout</Link>.
        </p>
      </section>
    );
  }
  const sorted = [...missing].sort((a, b) => Number(b.room === room) - Number(a.room === room));
  const listed = sorted.slice(0, MOST_SAID);
  return (
    <section aria-label="Before the seal">
      <p className="before-seal no-print">
        Before the seal:{' '}
        {listed.map((m, i) => (
          <span key={m.what}>
            {i > 0 && '; '}
            {m.room === room ? m.what : <Link to={`/trial/${trialId}/${m.room}`}>{m.what}</Link>}
          </span>
        ))}
        {sorted.length > listed.length && ` and ${sorted.length - listed.length} more`}.
      </p>
    </section>
  );
}
