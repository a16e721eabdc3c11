import { leastVariance, unitTable } from '../../analysis/unitTable';
import { methodOf, methodsFor } from '../../analysis/methods';
import { kindOf } from '../../model/traitKinds';
import { baseOf } from '../../account/finding';
import type { NamedInput } from '../../account/trialFindings';

/** One unit in one finding, as a row of `data/finding_values.csv`. */
export interface ValueRow {
  finding: number;
  trait: string;
  round: string | null;
  crop: string | null;
  unit: string;
  contender: string;
  /** place of the contender in the plan, from 1 */
  arm: number;
  block: string | null;
  column: string | null;
  value: number | null;
  k: number | null;
  n: number | null;
  day: number | null;
  happened: number | null;
  count: number | null;
  exposure: number | null;
}

/** What a finding was asked for, for the script. */
export interface Asked {
  finding: number;
  trait: string;
  round: string | null;
  crop: string | null;
  method: string;
  control: number;
  peers: boolean;
  alpha: number;
  least: number;
  /** an order by eye, not steps of a scale */
  ranked: boolean;
}

/**
 * Findings that have a method, a control and values; numbered in their order.
 * @param chosen a method in place of each one's usual one
 */
export function scriptedFindings(
  inputs: readonly NamedInput[],
  nameOf: (id: string) => string,
  chosen: string | null = null,
): { asked: Asked[]; rows: ValueRow[] } {
  const asked: Asked[] = [];
  const rows: ValueRow[] = [];
  for (const { trait, round, crop, input } of inputs) {
    const method = (chosen === null ? undefined : methodOf(chosen)) ?? methodsFor(input.trait)[0];
    const from = input.unfinished ? null : baseOf(input);
    // Where the control is lost nothing is held against it, here as in the findings.
    if (!method || from === null || (from.peers && !input.peers)) continue;
    const finding = asked.length + 1;
    const armOf = (id: string) => input.order.indexOf(id) + 1;
    asked.push({
      ...{ finding, trait, round, crop, method: method.id },
      control: armOf(from.base),
      peers: from.peers,
      alpha: input.alpha,
      least: leastVariance(input.rows, input.trait),
      ranked: kindOf(input.trait).observes === 'rank',
    });
    for (const [i, u] of unitTable(input.rows, input.trait).entries()) {
      rows.push({
        ...{ finding, trait, round, crop, unit: input.rows[i]!.code },
        contender: nameOf(u.treatment),
        arm: armOf(u.treatment),
        block: u.block,
        column: u.column,
        value: Number.isFinite(u.value) ? u.value : null,
        ...{ k: u.k, n: u.n, day: u.day, count: u.count, exposure: u.exposure },
        happened: u.happened === null ? null : Number(u.happened),
      });
    }
  }
  return { asked, rows };
}
