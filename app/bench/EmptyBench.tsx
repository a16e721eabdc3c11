import Button from '@mui/material/Button';
import { Link } from 'react-router';
import { FINISHED_EXAMPLE } from '../demo/finishedExample';
import { benchName, switchBench } from '../store/bench';
import { SmallPlan } from '../ui/SmallPlan';
import './EmptyBench.css';

/** A first visit: the ways on, a line and a button each. */
export function EmptyBench() {
  return (
    <div className="empty-bench">
      <SmallPlan />
      <h1>An empty bench</h1>
      <ul>
        <li>
          <span>
            Does this product do better than that one, or than plain water? Asked and planned on one page.
          </span>
          <Button variant="contained" component={Link} to="/trials/new">
            Plan a trial
          </Button>
        </li>
        <li>
          <span>The bottles you have, as their labels say them, with what you paid.</span>
          <Button variant="outlined" color="secondary" component={Link} to="/library">
            Start with your products
          </Button>
        </li>
        {benchName() === 'own' && (
          <li>
            <span>A trial from its question to its review, with made-up products.</span>
            <Button
              variant="outlined"
              color="secondary"
              onClick={() => switchBench('demo', `/trial/${FINISHED_EXAMPLE}/verdict`)}
            >
              Look at an example
            </Button>
          </li>
        )}
        <li>
          <span>
            A backup, or the file of a trial, from another device; or results in a spreadsheet:{' '}
            <Link to="/table">read a table</Link>.
          </span>
          <Button variant="outlined" color="secondary" component={Link} to="/data">
            Take in what you have
          </Button>
        </li>
      </ul>
    </div>
  );
}
