import { expose } from 'comlink';
import { type BalanceError, type BalancedSeed, balanceSearch } from '~core/design/balance';
import { type RehearsalInput, type RehearsalResult, rehearse } from '~core/design/rehearsal';
import { type Result, ok } from '~core/model/result';
import type { Design, Plan } from '~core/model/plan';
import { canSee } from '~core/truth/canSee';
import { type Done, type Report, endTask, work } from './steps';

type RehearsalError = Extract<ReturnType<typeof rehearse>, { ok: false }>['error'];

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
  /** What the deciding trait can tell where it isn't a figure. */
  canSee: (plan: Plan): string | null => canSee(plan),
  /** Ends a task; what is done so far is its result. */
  end: endTask,
};

export type PlanningApi = typeof api;
expose(api);
