import { maskedPlan, placeholderKey } from '../design/blinding';
import { entryKinds } from '../log/kinds';
import { type Trial, emptyReview } from '../log/trial';

/**
 * A blind trial for whoever scores it: treatments by their codes alone, without products, doses, prediction, review
 * or the lines that tell what is in a bottle. Ids stay, so that what is scored in it can be taken back into the
 * trial it came from.
 *
 * @example scorersCopy(trial).plan.treatments[0].name // 'Code A'
 */
export function scorersCopy(trial: Trial): Trial {
  const { plan } = trial;
  const key = trial.key ?? placeholderKey(plan);
  const masked = maskedPlan(plan, key);
  const log = trial.log.filter((e) => e.kind === 'correction' || !entryKinds[e.kind].tells(e));
  const kept = new Set<string>(log.map((e) => e.id));
  return {
    plan: {
      ...masked,
      prediction: '',
      winning: '',
      finishingRule: plan.finishingRule,
      alsoAsked: '',
      accepted: [],
      mixing: { ...plan.mixing, exchange: [] },
      // Codes are held against each other: which one is the control would tell.
      peers: true,
      namesLeftOut: true,
    },
    // A correction of a line that isn't here would say the same.
    log: log.filter(
      (e) =>
        e.kind !== 'correction' ||
        (kept.has(e.supersedes) && !(e.replacement && entryKinds[e.replacement.kind].tells(e.replacement))),
    ),
    review: emptyReview,
    key: { order: masked.treatments.map((t) => t.id) },
    sealedAs: null,
    conflicts: [],
  };
}
