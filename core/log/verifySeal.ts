import { planFromFile } from '../model/migrations';
import type { Plan } from '../model/plan';
import { canonicalJson, planSha256, sha256Of } from '../plan/seal';
import type { Seal } from './views';

/** A sealed plan in the words of the file version it was sealed in, kept where the format has changed since. */
export interface SealedAs {
  version: number;
  plan: unknown;
}

export type SealCheck =
  | { tag: 'unsealed' }
  | { tag: 'holds' }
  /** a scorer's copy: what was sealed isn't all here */
  | { tag: 'namesLeftOut' }
  /** the plan isn't the one that was sealed */
  | { tag: 'broken'; sealed: string; found: string };

/**
 * Compares a seal with the plan it stands for. A plan sealed in an older file format is compared as it was
 * written then, and that copy with the plan of now.
 *
 * @param seal of the log; null: not sealed
 * @example verifySeal(plan, state.seal, null).tag // 'holds'
 */
export function verifySeal(
  plan: Plan,
  seal: Pick<Seal, 'planSha256'> | null,
  as: SealedAs | null,
): SealCheck {
  if (seal === null) return { tag: 'unsealed' };
  if (plan.namesLeftOut) return { tag: 'namesLeftOut' };
  const own = planSha256(plan);
  if (own === seal.planSha256) return { tag: 'holds' };
  const broken: SealCheck = { tag: 'broken', sealed: seal.planSha256, found: own };
  if (as === null || sha256Of(as.plan) !== seal.planSha256) return broken;
  const now = planFromFile(as.plan, as.version);
  return now !== null && canonicalJson(now) === canonicalJson(plan) ? { tag: 'holds' } : broken;
}

/** A broken seal in words; null where there is nothing to say. */
export const sayBrokenSeal = (check: SealCheck): string | null =>
  check.tag === 'broken'
    ? `The plan isn’t the one that was sealed: its SHA-256 is ${check.found.slice(0, 16)}…, the seal’s ${check.sealed.slice(0, 16)}…. Something in it was changed outside Palazzo after the seal.`
    : null;
