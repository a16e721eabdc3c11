import { toAction } from '../../form/command';
import { layoutCommands } from './layoutActions';
import { plural } from '~core/quantity/format';
import Button from '@mui/material/Button';
import { useHotkeys } from 'react-hotkeys-hook';
import { Link, useLoaderData, useSearchParams } from 'react-router';
import { usePost } from '../../form/usePost';
import { RoomHead } from '../../ui/RoomHead';
import { ViewSwitch } from '../../ui/ViewSwitch';
import { isTyping } from '../../ui/keys';
import { ArrangeView } from './ArrangeView';
import { loadLayout } from './layoutData';
import { LightView } from './LightView';
import { PlacesView } from './PlacesView';
import { RotationView } from './RotationView';
import { PlantingView } from './PlantingView';
import { SizesView } from './SizesView';
import './layout.css';
const views = [
  ['arrange', 'Arrange'],
  ['places', 'Areas'],
  ['light', 'Light map'],
  ['turns', 'Turns'],
  ['sizes', 'Start sizes'],
  ['planting', 'Planting'],
] as const;
type View = (typeof views)[number][0];

export const clientLoader = loadLayout;
export const clientAction = toAction(layoutCommands);

export default function LayoutRoom() {
  const data = useLoaderData<typeof clientLoader>();
  const { id, plan, seal, undoable } = data;
  const sealed = seal !== null;
  const [search, setSearch] = useSearchParams();
  const post = usePost();
  const chosen = search.get('view');
  const view: View = views.find(([v]) => v === chosen)?.[0] ?? 'arrange';

  useHotkeys('mod+z', () => post({ intent: 'undo' }), {
    useKey: true,
    preventDefault: true,
    enabled: undoable > 0,
    ignoreEventWhen: isTyping,
  });

  const viewNames: Record<View, string> = {
    arrange:
      plan.units.length > 0
        ? `${plan.units.length} ${plural(plan.unitNoun)} seen from above. ${sealed ? 'They stand as they were dealt; one that is moved from here on becomes a line of the log.' : 'Drag one to move it; two change positions. With the keyboard: arrows walk, Space lifts and puts down.'}`
        : 'Where the units stand. The middle and the end of a shelf differ: chance decides who stands where.',
    places: `Each shelf level, tent, bench, bed, tank or lawn as a grid.${sealed ? '' : ' Press a free position to block it, again for a guard.'}`,
    light:
      'What differs from position to position: light, most often. Read it at every one, then let chance deal again until all contenders get the same.',
    turns: 'Instead of standing still, units can go round, so that each spends equal time at each position.',
    planting:
      'Equal plants on equal ground are half of fairness: how many fit, where each goes, how much is sown.',
    sizes: `The size of every ${plan.unitNoun} at the start, in one unit throughout, shows whether the contenders began alike.`,
  };
  const head = (
    <>
      <RoomHead
        title="Layout"
        actions={
          <>
            {!sealed && (
              <Button color="secondary" disabled={undoable === 0} onClick={() => post({ intent: 'undo' })}>
                Undo
              </Button>
            )}
            {plan.units.length > 0 && (
              <Button color="secondary" variant="outlined" component={Link} to={`/trial/${id}/labels`}>
                Labels
              </Button>
            )}
          </>
        }
      >
        {viewNames[view]}
      </RoomHead>
      <ViewSwitch
        views={views}
        view={view}
        label="What to do on the plan"
        onView={(to) => setSearch({ view: to })}
      />
    </>
  );
  const Shown = {
    arrange: ArrangeView,
    places: PlacesView,
    light: LightView,
    turns: RotationView,
    sizes: SizesView,
    planting: PlantingView,
  }[view];
  return <Shown key={id} {...data} head={head} />;
}
