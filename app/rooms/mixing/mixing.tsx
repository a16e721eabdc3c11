import { useLoaderData, useSearchParams } from 'react-router';
import { packsLeft, stocksLeft } from '~core/log/packs';
import { nextProgrammeDay, programmeDays } from '~core/mixing/programme';
import { regimenNames } from '~core/model/plan';
import { livingUnits } from '~core/schedule/rounds';
import { dayOfDate } from '~core/plan/days';
import { todayDate } from '../../bench/clock';
import { listProducts } from '../../store/products';
import { saidBy } from '../../form/schemaFields';
import { listTrials, loadTrial } from '../../store/trials';
import { undoDepth } from '../../store/undo';
import { announce } from '../../ui/announce';
import { RoomHead } from '../../ui/RoomHead';
import { ViewSwitch } from '../../ui/ViewSwitch';
import type { RoomArgs } from '../roomArgs';
import { CompareView } from './CompareView';
import { DayView } from './DayView';
import { ProgrammeView } from './ProgrammeView';
import { ReservoirsView } from './ReservoirsView';
import { SetUpView } from './SetUpView';
import { StockView } from './StockView';
import { bottlesOn, partNames, stockName } from '~core/mixing/bottles';
import { mixingAction } from './mixingActions';
import './mixing.css';

export async function clientLoader({ params, request }: RoomArgs) {
  const trial = await loadTrial(params.trialId);
  const { row, state, shown, blind, key } = trial;
  const { plan } = row;
  const search = new URL(request.url).searchParams;
  const today = dayOfDate(plan.startDate, todayDate());
  const days = programmeDays(plan);
  const asked = search.get('day');
  const usual = days.includes(today) ? today : (nextProgrammeDay(plan, today) ?? Math.max(0, today));
  const day = asked !== null && /^\d{1,4}$/.test(asked) ? Number(asked) : usual;
  const anyDay = search.get('any') === '1' || days.length === 0;
  // A pack of the shelf is drawn on by every trial of the bench.
  const library = await listProducts();
  const products = plan.products.map((p) => library.find((l) => l.id === p.id) ?? p);
  const logs = (await listTrials()).map((t) => t.state);
  return {
    id: row.id,
    plan,
    /** tiles and names as they may be shown */
    shown: shown.plan,
    blind,
    order: key && plan.blinding !== 'open' ? key.order : null,
    state,
    sealed: state.seal !== null,
    undoable: state.seal ? 0 : await undoDepth(row.id),
    today,
    day,
    days,
    anyDay,
    bottles: bottlesOn(trial, day, anyDay),
    living: livingUnits(state),
    names: partNames(trial),
    packs: packsLeft(products, logs),
    stocks: stocksLeft(state),
    stockName: stockName(state, plan),
  };
}
export type MixingData = Awaited<ReturnType<typeof clientLoader>>;

/** Deeds without fields answer by a notice; forms show their messages at the field. */
const plainIntents = new Set(['match', 'bringBack', 'undo']);

export async function clientAction({ params, request }: RoomArgs) {
  const data: unknown = await request.json();
  const result = await mixingAction(params.trialId, data);
  const intent = typeof data === 'object' && data !== null && 'intent' in data ? String(data.intent) : '';
  const text = saidBy(result);
  // The card of a mix that is logged gives way to the batch, and can't answer itself.
  const gone = intent === 'mix' && !('errors' in result);
  if ((plainIntents.has(intent) || gone) && text) announce(text);
  return result;
}

const views = [
  ['day', 'Mix day'],
  ['compare', 'Compare doses'],
  ['programme', 'Programme'],
  ['reservoirs', 'Reservoirs'],
  ['stock', 'Stock'],
  ['setup', 'Set-up'],
] as const;
type View = (typeof views)[number][0];

export default function MixingRoom() {
  const data = useLoaderData<typeof clientLoader>();
  const [search, setSearch] = useSearchParams();
  const view: View = views.find(([v]) => v === search.get('view'))?.[0] ?? 'day';
  const said: Record<View, string> = {
    day: `What is mixed, by the programme. Regimen: ${regimenNames[data.plan.mixing.regimen]}.`,
    compare: 'What each contender really gets, and what it would get if the doses were matched otherwise.',
    programme: 'Every product, stage and day. A day opens its mixes.',
    reservoirs: 'Strength, pH and temperature of each vessel, top-ups, and what water loss does.',
    stock: 'Every mix takes from its pack. What is left, for how long, and what a litre costs.',
    setup:
      'Tools, water, regimen and band: part of the plan, and sealed with it. The scale of a day is chosen on the mix day.',
  };
  return (
    <>
      <RoomHead title="Mixing">{said[view]}</RoomHead>
      <ViewSwitch
        views={views}
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
