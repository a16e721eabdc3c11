import { z } from 'zod';
import { keyFits } from '~core/design/blinding';
import { canBreakSeal } from '~core/log/state';
import { blindings } from '~core/model/plan';
import { ok } from '~core/model/result';
import { missingForSeal } from '~core/plan/seal';
import { type Answer, command, done } from '../../form/command';
import { type Refused, refuse } from '../../form/recordForm';
import { takenBack } from '../../store/change';
import { appendEntries, loadTrial, savePlan, sealPlan } from '../../store/trials';

const BlindForm = z.object({ intent: z.literal('blinding'), blinding: z.enum(blindings) });
const SealForm = z.object({ intent: z.literal('seal'), seenPlanRev: z.number().int() });
const Simple = z.object({ intent: z.enum(['breakSeal', 'reveal']) });

/** Seals the plan as it was looked at: what is missing is asked of the plan in the database. */
async function seal(
  trialId: string | undefined,
  { seenPlanRev }: z.output<typeof SealForm>,
): Promise<Answer> {
  const { row, key } = await loadTrial(trialId);
  const missing = missingForSeal(row.plan);
  if (missing.length > 0) return refuse('seal', `Still missing: ${missing.map((m) => m.what).join('; ')}.`);
  if (row.plan.blinding !== 'open' && !(key && keyFits(key, row.plan))) {
    return refuse('seal', 'The codes don’t fit the contenders; save the blinding again.');
  }
  const sealed = await sealPlan(trialId, seenPlanRev);
  return done(sealed, 'The plan is sealed.');
}

async function breakSeal(trialId: string | undefined): Promise<Answer> {
  const broken = await appendEntries<Refused>(trialId, ({ state }) => {
    if (!state.seal) return refuse('seal', 'There is no seal.');
    if (!canBreakSeal(state)) {
      return refuse('seal', 'Values are logged already: the seal stays, and changes go to the log.');
    }
    return ok([takenBack(state.seal.entryId, 'seal broken before the first value')]);
  });
  return done(broken, 'The seal is broken; the log keeps both.');
}

/** Opens the codes: a log entry with the time, which can't be taken back. */
async function reveal(trialId: string | undefined): Promise<Answer> {
  const opened = await appendEntries<Refused>(trialId, ({ state, blind, keyMissing }) => {
    if (!blind) return ok([]);
    if (!state.seal) return refuse('reveal', 'Codes are opened after the seal.');
    if (keyMissing) {
      return refuse('reveal', 'The key isn’t on this bench: import the file that holds it first.');
    }
    return ok([{ kind: 'reveal' as const, reason: '' }]);
  });
  return done(opened, (lines) =>
    lines.length > 0 ? 'The codes are open; the log has the time.' : 'The codes are open.',
  );
}

/** Sealing a plan and its codes, and opening them. */
export const sealCommands = {
  blinding: command(BlindForm, async (trialId, { blinding }) =>
    done(
      await savePlan(trialId, (plan) => ({ ...plan, blinding })),
      blinding === 'open' ? 'Names are shown.' : 'Codes are dealt; names are hidden from now on.',
    ),
  ),
  seal: command(SealForm, seal),
  breakSeal: command(Simple, breakSeal),
  reveal: command(Simple, reveal),
};
