import { expose } from 'comlink';
import { balanceSearch } from '~core/design/balance';
import { type RehearsalInput, rehearse } from '~core/design/rehearsal';
import type { Design, Plan } from '~core/model/plan';

export interface Progress {
  done: number;
  total: number;
}
type Report = (progress: Progress) => void;

let stopped = false;
/** Lets messages in, so that a stop is heard. */
const breathe = () => new Promise<void>((done) => setTimeout(done));

/** Steps through long work in short bursts, reporting after each, until it is done or stopped. */
async function work<T>(
  task: { total: number; done: () => number; step: (n: number) => boolean; result: () => T },
  burst: number,
  report: Report,
): Promise<{ result: T; stopped: boolean }> {
  stopped = false;
  let finished = false;
  while (!finished && !stopped) {
    finished = task.step(burst);
    report({ done: task.done(), total: task.total });
    await breathe();
  }
  return { result: task.result(), stopped: !finished };
}

const api = {
  /** Looks for a layout that shares the gradient fairly. */
  balance: async (
    plan: Pick<Plan, 'treatments' | 'areas' | 'gradient'>,
    design: Pick<Design, 'kind' | 'replicates' | 'seed' | 'settings'>,
    candidates: number,
    report: Report,
  ) => {
    const search = balanceSearch(plan, design, candidates);
    return search.ok ? { ok: true as const, value: await work(search.value, 40, report) } : search;
  },
  /** Rehearses a trial. */
  rehearse: async (input: RehearsalInput, report: Report) => {
    const rehearsal = rehearse(input);
    return rehearsal.ok ? { ok: true as const, value: await work(rehearsal.value, 100, report) } : rehearsal;
  },
  /** Ends the work under way; what is done so far is the result. */
  stop: () => {
    stopped = true;
  },
};

export type PlanningApi = typeof api;
expose(api);
