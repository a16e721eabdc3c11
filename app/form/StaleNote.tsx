import Button from '@mui/material/Button';
import type { Clash } from './clashes';

interface Props {
  stale: boolean;
  /** fields that another tab changed as well, until somebody says which stands */
  conflicts?: readonly Clash[];
}

/** Says that another tab changed what an open form shows, and asks where both changed the same. */
export function StaleNote({ stale, conflicts = [] }: Props) {
  if (conflicts.length > 0)
    return (
      <div className="note bad" role="alert" style={{ marginBottom: '1rem' }}>
        <p>
          Another tab changed the same. Nothing is lost: say here which stands. All else that both typed is
          put together, and kept with it.
        </p>
        <ul className="report-list">
          {conflicts.map((c) => (
            <li key={c.path}>
              {c.what}: here {c.mine}, there {c.theirs}.{' '}
              <span className="inline-row">
                <Button size="small" variant="outlined" color="inherit" onClick={() => c.settle('mine')}>
                  Keep what is here
                </Button>
                <Button size="small" variant="outlined" color="inherit" onClick={() => c.settle('theirs')}>
                  Take theirs
                </Button>
              </span>
            </li>
          ))}
        </ul>
      </div>
    );
  return stale ? (
    <p className="note open" role="status">
      This was changed in another tab since you opened it. What you typed stays here; on saving both are put
      together, and you are asked where they disagree.
    </p>
  ) : null;
}
