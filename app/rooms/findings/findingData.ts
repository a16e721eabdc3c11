import { responseOf } from '~core/log/response';
import type { Observation } from '~core/log/observation';
import type { TrialState } from '~core/log/state';
import type { ReviewText } from '~core/log/trial';
import { type FigureRegion, figuresNow } from '~core/quantity/region';
import type { RoundId } from '~core/model/ids';
import type { Plan, Trait } from '~core/model/plan';
import { planIndex } from '~core/plan/planIndex';
import { describeComparisonError } from '~core/stats/comparison';
import { seedlingFigures } from '~core/analysis/seedlings';
import type { Result } from '~core/model/result';
import { kindOf } from '~core/model/plan';
import { doseLadders, doseTrend, sayDoseTrend } from '~core/looks/doseTrend';
import type { Finding, FindingError, FindingInput } from '~core/account/finding';
import { endedEarlier, findingInput } from '~core/account/findingInput';
import { findingValuesTable } from '~core/formats/findingValuesTable';
import { rLines } from '~core/formats/rScript/rScript';
import { todayDate } from '../../ui/clock';
import { claimedRounds } from '~core/verdict/claims';
import { overTime } from '~core/looks/overTime';
import { otherwiseIn } from '~core/log/otherwise';
import { sayOpenRound } from '~core/say/words';
import type { NameOf } from '~core/model/nameOf';
import { loadTrial } from '../../store/trials';
import { findings, looksAt } from '../../workers/findings';

/** What a treatment is called in sentences. */
export const nameIn =
  (plan: Plan): NameOf =>
  (id) =>
    planIndex(plan).treatment(id)?.name ?? id;

/** Lanes of a chart: contenders in the plan's order, so that a tile is always in the same place. */
export const lanesOf = (plan: Plan) =>
  plan.treatments.map((t, index) => ({ id: t.id as string, name: t.name, index }));

/** Why there is no finding, and what to do. */
export function describeFindingError(e: FindingError, plan: Plan): string {
  const name = nameIn(plan);
  switch (e.tag) {
    case 'noControl':
      return 'There is no control to compare with; set a role in Contenders.';
    case 'noValues':
      return 'Nothing has been measured for this trait yet.';
    case 'words':
      return 'Words are read, not compared.';
    case 'unfinished':
      return `No pick is finished yet, so there is no sum that means the same for all. ${e.open.map((o) => sayOpenRound(o, plan.unitNoun)).join(' ')} Where nothing was ripe, enter 0.`;
    case 'notForThis':
      return `This kind of value isn’t compared by ${e.method}.`;
    case 'oneTreatment':
      return `Only ${name(e.treatment)} has values so far; a comparison needs two.`;
    case 'unknownControl':
      return 'The control has no values yet: nothing can be compared with it.';
    case 'disconnected':
      return `${name(e.a)} and ${name(e.b)} have no block in common yet, so they can’t be compared.`;
    default:
      return describeComparisonError(e);
  }
}

/** What was written for a trait taken in words, unit by unit. */
export function wordsOf(state: TrialState, trait: Trait) {
  return state.plan.units.flatMap((u) =>
    responseOf(state, u.id, trait).visits.flatMap((v) =>
      v.samples.flatMap(({ observed: o }) =>
        o.type === 'words'
          ? [{ unit: u, round: planIndex(state.plan).round(v.roundId ?? '')?.name ?? '', text: o.text }]
          : [],
      ),
    ),
  );
}

interface Asked {
  traitId: string | null;
  roundId: string | null;
  withExcluded: boolean;
  /** what was lost to pests counts as yield */
  withLosses: boolean;
  /** borderline cases count */
  withBorderline: boolean;
  /** what isn't true to type doesn't count */
  withoutOffTypes: boolean;
  /** crop within the units, from 0 */
  crop: number | null;
  method: string | null;
  /** of k of n counted day by day: the days in place of the share */
  as: string | null;
}

/** Finding of one trait, worked out in the worker; the primary trait where none is named. */
export async function oneFinding(trialId: string | undefined, asked: Asked) {
  const { state, shown, blind } = await loadTrial(trialId);
  // Worked out on the true plan; what is shown goes by codes while the trial is blind.
  const { plan } = shown;
  const base = { plan, blind, hasExclusions: state.exclusions.length > 0, sealed: state.seal !== null };
  const of = planIndex(plan);
  const trait = of.trait(asked.traitId ?? '') ?? of.trait(plan.primaryTraitId ?? '') ?? plan.traits[0];
  if (!trait) {
    return {
      ...base,
      ...{ hasBorderline: false, hasOffTypes: false, trait: null, result: null, words: [] },
      ...{
        others: [],
        looks: null,
        factorials: [],
        time: null,
        ladders: [] as string[],
        r: '',
        happened: {} as Record<string, string[]>,
      },
    };
  }
  const options = {
    withExcluded: asked.withExcluded,
    withLosses: asked.withLosses,
    withBorderline: asked.withBorderline,
    withoutOffTypes: asked.withoutOffTypes,
    roundId: (asked.roundId as RoundId | null) ?? null,
    crop: asked.crop,
    today: todayDate(),
    method: asked.method,
    as: seedlingFigures.find((f) => f === asked.as && kindOf(trait).observes === 'kOfN') ?? null,
  };
  const input = findingInput(state, trait, options);
  const earlier = endedEarlier(state, trait, options);
  const all = plan.traits.map((t) => findingInput(state, t, { today: todayDate() }));
  const [[result, ...others], looked] = await Promise.all([
    findings([input, ...all]),
    looksAt(earlier ? { ...input, earlier } : input),
  ]);
  const some = (is: (o: Observation) => boolean) =>
    state.observations.some((o) => o.traitId === trait.id && is(o));
  return {
    ...base,
    hasBorderline: some((o) => (o.borderline ?? 0) > 0),
    hasOffTypes: some((o) => (o.offType ?? 0) > 0),
    trait,
    result: result!,
    others: others.flatMap((r) => (r.ok ? [r.value] : [])),
    looks: blind ? null : (looked?.looks ?? null),
    factorials: blind ? [] : (looked?.factorials ?? []),
    ladders: blind ? [] : ladders(plan, input, result),
    time: overTime(state, trait),
    r: blind ? '' : rOf(plan, input),
    happened: blind ? {} : happenedTo(state),
    words: wordsOf(state, trait),
  };
}

/** What more of a product did, in sentences. */
function ladders(
  plan: Plan,
  input: FindingInput,
  result: Result<Finding, FindingError> | undefined,
): string[] {
  if (!result?.ok) return [];
  return doseLadders(plan).flatMap((ladder) => {
    const trend = doseTrend(input, result.value, ladder);
    return trend ? [sayDoseTrend(trend, result.value)] : [];
  });
}

/** The R lines of one finding, its values in them. */
export function rOf(plan: Plan, input: FindingInput): string {
  const nameOf = nameIn(plan);
  const named = { trait: input.trait.name, round: input.roundName, crop: input.crop, input };
  const { csv } = findingValuesTable({ inputs: [named], nameOf });
  return rLines(plan.question, named, { order: input.order, nameOf }, csv);
}

/** What the log says happened to each unit, in words. */
const happenedTo = (state: TrialState): Record<string, string[]> =>
  Object.fromEntries(
    state.plan.units.map((u) => [
      u.id as string,
      otherwiseIn(state).flatMap((t) => (t.units.includes(u.id) ? [t.text] : [])),
    ]),
  );

/** Findings of all traits that have values, the primary first. */
export async function allFindings(
  trialId: string | undefined,
  figuresOf: (review: ReviewText) => FigureRegion = figuresNow,
) {
  const trial = await loadTrial(trialId);
  const { row, state, blind } = trial;
  const { plan } = state;
  const order = [...plan.traits].sort(
    (a, b) => Number(b.id === plan.primaryTraitId) - Number(a.id === plan.primaryTraitId),
  );
  const rounds = claimedRounds(plan, row.review.claims ?? []);
  const figures = figuresOf(row.review);
  const [results, atRounds] = await Promise.all([
    findings(
      order.map((t) => findingInput(state, t, { today: todayDate() })),
      figures,
    ),
    findings(
      rounds.map(({ trait: t, roundId }) => findingInput(state, t, { roundId, today: todayDate() })),
      figures,
    ),
  ]);
  const found = results.flatMap((r) => (r.ok ? [r.value] : []));
  const primary = results[0]?.ok && plan.primaryTraitId ? results[0].value : null;
  return {
    plan,
    state,
    blind,
    trial,
    review: row.review,
    findings: found,
    dated: atRounds.flatMap((r) => (r.ok ? [r.value] : [])),
    primary,
    problem: results[0] && !results[0].ok ? results[0].error : null,
  };
}
