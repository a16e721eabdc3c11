import { type Remote, wrap } from 'comlink';
import type { Entry } from '~core/model/entry';
import type { Plan } from '~core/model/plan';
import type { Result } from '~core/model/result';
import type { Finding, FindingError } from '~core/verdict/finding';
import type { FindingRequest, FindingsApi } from './findings.worker';

let worker: Remote<FindingsApi> | null = null;

/** Findings worked out beside the screen, so that it stays responsive. */
export function findings(
  plan: Plan,
  log: Entry[],
  requests: FindingRequest[],
): Promise<Result<Finding, FindingError>[]> {
  worker ??= wrap<FindingsApi>(
    new Worker(new URL('./findings.worker.ts', import.meta.url), { type: 'module' }),
  );
  return worker.findings(plan, log, requests);
}

export type { FindingRequest };
