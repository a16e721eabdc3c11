import { auditInput } from '~core/fairness/auditInput';
import type { AuditInput } from '~core/fairness/rule';
import { recorder } from '../store/bench';
import type { LoadedTrial } from '../store/trials';

/** What the fairness audit looks at, of a trial as it stands. */
export const auditInputOf = async ({ row, state }: LoadedTrial): Promise<AuditInput> =>
  auditInput(row, state, await recorder());

/** As `auditInputOf`, for where it doesn't matter who is asking. */
export const plainAuditInput = ({ row, state }: Pick<LoadedTrial, 'row' | 'state'>): AuditInput =>
  auditInput(row, state);
