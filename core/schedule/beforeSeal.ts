import { positionKey } from '../model/positions';
import { rotationPlan, type Turn } from '../design/rotation';
import type { EntryBody } from '../log/entry';
import type { TrialState } from '../log/state';
import type { UnitId } from '../model/ids';
import type { Plan, Position } from '../model/plan';
import { type AgendaItem, type BeforeSeal, actsBeforeSeal, beforeSealTask } from './agenda';
import { roundTask } from './rounds';
import { turnTask } from './tasks';

/** A line of the log, and the moment it is written to have happened; null: now. */
interface DatedLine {
  body: EntryBody;
  on: Pick<AgendaItem, 'date' | 'at'> | null;
}

/** The moves of a turn, and that it was made. @param positions where the units stand before it */
export function turnLines(
  { number, positions: wanted }: Turn,
  positions: ReadonlyMap<UnitId, Position>,
): EntryBody[] {
  const task = turnTask(number);
  const moves = [...wanted].flatMap(([unitId, to]) =>
    positionKey(positions.get(unitId)!) === positionKey(to) ? [] : [{ unitId, to }],
  );
  return [
    ...(moves.length > 0 ? [{ kind: 'move' as const, moves, reason: `rotation, ${task}` }] : []),
    { kind: 'taskDone', task },
  ];
}

/**
 * What is written when somebody says, once, what became of the days before the plan was sealed.
 *
 * - planned: tasks and turns are ticked off on their days; values are typed all the same, nobody can know them
 * - notDone: each is left out, rounds are closed
 * - typed: nothing but the answer; each is written down by hand
 */
export function linesBeforeSeal(state: TrialState, answer: BeforeSeal): DatedLine[] {
  const dated: DatedLine = { body: { kind: 'taskDone', task: beforeSealTask(answer) }, on: null };
  const acts = actsBeforeSeal(state);
  if (answer === 'typed') return [dated];
  const { plan } = state;
  const turns = new Map(plan.rotation ? rotationPlan(plan).map((t) => [`turn-${t.number}`, t]) : []);
  if (answer === 'notDone') {
    const left = acts.flatMap((a) => nameOf(plan, a, turns) ?? []);
    const reason = 'not done: it lay before the plan was sealed';
    return [
      dated,
      ...left.map((task): DatedLine => ({ body: { kind: 'taskSkipped', task, reason }, on: null })),
    ];
  }
  let { positions } = state;
  const made = acts.flatMap((a): DatedLine[] => {
    const turn = turns.get(a.id);
    if (turn) {
      const lines = turnLines(turn, positions);
      positions = new Map([...positions, ...turn.positions]);
      return lines.map((body) => ({ body, on: a }));
    }
    return a.task === null ? [] : [{ body: { kind: 'taskDone', task: a.task }, on: a }];
  });
  return [dated, ...made];
}

/** What an act is called in the log where it is left out; null where that isn't said of it. */
function nameOf(plan: Plan, act: AgendaItem, turns: ReadonlyMap<string, Turn>): string | null {
  const turn = turns.get(act.id);
  if (turn) return turnTask(turn.number);
  const round = plan.rounds.find((r) => `round-${r.id}` === act.id);
  return round ? roundTask(round) : act.task;
}
