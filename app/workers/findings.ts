import { figuresNow } from '~core/quantity/region';
import type { Result } from '~core/model/result';
import type { Finding, FindingError, FindingInput } from '~core/account/finding';
import type { FindingsApi } from './findings.worker';
import { workerOf } from './pool';

const worker = workerOf<FindingsApi>(
  () => new Worker(new URL('./findings.worker.ts', import.meta.url), { type: 'module' }),
);

/** Findings worked out beside the screen, so that it stays responsive. */
export const findings = (
  inputs: FindingInput[],
  region = figuresNow(),
): Promise<Result<Finding, FindingError>[]> => worker.call((api) => api.findings(inputs, region));

/** A finding looked at otherwise, and its factors; null where there is no finding. */
export const looksAt = (input: FindingInput) => worker.call((api) => api.looks(input, figuresNow()));
