import { plural } from '../quantity/format';
import { exclusionReason, traitScore, unitValue } from '../log/unitValues';
import { type TrialState, observationsOf } from '../log/state';
import type { RoundId, TreatmentId, UnitId } from '../model/ids';
import { type Trait, controlOf } from '../model/plan';
import type { Comparison, ComparisonError, ComparisonRow } from '../stats/comparison';
import { compareTreatments } from '../stats/compareTreatments';
import { type Result, err, ok } from '../model/result';
import { type PairOutcome, pairOutcome, rankTreatments, type RankedTreatment } from './rank';

/** A unit's value as it stands in a finding. */
export interface FindingUnit {
  unitId: UnitId;
  code: string;
  treatmentId: TreatmentId;
  block: number | null;
  /** column of a Latin square */
  column: number | null;
  value: number;
}

/** A unit that isn't in a finding, and why. */
export interface LeftOut {
  unitId: UnitId;
  code: string;
  treatmentId: TreatmentId;
  /** its value when there is one */
  value: number | null;
  reason: string;
}

/** The answer for one trait, with everything it was made from. Plain data: it crosses to and from a worker. */
export interface Finding {
  trait: Trait;
  roundId: RoundId | null;
  roundName: string | null;
  /** the crop within the units that alone was looked at; null: all of them */
  crop: string | null;
  /** comparison of treatments by their ids; for a wanted band, of the distance outside it */
  comparison: Comparison;
  units: FindingUnit[];
  leftOut: LeftOut[];
  /** smallest difference that matters, in the trait's unit; null for traits that have none set */
  smallestDifference: number | null;
  pairs: PairOutcome[];
  ranking: RankedTreatment[];
  /** units per treatment that would make the widest pair interval as narrow as ± the smallest difference */
  replicatesToSee: number | null;
  warnings: string[];
}

export type FindingError = ComparisonError | { tag: 'noControl' } | { tag: 'noValues' };

export interface FindingOptions {
  alpha?: number;
  /** one round alone; default: the trait's own summary over all rounds */
  roundId?: RoundId;
  /** one crop within the units alone, counted from 0 */
  crop?: number;
  /** keep units that were excluded, to see whether the finding stands without the exclusion */
  withExcluded?: boolean;
}

/**
 * Works out the finding for one trait from the state of a trial: the samples of every unit averaged, the
 * treatments compared on units, the ranking and what is too close to call.
 */
export function makeFinding(
  state: TrialState,
  trait: Trait,
  options: FindingOptions = {},
): Result<Finding, FindingError> {
  const { plan } = state;
  const control = controlOf(plan);
  if (!control) return err({ tag: 'noControl' });
  if (trait.kind === 'text') return err({ tag: 'noValues' });

  const units: FindingUnit[] = [];
  const leftOut: LeftOut[] = [];
  for (const u of plan.units) {
    const value = unitValue(state, u.id, trait, options.roundId, options.crop);
    const base = { unitId: u.id, code: u.code, treatmentId: u.treatmentId };
    const excluded = options.withExcluded ? null : exclusionReason(state, u.id, trait.id);
    const death = state.deaths.get(u.id);
    if (excluded) leftOut.push({ ...base, value, reason: excluded });
    else if (value !== null) units.push({ ...base, block: u.block, column: u.columnBlock, value });
    else
      leftOut.push({
        ...base,
        value,
        reason: death ? `died: ${death.cause || 'no cause given'}` : 'not measured',
      });
  }
  if (units.length === 0) return err({ tag: 'noValues' });

  const blocked = units.every((u) => u.block !== null);
  const inColumns = blocked && units.every((u) => u.column !== null);
  const rows = units.map((u): ComparisonRow => ({
    treatment: u.treatmentId,
    unit: u.unitId,
    value: traitScore(trait, u.value),
    ...(blocked && { block: String(u.block) }),
    ...(inColumns && { column: String(u.column) }),
  }));
  const compared = compareTreatments({
    rows,
    control: control.id,
    alpha: options.alpha ?? 0.05,
    order: plan.treatments.map((t) => t.id),
  });
  if (!compared.ok) return compared;
  const comparison = compared.value;
  const smallestDifference = differenceThatMatters(state, trait, comparison);
  const higherIsBetter = trait.direction === 'higher';
  const pairs = comparison.pairs.map((p) => pairOutcome(p, smallestDifference, higherIsBetter));
  return ok({
    trait,
    roundId: options.roundId ?? null,
    roundName: plan.rounds.find((r) => r.id === options.roundId)?.name ?? null,
    crop: options.crop === undefined ? null : (plan.cropsWithin[options.crop] ?? null),
    comparison,
    units,
    leftOut,
    smallestDifference,
    pairs,
    ranking: rankTreatments(comparison, pairs, higherIsBetter),
    replicatesToSee: replicatesToSee(comparison, smallestDifference),
    warnings: warningsOf(state, trait, comparison, leftOut, options),
  });
}

/** Kinds of trait whose own tests aren't built yet, and what is done instead. */
const treatedAsNumbers: Partial<Record<Trait['kind'], string>> = {
  score: `Scores are compared as numbers, by the mean of each unit; a test for ordered scores isn’t built yet.`,
  ratio: 'Per cents of units are compared by their means; an exact test for k of n isn’t built yet.',
  time: 'Days are compared by their means; a test for times to an event isn’t built yet.',
  yesno: 'Yes is 1 and no is 0, compared by the mean; an exact test isn’t built yet.',
};

/** The plan's smallest difference holds for the primary trait; as a per cent it also serves the others. */
function differenceThatMatters(state: TrialState, trait: Trait, c: Comparison): number | null {
  const d = state.plan.smallestDifference;
  if (!d) return null;
  if (d.kind === 'absolute') return trait.id === state.plan.primaryTraitId ? d.value : null;
  if (trait.direction === 'band') return null;
  const control = c.treatments.find((t) => t.name === c.control)!;
  const size = Math.abs(control.adjustedMean) * (d.value / 100);
  return size > 0 ? size : null;
}

/** Intervals shrink with the square root of the units; the search stops at 200 units per treatment. */
function replicatesToSee(c: Comparison, difference: number | null): number | null {
  if (!c.anova || difference === null) return null;
  const widest = Math.max(...c.pairs.map((p) => (p.high! - p.low!) / 2));
  if (widest <= difference) return null;
  const n = c.treatments.reduce((s, t) => s + 1 / t.n, 0) / c.treatments.length;
  const wanted = Math.ceil((widest / difference) ** 2 / n);
  return wanted <= 200 ? wanted : null;
}

function warningsOf(
  state: TrialState,
  trait: Trait,
  c: Comparison,
  leftOut: readonly LeftOut[],
  options: FindingOptions,
): string[] {
  const warnings: string[] = [];
  const noun = state.plan.unitNoun;
  if (!c.anova)
    warnings.push(`No spread can be worked out from one ${noun} per treatment: numbers, no winner.`);
  else {
    if (c.anova.residualMeanSquare === 0) {
      warnings.push(`All ${plural(noun)} of a treatment have the same value. Were they measured one by one?`);
    }
    if (c.anova.dfResidual < 12) {
      warnings.push(
        `${c.anova.dfResidual} residual degrees of freedom; 12 or more are wanted (EPPO PP 1/152, from memory).`,
      );
    }
  }
  const asNumbers = treatedAsNumbers[trait.kind];
  if (asNumbers) warnings.push(asNumbers);
  if (state.observations.some((o) => o.traitId === trait.id && o.notYet)) {
    warnings.push('In some it hadn’t happened when last looked at: their day is taken as it stands.');
  }
  const unmeasured = leftOut.filter((u) => u.reason === 'not measured').length;
  if (unmeasured > 0)
    warnings.push(`${unmeasured} ${unmeasured > 1 ? plural(noun) : noun} not measured yet.`);
  if (trait.summary === 'last' && options.roundId === undefined) {
    const lastDay = (unitId: UnitId) => observationsOf(state, unitId, trait.id).at(-1)?.roundId ?? null;
    const measured = state.plan.units.filter((u) => !leftOut.some((l) => l.unitId === u.id));
    if (new Set(measured.map((u) => lastDay(u.id))).size > 1) {
      warnings.push(
        `Not every ${noun} was measured in the last round: values of different ages are compared.`,
      );
    }
  }
  return warnings;
}
