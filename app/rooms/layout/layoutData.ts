import { canBreakSeal } from '~core/log/state';
import { audit, openFindings } from '~core/fairness/audit';
import { localDay } from '~core/log/localDay';
import { verifySeal } from '~core/log/verifySeal';
import { dayOfDate } from '~core/plan/days';
import { missingForSeal } from '~core/plan/seal';
import type { Plan } from '~core/model/plan';
import { listPlans, loadTrial } from '../../store/trials';
import { undoDepth } from '../../store/undo';
import { plainAuditInput } from '../auditOf';
import type { RoomArgs } from '../roomArgs';

/** Places of other trials, newest first, each set once: a shelf is measured once and used for years. */
async function placesElsewhere(trialId: string): Promise<PlacesElsewhere[]> {
  const sets = (await listPlans())
    .filter((p) => p.id !== trialId && p.areas.length > 0)
    .map((p) => ({ from: p.question, areas: p.areas }));
  const mark = ({ areas }: PlacesElsewhere) =>
    JSON.stringify(
      areas.map(({ name, kind, rows, columns, widthCm, depthCm }) => [
        name,
        kind,
        rows,
        columns,
        widthCm,
        depthCm,
      ]),
    );
  return sets.filter((s, i) => sets.findIndex((o) => mark(o) === mark(s)) === i).slice(0, 30);
}

export interface PlacesElsewhere {
  /** the trial they stand in, by its question */
  from: string;
  areas: Plan['areas'];
}

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
    canBreakSeal: canBreakSeal(state),
    undoable: state.seal ? 0 : await undoDepth(row.id),
    missing: missingForSeal(row.plan),
    openFindings: openFindings(audit(plainAuditInput(trial))).length,
    placesElsewhere: state.seal ? [] : await placesElsewhere(row.id),
    turnsDone: [...state.tasksDone.keys()].filter((t) => t.startsWith('turn ')),
  };
}
export type LayoutData = Awaited<ReturnType<typeof loadLayout>>;
