import { z } from 'zod';
import type { TrialState } from '~core/log/state';
import { countedFrom } from '~core/plan/control';
import { stageOf } from '~core/schedule/rounds';
import { protocolOf } from '~core/schedule/protocols';
import { todayDate } from '../../bench/clock';
import { type ActionResult, fieldErrors } from '../../form/schemaFields';
import { listTrials, loadTrial, savePlan } from '../../store/trials';
import { announce } from '../../ui/announce';
import { planIndex } from '~core/plan/planIndex';
import { findingInput } from '~core/account/findingInput';
import { findings } from '../../workers/findings';
import type { RoomArgs } from '../roomArgs';
import { sentIn } from '../../form/handedOver';

/** A spread that can be reckoned with, and where it is from. */
export interface Spread {
  label: string;
  cvPercent: number;
}

/** Spreads seen in the bench's own finished trials: √ of the residual mean square over the grand mean. */
async function ownSpreads(currentId: string): Promise<Spread[]> {
  const today = todayDate();
  const others = (await listTrials()).filter(
    (t) => t.row.id !== currentId && stageOf(t.state, today) === 'finished',
  );
  const found = await Promise.all(others.map((t) => spreadOf(t.state)));
  return found.flatMap((s) => (s ? [s] : []));
}

async function spreadOf(state: TrialState): Promise<Spread | null> {
  const { plan } = state;
  const trait = plan.primaryTraitId ? planIndex(plan).trait(plan.primaryTraitId) : undefined;
  if (!trait || trait.direction === 'band') return null;
  const [result] = await findings([findingInput(state, trait)]);
  if (!result?.ok || result.value.analysis.unitSd === null) return null;
  const { summaries, unitSd } = result.value.analysis;
  const mean = summaries.reduce((s, t) => s + t.mean, 0) / summaries.length;
  const cvPercent = Number(((100 * unitSd) / mean).toPrecision(3));
  return cvPercent > 0
    ? { label: `${trait.name.toLowerCase()} of ${plan.crop || plan.code}, own trial ${plan.code}`, cvPercent }
    : null;
}

export async function loadRehearsal({ params }: RoomArgs) {
  const { row, state } = await loadTrial(params.trialId);
  const protocol = protocolOf(row.plan.protocolId);
  const spreads: Spread[] = [
    ...(row.plan.cvPercent ? [{ label: 'as the plan says', cvPercent: row.plan.cvPercent }] : []),
    ...(protocol
      ? [{ label: 'usual for this kind of trial (practice)', cvPercent: protocol.cvPercent }]
      : []),
    ...(await ownSpreads(row.id)),
  ];
  return {
    id: row.id,
    plan: row.plan,
    sealed: state.seal !== null,
    spreads: spreads.filter((s, i) => spreads.findIndex((o) => o.cvPercent === s.cvPercent) === i),
    ready: row.plan.treatments.length >= 2 && countedFrom(row.plan) !== null,
  };
}
export type RehearsalData = Awaited<ReturnType<typeof loadRehearsal>>;

const SpreadAct = z.object({ intent: z.literal('cv'), cvPercent: z.number().positive().max(200) });

export async function rehearsalAction({ params, request }: RoomArgs): Promise<ActionResult> {
  const parsed = SpreadAct.safeParse(await sentIn(request));
  if (!parsed.success) return { errors: fieldErrors(parsed.error) };
  const { cvPercent } = parsed.data;
  const saved = await savePlan(params.trialId, (plan) => ({ ...plan, cvPercent }));
  announce(saved.ok ? 'The spread stands in the plan.' : 'The plan is sealed.');
  return saved.ok ? { saved: true } : { errors: { cvPercent: 'The plan is sealed.' } };
}
