import type { RoundId, TraitId } from '~core/model/ids';
import type { Plan } from '~core/model/plan';
import { describeComparisonError } from '~core/stats/comparison';
import type { FindingError } from '~core/verdict/finding';
import type { NameOf } from '~core/verdict/words';
import { loadTrial } from '../../store/trials';
import { findings } from '../../workers/findings';

/** What a treatment is called in sentences. */
export const nameIn =
  (plan: Plan): NameOf =>
  (id) =>
    plan.treatments.find((t) => t.id === id)?.name ?? id;

/** Lanes of a chart: contenders in the plan's order, so that a tile is always in the same place. */
export const lanesOf = (plan: Plan) =>
  plan.treatments.map((t, index) => ({ id: t.id as string, name: t.name, index }));

/** Why there is no finding, and what to do. */
export function describeFindingError(e: FindingError, plan: Plan): string {
  if (e.tag === 'noControl') return 'There is no control to compare with; set a role in Contenders.';
  if (e.tag === 'noValues') return 'Nothing has been measured for this trait yet.';
  const name = nameIn(plan);
  if (e.tag === 'oneTreatment') return `Only ${name(e.treatment)} has values so far; a comparison needs two.`;
  if (e.tag === 'unknownControl') return 'The control has no values yet: nothing can be compared with it.';
  if (e.tag === 'disconnected')
    return `${name(e.a)} and ${name(e.b)} have no block in common yet, so they can’t be compared.`;
  return describeComparisonError(e);
}

/** Finding of one trait, worked out in the worker; the primary trait where none is named. */
export async function oneFinding(
  trialId: string | undefined,
  traitId: string | null,
  roundId: string | null,
  withExcluded: boolean,
  crop: number | null = null,
) {
  const { row, log, state, shown, blind } = await loadTrial(trialId);
  // Worked out on the true plan; what is shown goes by codes while the trial is blind.
  const { plan } = shown;
  const base = { plan, state, blind, review: row.review };
  const trait =
    plan.traits.find((t) => t.id === traitId) ??
    plan.traits.find((t) => t.id === plan.primaryTraitId) ??
    plan.traits[0];
  if (!trait) return { ...base, trait: null, result: null };
  const [result] = await findings(row.plan, log, [
    {
      traitId: trait.id,
      withExcluded,
      ...(roundId && { roundId: roundId as RoundId }),
      ...(crop !== null && { crop }),
    },
  ]);
  return { ...base, trait, result: result! };
}

/** Findings of all traits that have values, the primary first. */
export async function allFindings(trialId: string | undefined) {
  const trial = await loadTrial(trialId);
  const { row, log, state, blind } = trial;
  const { plan } = row;
  const order = [...plan.traits].sort(
    (a, b) => Number(b.id === plan.primaryTraitId) - Number(a.id === plan.primaryTraitId),
  );
  const results = await findings(
    plan,
    log,
    order.map((t): { traitId: TraitId } => ({ traitId: t.id })),
  );
  const found = results.flatMap((r) => (r.ok ? [r.value] : []));
  const primary = results[0]?.ok && plan.primaryTraitId ? results[0].value : null;
  return {
    plan,
    state,
    blind,
    trial,
    review: row.review,
    findings: found,
    primary,
    problem: results[0] && !results[0].ok ? results[0].error : null,
  };
}
