import type { RoundId, TraitId } from '../../model/ids';
import { newId } from '../../model/newId';
import type { Plan, Trait, Treatment } from '../../model/plan';
import { winningBy } from '../../plan/winning';
import { protocolOf } from '.';
import { tasksOf } from './tasks';
import { type Protocol, type ProtocolTrait, finishingRuleFor, plantsIn } from './protocol';

function traitOf(t: ProtocolTrait): Trait {
  return {
    id: newId<TraitId>(),
    name: t.name,
    unit: t.unit,
    kind: t.kind,
    direction: t.direction,
    bandLow: t.band?.[0] ?? null,
    bandHigh: t.band?.[1] ?? null,
    decimals: t.decimals,
    plausibleLow: t.kind === 'text' ? null : 0,
    plausibleHigh: t.kind === 'ratio' ? (t.outOf ?? null) : null,
    samplesPerUnit: t.samples,
    summary: t.summary,
    outOf: t.outOf ?? null,
    scale: t.scale ?? [],
    ...(t.role && { role: t.role }),
  };
}

/** A text in the reviewer's own words: what the kind of trial before had filled in goes with it. */
const written = (text: string, filled: string | undefined): string => (text === filled ? '' : text);

/** How many plants a unit has, where nobody said otherwise. */
const withPlants = (t: Treatment, plants: number | null, filled: number | null): Treatment =>
  t.conditions.plantsPerUnit === null || t.conditions.plantsPerUnit === filled
    ? { ...t, conditions: { ...t.conditions, plantsPerUnit: plants } }
    : t;

/**
 * Fills a plan from a protocol: unit, traits, rounds, finishing rule, what counts as winning, and the usual
 * spread. Question, prediction, contenders and layout stay as they are, but for how many
 * plants a unit has; what was written in the finishing
 * rule or as winning is kept.
 *
 * @example applyProtocol(blankPlan(…), protocolOf('cuttings')!).traits[0].outOf // 5
 */
export function applyProtocol(plan: Plan, protocol: Protocol): Plan {
  const traits = new Map(protocol.traits.map((t) => [t.key, traitOf(t)]));
  const [first] = protocol.traits;
  const before = protocolOf(plan.protocolId);
  const filled: Plan = {
    ...plan,
    protocolId: protocol.id,
    unitNoun: protocol.unitNoun,
    wholeSystem: protocol.wholeSystem,
    traits: [...traits.values()],
    primaryTraitId: first ? traits.get(first.key)!.id : null,
    rounds: protocol.rounds.map((r) => ({
      id: newId<RoundId>(),
      name: r.name,
      day: r.day,
      traitIds: r.traits.map((key) => traits.get(key)!.id),
    })),
    finishingRule:
      written(plan.finishingRule, before ? finishingRuleFor(before, plan.rounds) : undefined) ||
      protocol.finishingRule,
    cvPercent: protocol.cvPercent,
    tasks: tasksOf(protocol.id),
    treatments: plan.treatments.map((t) => withPlants(t, plantsIn(protocol), before && plantsIn(before))),
  };
  return { ...filled, winning: written(plan.winning, winningBy(plan)) || winningBy(filled) };
}
