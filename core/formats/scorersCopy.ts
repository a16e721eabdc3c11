import { maskedPlan, placeholderKey } from '../design/blinding';
import { entryKinds } from '../log/kinds';
import { type BlindKey, type Trial, emptyReview } from '../log/trial';
import type { Plan } from '../model/plan';
import { sha256Of } from '../plan/seal';

/**
 * A blind trial for whoever scores it: treatments by their codes alone, without products, doses, prediction, review
 * or the lines that tell what is in a bottle. What is scored in it can be taken back into the trial it came from; ids that
 * tell when they were made, and so in which order contenders were planned, are others in it (`ofItsTrial` turns them back).
 *
 * @example scorersCopy(trial).plan.treatments[0].name // 'Code A'
 */
export function scorersCopy(trial: Trial): Trial {
  const { plan } = trial;
  const key = trial.key ?? placeholderKey(plan);
  const masked = maskedPlan(plan, key);
  const log = trial.log.filter((e) => e.kind === 'correction' || !entryKinds[e.kind].tells(e));
  const keptIds = new Set<string>(log.map((e) => e.id));
  const copy: Trial = {
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
        (keptIds.has(e.supersedes) &&
          !(e.replacement && entryKinds[e.replacement.kind].tells(e.replacement))),
    ),
    review: emptyReview,
    key: { order: masked.treatments.map((t) => t.id) },
    sealedAs: null,
    conflicts: [],
  };
  return withIds(copy, [...idsInCopy(plan, key)]);
}

/** A UUID of version 7 sorts by the time it was made: contenders had such ids once. */
const madeByTime = /^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[0-9a-f]{4}-[0-9a-f]{12}$/;

/** What contenders of older trials are called in a copy: drawn from the codes, the same each time, and telling nothing. */
const idsInCopy = ({ treatments }: Plan, { order }: BlindKey): Map<string, string> =>
  new Map(
    treatments
      .filter((t) => madeByTime.test(t.id))
      .map(({ id }) => {
        const hex = sha256Of([id, order]);
        return [
          id,
          `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`,
        ];
      }),
  );

function withIds(trial: Trial, pairs: readonly (readonly [from: string, to: string])[]): Trial {
  if (pairs.length === 0) return trial;
  let text = JSON.stringify(trial);
  for (const [from, to] of pairs) text = text.replaceAll(from, to);
  return JSON.parse(text) as Trial;
}

/**
 * A scorer's copy with the ids of the trial it was made from.
 * @param plan of that trial, with its codes
 */
export const ofItsTrial = (copy: Trial, plan: Plan, key: BlindKey | null): Trial =>
  key === null
    ? copy
    : withIds(
        copy,
        [...idsInCopy(plan, key)].map(([real, coded]) => [coded, real] as const),
      );
