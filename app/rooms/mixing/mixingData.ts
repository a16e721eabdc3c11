import { packsLeft, stocksLeft, takings } from '~core/mixing/packs';
import { givenPlan } from '~core/mixing/givenPlan';
import { nextProgrammeDay, programmeDays } from '~core/mixing/programme';
import { livingUnits } from '~core/log/asked';
import { dayOfDate } from '~core/plan/days';
import { todayDate } from '../../ui/clock';
import { listProducts } from '../../store/products';
import { perTrial } from '../../store/perTrial';
import { loadTrial } from '../../store/trials';
import { undoDepth } from '../../store/undo';
import type { RoomArgs } from '../roomArgs';
import { bottlesOn, partNames, stockName } from '~core/mixing/bottles';

/** What each trial of the bench took out of packs. */
export const takenOnBench = perTrial(({ row, state }) => ({ id: row.id, takings: takings(state) }));

export async function loadMixing({ params, request }: RoomArgs) {
  const trial = await loadTrial(params.trialId);
  const { row, state, shown, blind, key } = trial;
  const plan = givenPlan(state);
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
  const takings = (await takenOnBench()).flatMap((t) => t.takings);
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
    packs: packsLeft(products, takings),
    stocks: stocksLeft(state),
    stockName: stockName(state, plan),
  };
}
export type MixingData = Awaited<ReturnType<typeof loadMixing>>;
