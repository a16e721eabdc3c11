import { LABELS_TASK } from '~core/schedule/tasks';
import { ofKind } from '~core/log/state';
import { runningInput } from '~core/fairness/runningInput';
import type { AuditInput } from '~core/fairness/rule';
import { recorder } from '../store/bench';
import type { LoadedTrial } from '../store/trials';

/** What the fairness audit looks at, of a trial as it stands. */
export async function auditInputOf({ row, state }: LoadedTrial): Promise<AuditInput> {
  return { ...plainAuditInput({ row, state }), me: await recorder() };
}

/** As `auditInputOf`, for where it doesn't matter who is asking. */
export function plainAuditInput({ row, state }: Pick<LoadedTrial, 'row' | 'state'>): AuditInput {
  // A bottle as it was mixed says how strong the feed is; what stands in a unit has drifted since.
  const [bottles, units] = [new Map<string, number>(), new Map<string, number>()];
  for (const { body } of ofKind(state, 'reading')) {
    if (body.quantity === 'ec' && body.treatmentId) {
      (body.unitId === null ? bottles : units).set(body.treatmentId, body.value);
    }
  }
  const ecByTreatment = new Map([...units, ...bottles]);
  return {
    plan: row.plan,
    labelsPrinted: state.tasksDone.has(LABELS_TASK),
    disclosure: row.review.disclosure,
    me: '',
    ecByTreatment,
    ...runningInput(state),
  };
}
