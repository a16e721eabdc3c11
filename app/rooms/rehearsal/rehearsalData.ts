import { command, done, toAction } from '../../form/command';
import { z } from 'zod';
import type { TrialState } from '~core/log/state';
import { countedFrom } from '~core/plan/control';
import { stageOf } from '~core/schedule/rounds';
import { protocolOf } from '~core/schedule/protocols';
import { todayDate } from '../../ui/clock';
import { perTrial } from '../../store/perTrial';
import { rehearsal } from '~core/log/kinds/rehearsal';
import { keptRehearsal } from './room';
import { appendEntries, loadTrial, savePlan } from '../../store/trials';
import { planIndex } from '~core/plan/planIndex';
import { findingInput } from '~core/account/findingInput';
import { findings } from '../../workers/findings';
import type { RoomArgs } from '../roomArgs';

/** A spread that can be reckoned with, and where it is from. */
export interface Spread {
  label: string;
  cvPercent: number;
}

/** Spreads seen in the bench's own finished trials: √ of the residual mean square over the grand mean. */
async function ownSpreads(currentId: string): Promise<Spread[]> {
  const earlier = await spreads(todayDate());
  return earlier.flatMap(({ id, spread }) => (spread && id !== currentId ? [spread] : []));
}

const spreads = perTrial(async ({ row, state }, today) => ({
  id: row.id,
  spread: stageOf(state, today) === 'finished' ? await spreadOf(state) : null,
}));

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
    kept: keptRehearsal(state),
    ready: row.plan.treatments.length >= 2 && countedFrom(row.plan) !== null,
  };
}
export type RehearsalData = Awaited<ReturnType<typeof loadRehearsal>>;

export const rehearsalAction = toAction({
  cv: command(z.object({ cvPercent: z.number().positive().max(200) }), async (trialId, { cvPercent }) =>
    done(await savePlan(trialId, (plan) => ({ ...plan, cvPercent })), 'The spread stands in the plan.'),
  ),
  keep: command(rehearsal.body.omit({ kind: true }), async (trialId, found) =>
    done(
      await appendEntries(trialId, [{ kind: 'rehearsal', ...found }]),
      'The rehearsal is kept; the log has it.',
    ),
  ),
});
