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
export function askedFindings(inputs: readonly NamedInput[], chosen: string | null = null): Asked[] {
  return scripted(inputs, chosen).map(({ named: { trait, round, crop, input }, method, base }, i) => ({
    ...{ finding: i + 1, trait, round, crop, method: method.id },
    control: input.order.indexOf(base.base) + 1,
    peers: base.peers,
    alpha: input.alpha,
    least: leastVariance(input.rows, input.trait),
    ranked: kindOf(input.trait).observes === 'rank',
  }));
}

/** What each unit goes into them with, a row each. */
export function findingValues(inputs: readonly NamedInput[], nameOf: (id: string) => string): ValueRow[] {
  return scripted(inputs).flatMap(({ named: { trait, round, crop, input } }, i) =>
    // Written out: spreading objects here took a hundred times as long on a trial of 100,000 values.
    unitTable(input.rows, input.trait).map((u, row) => ({
      finding: i + 1,
      trait,
      round,
      crop,
      unit: input.rows[row]!.code,
      contender: nameOf(u.treatment),
      arm: input.order.indexOf(u.treatment) + 1,
      block: u.block,
      column: u.column,
      value: Number.isFinite(u.value) ? u.value : null,
      k: u.k,
      n: u.n,
      day: u.day,
      happened: u.happened === null ? null : Number(u.happened),
      count: u.count,
      exposure: u.exposure,
    })),
  );
}

function scripted(inputs: readonly NamedInput[], chosen: string | null = null) {
  return inputs.flatMap((named) => {
    const { input } = named;
    const method = (chosen === null ? undefined : methodOf(chosen)) ?? methodsFor(input.trait)[0];
    const base = input.unfinished ? null : baseOf(input);
    // Where the control is lost nothing is held against it, here as in the findings.
    return method && base !== null && (input.peers || !base.peers) ? [{ named, method, base }] : [];
  });
}
