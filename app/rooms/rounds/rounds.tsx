import { useMemo } from 'react';
import { Link, useLoaderData, useSearchParams } from 'react-router';
import { audit, openFindings } from '~core/fairness/audit';
import { roundProgress } from '~core/schedule/rounds';
import { agendaCommands } from './agendaAction';
import { todayDate } from '../../ui/clock';
import { loadTrial } from '../../store/trials';
import { RoomHead } from '../../ui/RoomHead';
import { ViewSwitch } from '../../ui/ViewSwitch';
import { auditInputOf } from '../auditOf';
import { toAction } from '../../form/command';
import { takeBackCommands } from '../takeBackCommands';
import { logCommands } from '../logActions';
import type { RoomArgs } from '../roomArgs';
import { AirView, bandsOf } from './air/AirView';
import { EventsView } from './happened/EventsView';
import { PhotosView } from './photos/PhotosView';
import { TasksView } from './tasks/TasksView';
import { WalkView } from './WalkView';
import { airOf } from './air/airData';
import { coverByTreatment, coverWords, photoDays, photosData } from './photos/photoData';
import { taskCommands } from './tasks/taskForm';

const roundViews = [
  ['walk', 'The walk'],
  ['tasks', 'Tasks'],
  ['photos', 'Photos'],
  ['air', 'Air and light'],
  ['events', 'What happened'],
] as const;
type RoundView = (typeof roundViews)[number][0];

const viewOf = (search: URLSearchParams): RoundView =>
  roundViews.find(([v]) => v === search.get('view'))?.[0] ?? 'walk';

export async function clientLoader({ params, request }: RoomArgs) {
  const loaded = await loadTrial(params.trialId);
  const { shown: state } = loaded;
  const today = todayDate();
  const search = new URL(request.url).searchParams;
  const view = viewOf(search);
  return {
    state,
    today,
    view,
    rounds: roundProgress(state, today),
    air: view === 'air' ? await airOf(state, bandsOf(search)) : null,
    open: view === 'events' ? openFindings(audit(await auditInputOf({ ...loaded, state }))).length : 0,
    photos: view === 'photos' ? await photosData(state) : null,
  };
}

export const clientAction = toAction({
  ...logCommands,
  ...taskCommands,
  ...takeBackCommands,
  askBeforeSeal: agendaCommands.askBeforeSeal,
});

/** What stands above a view that isn't the walk. */
function titleOf(view: RoundView, covers: string): { title: string; said: string } {
  switch (view) {
    case 'photos':
      return covers
        ? {
            title: covers,
            said: 'Means of what was measured on that day’s photos; the findings tell whether it is more than chance.',
          }
        : { title: 'Photos', said: 'From the same mark, at one height and in one light.' };
    case 'air':
      return { title: 'Air and light', said: 'What the areas were like, day and night.' };
    case 'events':
      return {
        title: 'What happened',
        said: 'Whatever went otherwise than planned, on its day; a fair review tells it.',
      };
    case 'tasks':
      return {
        title: 'Tasks',
        said: 'What is to be done on which day, beside rounds and mixing. What is due stands in Today.',
      };
    case 'walk':
      return { title: 'Rounds', said: '' };
  }
}

export default function RoundsRoom() {
  const { state, today, rounds, view, air, photos, open } = useLoaderData<typeof clientLoader>();
  const [, setSearch] = useSearchParams();
  const { plan } = state;
  const running = state.seal !== null && rounds.length > 0;
  // The same until it changes: the walk isn't drawn again while values are under way.
  const views = useMemo(
    () => (
      <ViewSwitch
        label="View"
        views={running ? roundViews : roundViews.filter(([v]) => v === 'walk' || v === 'tasks')}
        view={view}
        onView={(to) => setSearch(to === 'walk' ? {} : { view: to })}
      />
    ),
    [running, view, setSearch],
  );
  const day = photos ? photoDays(photos.photos).at(-1) : undefined;
  const covers = photos && day !== undefined ? coverWords(coverByTreatment(state, photos.photos, day)) : '';
  const { title, said } = titleOf(view, covers && `Day ${day}: ${covers}`);
  const headOf = (heading: string) => (
    <>
      <RoomHead title={heading}>{said}</RoomHead>
      {views}
    </>
  );
  const head = headOf(title);
  if (view === 'tasks') return <TasksView state={state} head={head} />;
  if (!running) {
    return (
      <div className="empty">
        <h1>Rounds</h1>
        <p style={{ marginTop: '0.6rem' }}>
          A round is one visit to every {plan.unitNoun}: the same things measured on all of them, on the same
          day, in the order they stand. Rounds open when the plan is sealed.
        </p>
        <Link to={`/trial/${plan.id}/layout`}>Seal the plan in Layout</Link>
        <p>
          <Link to="?view=tasks">Tasks and their days</Link> can be planned before.
        </p>
      </div>
    );
  }
  if (view === 'events') return <EventsView state={state} open={open} head={head} />;
  if (photos) return <PhotosView state={state} data={photos} head={head} />;
  if (air) return <AirView plan={plan} air={air} head={(finding) => headOf(finding ?? title)} />;
  return <WalkView state={state} rounds={rounds} today={today} views={views} />;
}
