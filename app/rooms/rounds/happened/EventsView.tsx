import '../photos/Photos.css';
import Button from '@mui/material/Button';
import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import type { TrialState } from '~core/log/state';
import type { UnitId } from '~core/model/ids';
import { planIndex } from '~core/plan/planIndex';
import { tasksLogged } from '~core/cost/workLogged';
import { countOf, formatFigure, listNames, plural } from '~core/quantity/format';
import { shortDate } from '../../../ui/clock';
import { PlanView } from '../../../ui/PlanView';
import { EventForm } from './EventForm';
import { otherwiseIn } from '~core/log/otherwise';
import { TellApart } from './TellApart';
import { UnitChoice } from './UnitChoice';

/** What happened beside the plan: to which units, when, and what a fair reviewer does about it. */
export function EventsView({ state, open, head }: { state: TrialState; open: number; head: ReactNode }) {
  const { plan } = state;
  const [chosen, setChosen] = useState<ReadonlySet<UnitId>>(new Set());
  const toggle = (id: UnitId) => {
    const next = new Set(chosen);
    if (!next.delete(id)) next.add(id);
    setChosen(next);
  };
  const code = (id: UnitId) => planIndex(plan).unit(id)?.code ?? '?';
  const told = otherwiseIn(state).reverse();
  const work = tasksLogged(state);
  return (
    <>
      {head}
      {state.mixedUp.map((m) => (
        <TellApart key={m.entryId} state={state} lost={m} />
      ))}
      <div className="with-side" style={{ margin: 0, minHeight: 0 }}>
        <div className="main" style={{ padding: 0 }}>
          <PlanView
            plan={plan}
            positions={state.positions}
            renderPlace={(_, unit) =>
              unit ? (
                <UnitChoice state={state} unit={unit} on={chosen.has(unit.id)} onToggle={toggle} />
              ) : (
                <span className="place" />
              )
            }
          />
          <div className="inline-row" style={{ margin: '0.6rem 0' }}>
            <Button
              size="small"
              color="secondary"
              onClick={() => setChosen(new Set(plan.units.map((u) => u.id)))}
            >
              All {plural(plan.unitNoun)}
            </Button>
            <Button
              size="small"
              color="secondary"
              onClick={() => setChosen(new Set())}
              disabled={chosen.size === 0}
            >
              None
            </Button>
            <span className="small quiet" role="status">
              {chosen.size === 0
                ? 'Press what it happened to; none means all of the trial.'
                : `${chosen.size} chosen`}
            </span>
          </div>
        </div>
        <EventForm state={state} chosen={chosen} onKept={() => setChosen(new Set())} />
      </div>
      <section className="section">
        <h2>So far</h2>
        {told.length === 0 ? (
          <p className="quiet">Nothing has gone otherwise than planned.</p>
        ) : (
          <ul className="report-list">
            {told.map((t) => (
              <li key={t.id}>
                {t.day !== null && <span className="num quiet">{shortDate(t.day)}</span>} {t.text}
                {t.units.length > 0 && <span className="small quiet"> · {t.units.map(code).join(', ')}</span>}
              </li>
            ))}
          </ul>
        )}
        {work.length > 0 && (
          <p className="small">
            Work:{' '}
            {listNames(
              work.map(
                (t) => `${t.task} ${formatFigure(t.minutes, Number.isInteger(t.minutes) ? 0 : 1)} min`,
              ),
            )}
            .
          </p>
        )}
        <p className="small">
          <Link to={`/trial/${plan.id}/fairness`}>
            {open === 0 ? 'The audit finds nothing open.' : `The audit has ${countOf(open, 'open finding')}.`}
          </Link>{' '}
          It goes on while the trial runs. A line is taken back in{' '}
          <Link to={`/trial/${plan.id}/log`}>the log</Link>.
        </p>
      </section>
    </>
  );
}
