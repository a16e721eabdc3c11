import { audit, openFindings } from '~core/fairness/audit';
import { localDay } from '~core/log/localDay';
import { verifySeal } from '~core/log/verifySeal';
import { dayOfDate } from '~core/plan/days';
import { missingForSeal } from '~core/plan/seal';
import { saidBy } from '../../form/schemaFields';
import { loadTrial } from '../../store/trials';
import { undoDepth } from '../../store/undo';
import { announce } from '../../ui/announce';
import { plainAuditInput } from '../auditOf';
import type { RoomArgs } from '../roomArgs';
import { layoutAction } from './layoutActions';

export async function loadLayout({ params }: RoomArgs) {
  const trial = await loadTrial(params.trialId);
  const { row, state, shown, blind } = trial;
  return {
    id: row.id,
    /** under codes while the trial is blind */
    plan: shown.plan,
    /** with the plan as it is shown */
    state: { ...state, plan: shown.plan },
    blind,
    revealed: state.revealed,
    keyMissing: trial.keyMissing,
    planRev: trial.planRev,
    lateDays: state.seal ? dayOfDate(row.plan.startDate, localDay(state.seal)) : 0,
    sealCheck: verifySeal(row.plan, state.seal, row.sealedAs),
    positions: state.positions,
    seal: state.seal,
    canBreakSeal: state.observations.length === 0,
    undoable: state.seal ? 0 : await undoDepth(row.id),
    missing: missingForSeal(row.plan),
    openFindings: openFindings(audit(plainAuditInput(trial))).length,
    turnsDone: [...state.tasksDone.keys()].filter((t) => t.startsWith('turn ')),
  };
}
export type LayoutData = Awaited<ReturnType<typeof loadLayout>>;

/** Forms with fields of their own show their messages there; all else answers by a notice. */
const formIntents = new Set(['', 'areas', 'design']);

export async function layoutRoomAction({ params, request }: RoomArgs) {
  const data: unknown = await request.json();
  const result = await layoutAction(params.trialId, data);
  const intent = typeof data === 'object' && data !== null && 'intent' in data ? String(data.intent) : '';
  const text = saidBy(result);
  if (!formIntents.has(intent) && text) announce(text);
  return result;
}
