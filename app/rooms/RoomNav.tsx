import { memo } from 'react';
import { NavLink, useLocation } from 'react-router';
import type { RoomStep } from './registry';
import './RoomNav.css';

/** The rooms of a trial in working order, each with how far it is. */
export const RoomNav = memo(function RoomNav({
  trialId,
  steps,
}: {
  trialId: string;
  steps: readonly RoomStep[];
}) {
  const to = (room: string) => `/trial/${trialId}/${room}`;
  const path = useLocation().pathname;
  const here = steps.findIndex((s) => path.endsWith(`/${s.room}`));
  const [before, next] = [steps[here - 1], here < 0 ? undefined : steps[here + 1]];
  return (
    <>
      <nav className="room-nav no-print" aria-label="Rooms of the trial">
        <ol>
          {steps.map((s) => (
            <li key={s.room}>
              <NavLink to={to(s.room)} title={s.hint}>
                <span className={`step ${s.progress}`} aria-hidden="true" />
                <span>{s.name}</span>
                <span className="how-far">{s.howFar}</span>
              </NavLink>
            </li>
          ))}
        </ol>
        <ul className="foot">
          <li>
            <NavLink to={to('log')}>The log</NavLink>
          </li>
          <li>
            <NavLink to="/" end>
              All trials
            </NavLink>
          </li>
        </ul>
      </nav>
      <nav className="strip no-print" aria-label="Rooms before and after">
        {before ? (
          <NavLink to={to(before.room)}>← {before.name}</NavLink>
        ) : (
          <NavLink to="/">← Trials</NavLink>
        )}
        <span className="here">{here >= 0 ? steps[here]!.name : 'The log'}</span>
        {next ? (
          <NavLink to={to(next.room)}>{next.name} →</NavLink>
        ) : (
          <NavLink to={to(here < 0 ? 'question' : 'log')}>{here < 0 ? 'Question' : 'Log'} →</NavLink>
        )}
      </nav>
    </>
  );
});
