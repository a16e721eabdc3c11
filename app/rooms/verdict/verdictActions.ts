import { redirect } from 'react-router';
import { z } from 'zod';
import type { TrialId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import { proposeCode } from '~core/plan/proposeCode';
import { freeCode } from '~core/plan/copy';
import { retestOf } from '~core/plan/retest';
import { todayDate } from '../../ui/clock';
import { createTrial, listPlans, loadTrial } from '../../store/trials';
import { command, saves, toAction } from '../../form/command';
import { sealCommands } from '../seal/sealActions';
import { verdictRecords } from './verdictRecords';

const Learned = z.object({
  cvPercent: z.number().positive().nullable(),
  replicates: z.number().int().nullable(),
});

/** A new trial from this one, with what was learned; opens its Question. */
async function planRetest(trialId: string | undefined, learned: z.output<typeof Learned>) {
  const { row } = await loadTrial(trialId);
  const takenCodes = (await listPlans()).map((p) => p.code as string);
  const id = newId<TrialId>();
  const code = freeCode(row.plan.code, proposeCode(row.plan.crop, row.plan.question, takenCodes), takenCodes);
  await createTrial(retestOf(row.plan, { id, code, startDate: todayDate() }, learned));
  return redirect(`/trial/${id}/question`);
}

const [headings, claims, costs] = verdictRecords;

export const verdictAction = toAction({
  headings: saves('review', headings),
  claims: saves('review', claims),
  costs: saves('review', costs),
  retest: command(Learned, planRetest),
  reveal: sealCommands.reveal,
});
