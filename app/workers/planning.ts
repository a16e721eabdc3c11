import { proxy } from 'comlink';
import type { RehearsalInput } from '~core/design/rehearsal';
import type { Design, Plan } from '~core/model/plan';
import type { PlanningApi, Progress } from './planning.worker';
import { workerOf } from './pool';

const worker = workerOf<PlanningApi>(
  () => new Worker(new URL('./planning.worker.ts', import.meta.url), { type: 'module' }),
);

type OnProgress = (progress: Progress) => void;

/** Long work under way: its answer, and a way to end it early. */
export interface Task<T> {
  answer: Promise<T>;
  /** ends it; the answer is what is done so far */
  end: () => void;
}

let tasks = 0;

function taskOf<T>(onProgress: OnProgress, run: (id: string, report: OnProgress) => Promise<T>): Task<T> {
  tasks += 1;
  const id = `task ${tasks}`;
  let running = true;
  // A message that comes in after its result is dropped.
  const report = proxy((progress: Progress) => running && onProgress(progress)) as OnProgress;
  const answer = run(id, report).finally(() => {
    running = false;
  });
  return { answer, end: () => void worker.call((api) => api.end(id)) };
}

/** Draws many layouts beside the screen and takes one that shares the gradient fairly. */
export const balanceInWorker = (plan: Plan, design: Design, candidates: number, onProgress: OnProgress) =>
  taskOf(onProgress, (id, report) =>
    worker.call(async (api) =>
      api.balance(
        id,
        { treatments: plan.treatments, areas: plan.areas, gradient: plan.gradient },
        { kind: design.kind, replicates: design.replicates, seed: design.seed, settings: design.settings },
        candidates,
        report,
      ),
    ),
  );

/** Rehearses a trial beside the screen. */
export const rehearseInWorker = (input: RehearsalInput, onProgress: OnProgress) =>
  taskOf(onProgress, (id, report) => worker.call(async (api) => api.rehearse(id, input, report)));

export type { Progress };
