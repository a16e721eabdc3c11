import Button from '@mui/material/Button';
import { Link, useLoaderData, useSearchParams } from 'react-router';
import { dayOfDate } from '~core/plan/days';
import { panelOutcome } from '~core/sensory/panelOutcome';
import { sayPanel } from '~core/sensory/sayPanel';
import { sessionsOf } from '~core/sensory/sessions';
import { todayDate } from '../../ui/clock';
import { panelKeysHere } from '../../store/panelKeys';
import { loadTrial } from '../../store/trials';
import { RoomHead } from '../../ui/RoomHead';
import type { RoomArgs } from '../roomArgs';
import { photosOf } from '../rounds/photos/photoData';
import { toAction } from '../../form/command';
import { panelCommands } from './panelActions';
import type { SessionShown } from './panelData';
import { PlanSession } from './PlanSession';
import { SessionView } from './SessionView';

export async function clientLoader({ params }: RoomArgs) {
  const { row, shown: state } = await loadTrial(params.trialId);
  const keys = await panelKeysHere(row.id);
  const order = state.plan.treatments.map((t) => t.id);
  const nameOf = (id: string) => state.plan.treatments.find((t) => t.id === id)?.name ?? '?';
  return {
    state,
    day: dayOfDate(state.plan.startDate, todayDate()),
    photos: photosOf(state).length,
    sessions: sessionsOf(state).map((held): SessionShown => {
      const outcome = panelOutcome(held, order);
      return {
        held,
        keyHere: keys.has(held.session.id),
        outcome,
        words: outcome && sayPanel(held.session, outcome, nameOf),
      };
    }),
  };
}

export const clientAction = toAction(panelCommands);

export default function PanelRoom() {
  const { state, day, photos, sessions } = useLoaderData<typeof clientLoader>();
  const [search, setSearch] = useSearchParams();
  const { plan } = state;
  if (!state.seal) {
    return (
      <div className="empty">
        <h1>Panel</h1>
        <p style={{ marginTop: '0.6rem' }}>
          Tasting, smelling and looking under codes of three digits, so that nobody can guess: who gets what
          in which order is drawn here, and what was in the cups is told when everybody is done. Sessions open
          when the plan is sealed.
        </p>
        <Link to={`/trial/${plan.id}/layout`}>Seal the plan in Layout</Link>
      </div>
    );
  }
  const scored = plan.traits.find((t) => t.kind === 'score' && t.scale.length > 1);
  if (search.get('view') === 'plan' || sessions.length === 0) {
    return (
      <>
        <RoomHead title="Plan a session">
          Samples under codes, in an order drawn by lot; what is in the cups is told at the end.{' '}
          {scored && (
            <>
              Who looks can{' '}
              <Link to={`/eye?trial=${plan.id}&trait=${scored.id}`}>warm up on ten pictures</Link>; the log
              keeps how steady the eye was.
            </>
          )}
        </RoomHead>
        <PlanSession
          state={state}
          day={day}
          withPhotos={photos > 0}
          onCancel={sessions.length > 0 ? () => setSearch({}) : null}
        />
      </>
    );
  }
  const newest = sessions.at(-1)!;
  return (
    <>
      <RoomHead
        title={newest.words ? newest.words.headline : 'Panel'}
        actions={
          <Button variant="outlined" color="secondary" onClick={() => setSearch({ view: 'plan' })}>
            Plan another session
          </Button>
        }
      >
        {newest.words ? newest.held.session.name : 'Codes are closed until everybody is done.'}
      </RoomHead>
      {sessions.toReversed().map((s) => (
        <SessionView key={s.held.session.id} plan={plan} shown={s} isHeadline={s === newest} />
      ))}
    </>
  );
}
