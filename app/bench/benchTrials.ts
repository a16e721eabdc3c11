import { tilesOf } from '~core/plan/tiles';
import { waitingTasks, actsBeforeSeal } from '~core/schedule/agenda';
import { stageOf } from '~core/schedule/rounds';
import { plural } from '~core/quantity/format';
import dayjs from 'dayjs';
import { planSummary } from '../rooms/planSummary';
import { bench } from '../store/bench';
import type { SettledRow, TrialLine } from '../store/settled';
import type { LoadedTrial } from '../store/trialMemory';
import { tryTrial } from '../store/trials';
import { type ActiveTrial, actsOf } from './acts';

/** The name of this piece of the build; it changes with anything it is made of. */
const BUILD = import.meta.url;

/** Acts of so many days back are still shown, done or not. */
const LOOKED_BACK = 14;

export function lineOf({ row, state, shown, blind }: LoadedTrial, today: string): TrialLine {
  const { plan } = shown;
  const units = plan.units.length ? `${plan.units.length} ${plural(plan.unitNoun)}` : '';
  return {
    id: row.id,
    question: plan.question,
    about: [plan.crop, units].filter(Boolean).join(' · '),
    contenders: plan.treatments.map((t) => t.name),
    tiles: tilesOf(plan),
    stage: stageOf(state, today),
    startDate: row.plan.startDate,
    summary: planSummary(state, today, blind),
    blind,
  };
}

export const activeOf = ({ row, state, shown }: LoadedTrial): ActiveTrial => ({
  id: row.id,
  state,
  question: shown.plan.question,
});

/** Whether nothing of a trial is left to do, nor was done or due in the last days: from now on it stays as it is listed. */
export function isSettled(trial: LoadedTrial, today: string): boolean {
  const { state } = trial;
  if (stageOf(state, today) !== 'finished') return false;
  if (waitingTasks(state).length + actsBeforeSeal(state).length > 0) return false;
  const since = dayjs(today).subtract(LOOKED_BACK, 'day').format('YYYY-MM-DD');
  return actsOf([activeOf(trial)], today, '9999-12-31').every(
    (a) => a.state !== 'open' && a.date < since && (a.doneOn ?? '') < since,
  );
}

/**
 * Every trial of the bench for its list, the latest start first, and those that may still ask for something. Logs of trials that
 * are settled aren't read again: of a bench of years most are.
 *
 * @param whole days long past are looked at too: all are asked
 */
export async function benchTrials(
  today: string,
  whole = false,
): Promise<{ lines: TrialLine[]; active: ActiveTrial[] }> {
  const db = await bench();
  const [heads, rows] = await Promise.all([db.heads.toArray(), db.settled.toArray()]);
  const settled = new Map(rows.map((s) => [s.id, s]));
  const lines: TrialLine[] = [];
  const active: ActiveTrial[] = [];
  const fresh: SettledRow[] = [];
  for (const { id, rev } of heads) {
    const known = settled.get(id);
    if (!whole && known?.rev === rev && known.build === BUILD && known.on <= today) {
      lines.push(known.line);
      continue;
    }
    const trial = await tryTrial(id);
    if (!trial) continue;
    const line = lineOf(trial, today);
    const quiet = isSettled(trial, today);
    lines.push(line);
    if (quiet) fresh.push({ id, rev: trial.rev, on: today, build: BUILD, line });
    if (whole || !quiet) active.push(activeOf(trial));
  }
  if (fresh.length > 0) await db.settled.bulkPut(fresh);
  return { lines: lines.sort((a, b) => b.startDate.localeCompare(a.startDate)), active };
}
