import { Link } from 'react-router';
import type { TrialState } from '~core/log/state';
import { decidedUnits } from './decided';
import { OpenCodes } from './seal/OpenCodes';

interface Props {
  trialId: string;
  title: string;
  /** of a room in which the codes are opened: what is measured so far */
  state?: TrialState;
  children?: React.ReactNode;
}

/** Stands where a room would give away which code is which; opens the codes where all is measured. */
export function CodesClosed({ trialId, title, state, children }: Props) {
  const { decided, all } = state ? decidedUnits(state) : { decided: 0, all: false };
  return (
    <div className="empty">
      <h1>{all ? `${title}: measured, codes closed` : title}</h1>
      <p style={{ marginTop: '0.6rem' }}>
        The trial is blind and its codes are closed. Findings can be seen by code; who won, and for what
        money, is shown when the codes are opened.
      </p>
      {state && !all && (
        <p className="small">
          {decided} of {state.plan.units.length} have the deciding value: open the codes when all are scored.
        </p>
      )}
      {state?.seal && <OpenCodes strong={all} />}
      <p>
        {!state && (
          <>
            <Link to={`/trial/${trialId}/verdict`}>Open the codes in Verdict</Link> ·{' '}
          </>
        )}
        <Link to={`/trial/${trialId}/findings`}>Findings by code</Link>
      </p>
      {children}
    </div>
  );
}
