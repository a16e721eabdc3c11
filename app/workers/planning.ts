import type { RehearsalInput } from '~core/design/rehearsal';
import type { Design, Plan } from '~core/model/plan';
import type { PlanningApi } from './planning.worker';
import { workerOf } from './pool';
import type { Progress } from './steps';
import { type OnProgress, type Task, taskOf } from './task';

const worker = workerOf<PlanningApi>(
  () => new Worker(new URL('./planning.worker.ts', import.meta.url), { type: 'module' }),
);

const end = (id: string) => void worker.call(async (api) => api.end(id));

/** Draws many layouts beside the screen and takes one that shares the gradient fairly. */
export const balanceInWorker = (plan: Plan, design: Design, candidates: number, onProgress: OnProgress) =>
  taskOf(
    onProgress,
    (id, report) =>
      worker.call(async (api) =>
        api.balance(
          id,
          { treatments: plan.treatments, areas: plan.areas, gradient: plan.gradient },
          { kind: design.kind, replicates: design.replicates, seed: design.seed, settings: design.settings },
          candidates,
          report,
        ),
      ),
    end,
  );

/** What the deciding trait can tell where it isn't a figure, worked out beside the screen. */
export const canSeeInWorker = (plan: Plan) => worker.call(async (api) => api.canSee(plan));

/** Rehearses a trial beside the screen. */
export const rehearseInWorker = (input: RehearsalInput, onProgress: OnProgress) =>
  taskOf(onProgress, (id, report) => worker.call(async (api) => api.rehearse(id, input, report)), end);

export type { Progress, Task };
