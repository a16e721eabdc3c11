import { expose } from 'comlink';
import { type BalanceError, type BalancedSeed, balanceSearch } from '~core/design/balance';
import { type RehearsalInput, type RehearsalResult, rehearse } from '~core/design/rehearsal';
import { type Result, ok } from '~core/model/result';
import type { Design, Plan } from '~core/model/plan';

export interface Progress {
  done: number;
  total: number;
}
type Report = (progress: Progress) => void;

/** A finished task: its result, and whether it was ended before all was done. */
export interface Done<T> {
  result: T;
  stopped: boolean;
}

type RehearsalError = Extract<ReturnType<typeof rehearse>, { ok: false }>['error'];

/** Tasks that are asked to end. */
const ended = new Set<string>();
/** Lets messages in, so that an end is heard. */
const nextTurn = () => new Promise<void>((done) => setTimeout(done));

/** Steps through long work in short bursts, reporting after each, until it is done or ended. */
async function work<T>(
  id: string,
  task: { total: number; done: () => number; step: (n: number) => boolean; result: () => T },
  burst: number,
  report: Report,
): Promise<Done<T>> {
  let finished = false;
  while (!finished && !ended.has(id)) {
    finished = task.step(burst);
    report({ done: task.done(), total: task.total });
    await nextTurn();
  }
  ended.delete(id);
  return { result: task.result(), stopped: !finished };
}

const api = {
  /** Looks for a layout that shares the gradient fairly. */
  balance: async (
    id: string,
    plan: Pick<Plan, 'treatments' | 'areas' | 'gradient'>,
    design: Pick<Design, 'kind' | 'replicates' | 'seed' | 'settings'>,
    candidates: number,
    report: Report,
  ): Promise<Result<Done<BalancedSeed>, BalanceError>> => {
    const search = balanceSearch(plan, design, candidates);
    return search.ok ? ok(await work(id, search.value, 40, report)) : search;
  },
  /** Rehearses a trial. */
  rehearse: async (
    id: string,
    input: RehearsalInput,
    report: Report,
  ): Promise<Result<Done<RehearsalResult>, RehearsalError>> => {
    const rehearsal = rehearse(input);
    return rehearsal.ok ? ok(await work(id, rehearsal.value, 100, report)) : rehearsal;
  },
  /** Ends a task; what is done so far is its result. */
  end: (id: string) => {
    ended.add(id);
  },
};

export type PlanningApi = typeof api;
expose(api);
