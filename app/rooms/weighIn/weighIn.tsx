import { useState } from 'react';
import { Link, useLoaderData, useSearchParams } from 'react-router';
import { kindOf } from '~core/model/plan';
import { dueVisit, roundProgress, visitToOpen } from '~core/schedule/rounds';
import { relativeDay, shortDate, todayDate } from '../../ui/clock';
import { loadTrial } from '../../store/trials';
import Button from '@mui/material/Button';
import { observationsOf } from '~core/log/state';
import { toAction } from '../../form/command';
import { logCommands } from '../logActions';
import type { RoomArgs } from '../roomArgs';
import { hasOpenUnits } from '../../walk/stops';
import { RoomHead } from '../../ui/RoomHead';
import { ViewSwitch } from '../../ui/ViewSwitch';
import { DryingView } from './DryingView';
import { PicksView } from './PicksView';
import { WeighWalk } from './WeighWalk';

export async function clientLoader({ params }: RoomArgs) {
  const { row, shown: state } = await loadTrial(params.trialId);
  return { id: row.id, state, rounds: roundProgress(state, todayDate()) };
}

export const clientAction = toAction(logCommands);

export default function WeighInRoom() {
  const { id, state, rounds } = useLoaderData<typeof clientLoader>();
  const [search, setSearch] = useSearchParams();
  /** the visit that is shown: it stays where the last weight was taken */
  const [inHand, setInHand] = useState<string | null>(null);
  const { plan } = state;
  const weighed = plan.traits.filter((t) => kindOf(t).takenBy === 'scale');
  const picked = plan.traits.some((t) => kindOf(t).takenBy === 'picks');
  const dried = plan.traits.find((t) => t.kind === 'dryWeight');
  const visits = rounds.flatMap((r) =>
    weighed.filter((t) => r.round.traitIds.includes(t.id)).map((trait) => ({ ...r, trait })),
  );
  const views = [
    ...(picked ? ([['picks', 'Picks']] as const) : []),
    ...(visits.length > 0 ? ([['weigh', 'Weighing']] as const) : []),
    ...(dried ? ([['dry', 'Drying']] as const) : []),
  ];
  const asked = search.get('view');
  const view = views.find(([v]) => v === asked)?.[0] ?? views[0]?.[0];
  const switcher = views.length > 1 && view && (
    <ViewSwitch views={views} view={view} label="What is taken" onView={(to) => setSearch({ view: to })} />
  );
  if (state.seal && view === 'picks') {
    return (
      <PicksView
        state={state}
        head={
          <>
            <RoomHead title="Weigh-in · picks">
              Every {plan.unitNoun} is looked at on each day of picking; where nothing was ripe, that is said.
            </RoomHead>
            {switcher}
          </>
        }
      />
    );
  }
  if (state.seal && dried && view === 'dry') {
    return (
      <DryingView
        state={state}
        trait={dried}
        head={
          <>
            <RoomHead title={`Weigh-in · ${dried.name.toLowerCase()}`}>
              Weighed fresh, dried, and weighed again until it stays the same.
            </RoomHead>
            {switcher}
          </>
        }
      />
    );
  }
  const nothingWeighed = views.length === 0;
  if (!state.seal || visits.length === 0) {
    return (
      <div className="empty">
        <h1>Weigh-in</h1>
        <p style={{ marginTop: '0.6rem' }}>
          Harvests are weighed here: gross on the scale, the container’s tare taken off, the net kept for each{' '}
          {plan.unitNoun}.
          {nothingWeighed
            ? ' No round of this trial weighs anything; add a weighed trait to a round in Question.'
            : ' The Weigh-in opens when the plan is sealed.'}
        </p>
        <Link to={`/trial/${id}/${nothingWeighed ? 'question' : 'layout'}`}>
          {nothingWeighed ? 'Open Question' : 'Seal the plan in Layout'}
        </Link>
      </div>
    );
  }
  const key = (v: (typeof visits)[number]) => `${v.round.id}/${v.trait.id}`;
  const open = visits.find(
    (v) => v.round.id === search.get('round') && (!search.get('trait') || v.trait.id === search.get('trait')),
  );
  const isOpen = (v: (typeof visits)[number]) => hasOpenUnits(state, v.trait, v.round);
  const visit =
    open ??
    visitToOpen(
      visits,
      todayDate(),
      isOpen,
      visits.find((v) => key(v) === inHand),
    )!;
  if (key(visit) !== inHand) setInHand(key(visit));
  const labelOf = (v: typeof visit) => `${v.trait.name}, day ${v.round.day}`;
  const goTo = (v: typeof visit) =>
    setSearch({ ...(views.length > 1 && { view: 'weigh' }), round: v.round.id, trait: v.trait.id });
  const due = dueVisit(visits, todayDate(), isOpen);
  const weighedAlready = (v: typeof visit) =>
    plan.units.some((u) => observationsOf(state, u.id, v.trait.id, v.round.id).length > 0);
  const begun = visits.some((v) => v.date <= todayDate() || weighedAlready(v));
  if (!begun && !open) {
    return (
      <>
        <RoomHead title="Weigh-in">
          Nothing is weighed before {shortDate(visit.date)}, {relativeDay(visit.date, todayDate())}.
        </RoomHead>
        {switcher}
        <ul className="trait-list">
          {visits.map((v) => (
            <li key={key(v)}>
              <strong>{v.trait.name}</strong> {shortDate(v.date)}, {v.round.name.toLowerCase()}
            </li>
          ))}
        </ul>
        <p className="quiet">Till then: containers named and weighed empty, the scale on a level board.</p>
        <Button variant="outlined" color="secondary" onClick={() => goTo(visit)}>
          Weigh today all the same, or containers
        </Button>
      </>
    );
  }
  return (
    <WeighWalk
      head={switcher}
      key={`${id}/${key(visit)}`}
      state={state}
      round={visit.round}
      trait={visit.trait}
      when={`Planned for ${shortDate(visit.date)}.`}
      visits={visits.map((v) => ({ key: key(v), label: labelOf(v) }))}
      visit={key(visit)}
      onVisit={(k) => goTo(visits.find((v) => key(v) === k)!)}
      next={due && due !== visit ? { name: labelOf(due), go: () => goTo(due) } : null}
    />
  );
}
