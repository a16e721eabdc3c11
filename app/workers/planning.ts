import { type Remote, proxy, wrap } from 'comlink';
import type { RehearsalInput } from '~core/design/rehearsal';
import type { Design, Plan } from '~core/model/plan';
import type { PlanningApi, Progress } from './planning.worker';

let worker: Remote<PlanningApi> | null = null;

function planning(): Remote<PlanningApi> {
  worker ??= wrap<PlanningApi>(
    new Worker(new URL('./planning.worker.ts', import.meta.url), { type: 'module' }),
  );
  return worker;
}

type OnProgress = (progress: Progress) => void;

/** Hands progress on while the work lasts: a message that comes in after its result is dropped. */
async function reporting<T>(onProgress: OnProgress, work: (report: OnProgress) => Promise<T>): Promise<T> {
  let running = true;
  try {
    return await work(proxy((progress: Progress) => running && onProgress(progress)) as OnProgress);
  } finally {
    running = false;
  }
}

/** Draws many layouts beside the screen and takes one that shares the gradient fairly. */
export const balanceInWorker = (plan: Plan, design: Design, candidates: number, onProgress: OnProgress) =>
  reporting(onProgress, async (report) =>
    planning().balance(
      { treatments: plan.treatments, areas: plan.areas, gradient: plan.gradient },
      { kind: design.kind, replicates: design.replicates, seed: design.seed, settings: design.settings },
      candidates,
      report,
    ),
  );

/** Rehearses a trial beside the screen. */
export const rehearseInWorker = (input: RehearsalInput, onProgress: OnProgress) =>
  reporting(onProgress, async (report) => planning().rehearse(input, report));

export const stopPlanning = () => planning().stop();

export type { Progress };
