import { toAction } from '../../form/command';
import { mixingCommands } from './mixingActions';
import { useLoaderData, useSearchParams } from 'react-router';
import { regimenNames } from '~core/model/plan';
import { neededFor } from '~core/mixing/needed';
import { RoomHead } from '../../ui/RoomHead';
import { ViewSwitch } from '../../ui/ViewSwitch';
import { MixingClosed, useHelper } from '../OnlyHelper';
import { CompareView } from './CompareView';
import { DayView } from './DayView';
import { loadMixing } from './mixingData';
import { ProgrammeView } from './ProgrammeView';
import { ReservoirsView } from './ReservoirsView';
import { SetUpView } from './SetUpView';
import { StockView } from './StockView';
import './mixing.css';
const views = [
  ['day', 'Mix day'],
  ['compare', 'Compare doses'],
  ['programme', 'Programme'],
  ['reservoirs', 'Reservoirs'],
  ['stock', 'Stock'],
  ['setup', 'Set-up'],
] as const;
type View = (typeof views)[number][0];

export const clientLoader = loadMixing;
export const clientAction = toAction(mixingCommands);

export default function MixingRoom() {
  const data = useLoaderData<typeof clientLoader>();
  const [search, setSearch] = useSearchParams();
  const view: View = views.find(([v]) => v === search.get('view'))?.[0] ?? 'day';
  const [helper, sayHelper] = useHelper(data.id);
  if (data.blind && !helper) {
    return (
      <>
        <RoomHead title="Mixing">What is mixed, by the programme.</RoomHead>
        <MixingClosed onShow={sayHelper} />
      </>
    );
  }
  const { inWater } = neededFor(data.plan);
  const viewNames: Record<View, string> = {
    day: inWater
      ? `What is mixed, by the programme. Regimen: ${regimenNames[data.plan.mixing.regimen]}.`
      : 'What is given, by the programme: so much to each, the same day for all.',
    compare: 'What each contender really gets, and what it would get if the doses were matched otherwise.',
    programme: 'Every product, stage and day. A day opens its mixes.',
    reservoirs: 'EC (strength), pH and temperature of each vessel, top-ups, and what water loss does.',
    stock: 'Every mix takes from its pack. What is left, for how long, and what a litre costs.',
    setup: `${inWater ? 'Tools, water, regimen and band' : 'Your tools'}: part of the plan, and sealed with it. The scale of a day is chosen on the mix day.`,
  };
  return (
    <>
      <RoomHead title="Mixing">{viewNames[view]}</RoomHead>
      <ViewSwitch
        views={inWater ? views : views.filter(([v]) => v !== 'reservoirs')}
        view={view}
        label="What to see of the mixing"
        onView={(to) => {
          const next = new URLSearchParams(search);
          next.set('view', to);
          setSearch(next);
        }}
      />
      {view === 'day' && <DayView data={data} />}
      {view === 'compare' && <CompareView data={data} />}
      {view === 'programme' && <ProgrammeView data={data} />}
      {view === 'reservoirs' && <ReservoirsView data={data} />}
      {view === 'stock' && <StockView data={data} />}
      {view === 'setup' && <SetUpView key={data.id} data={data} />}
    </>
  );
}
