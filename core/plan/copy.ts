import type { TrialId } from '../model/ids';
import type { Plan } from '../model/plan';
import { retestOf } from './retest';

/**
 * Another trial like this one: the same question, contenders, traits, rounds and place to begin with, all of it to be
 * changed. It isn't a retest: the two aren't linked, and what this one saw isn't handed on.
 *
 * @param begun its own id, code and start
 * @example copyOf(plan, { id, code: 'CRE', startDate: '2026-12-01' }).units // []
 */
export function copyOf(plan: Plan, begun: { id: TrialId; code: string; startDate: string }): Plan {
  const { retestOf: _, ...copy } = retestOf(plan, begun, { cvPercent: null, replicates: null });
  return copy;
}

/**
 * A code for another trial of a plan, one that no trial has.
 * @param proposed what its crop and question make; empty: none
 * @example freeCode('PAR', '', ['PAA']) // 'PAB'
 */
export function freeCode(code: string, proposed: string, taken: readonly string[]): string {
  const letters = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];
  const near = letters.map((l) => code.slice(0, 2) + l);
  const any = letters.flatMap((a) => letters.map((b) => code.slice(0, 1) + a + b));
  return [proposed, ...near, ...any].find((c) => c !== '' && !taken.includes(c)) ?? code;
}
