import { type TrialState, ofKind } from '../log/state';
import type { Trial } from '../log/trial';
import { LABELS_TASK } from '../schedule/tasks';
import type { AuditInput } from './rule';
import { runningInput } from './runningInput';

/**
 * What the fairness audit looks at, of a trial as it stands.
 * @param me who is asking; left out where it doesn't matter
 */
export function auditInput(
  { plan, review }: Pick<Trial, 'plan' | 'review'>,
  state: TrialState,
  me = '',
): AuditInput {
  // A bottle as it was mixed says how strong the feed is; what stands in a unit has drifted since.
  const [bottles, units] = [new Map<string, number>(), new Map<string, number>()];
  for (const { body } of ofKind(state, 'reading')) {
    if (body.quantity === 'ec' && body.treatmentId) {
      (body.unitId === null ? bottles : units).set(body.treatmentId, body.value);
    }
  }
  return {
    plan,
    labelsPrinted: state.tasksDone.has(LABELS_TASK),
    disclosure: review.disclosure,
    me,
    ecByTreatment: new Map([...units, ...bottles]),
    ...runningInput(state),
  };
}
