import { z } from 'zod';
import { type AuditFinding, cure, openFindings } from '~core/fairness/audit';
import { countWord, sentenceCase } from '~core/quantity/format';
import type { ActionResult } from '../../form/schemaFields';
import { loadTrial, savePlan, saveReview, undoPlan } from '../../store/trials';
import { auditInputOf } from '../auditOf';

/** What the Fairness room sends. */
export const FairnessDeed = z.discriminatedUnion('intent', [
  z.object({ intent: z.literal('cure'), ruleId: z.string(), seed: z.number().int().min(0) }),
  z.object({
    intent: z.literal('accept'),
    ruleId: z.string(),
    reason: z.string().trim().min(1, 'Say why; the review prints it.').max(500),
  }),
  z.object({ intent: z.literal('unaccept'), ruleId: z.string() }),
  z.object({ intent: z.literal('undo') }),
]);

/** Cures a finding, accepts it with a reason, or takes that back. */
export async function fairnessDeed(
  trialId: string | undefined,
  deed: z.output<typeof FairnessDeed>,
): Promise<ActionResult> {
  const trial = await loadTrial(trialId);
  const sealed: ActionResult = {
    errors: { ruleId: 'The plan is sealed; write it into the log or the review.' },
  };
  switch (deed.intent) {
    case 'cure': {
      const cured = cure(await auditInputOf(trial), deed.ruleId, deed.seed);
      if (!cured) return { errors: { ruleId: 'There is nothing to cure any more.' } };
      if (cured.disclosure !== undefined) {
        await saveReview(trialId, { ...trial.row.review, disclosure: cured.disclosure });
        return { saved: true, message: 'The disclosure stands in the review.' };
      }
      const saved = await savePlan(trialId, (plan) => cured.plan ?? plan);
      return saved.ok ? { saved: true, message: 'Cured; Undo takes it back.' } : sealed;
    }
    case 'accept': {
      const { ruleId, reason } = deed;
      const saved = await savePlan(trialId, (plan) => ({
        ...plan,
        accepted: [...plan.accepted.filter((a) => a.ruleId !== ruleId), { ruleId, reason }],
      }));
      return saved.ok ? { saved: true, message: 'Accepted; the review will say so.' } : sealed;
    }
    case 'unaccept': {
      const saved = await savePlan(trialId, (plan) => ({
        ...plan,
        accepted: plan.accepted.filter((a) => a.ruleId !== deed.ruleId),
      }));
      return saved.ok ? { saved: true, message: 'Open again.' } : sealed;
    }
    case 'undo':
      await undoPlan(trialId);
      return { saved: true, message: 'Taken back.' };
  }
}

/** What the audit says, in a sentence. */
export function auditHeadline(findings: readonly AuditFinding[]): string {
  const open = openFindings(findings);
  if (open.length === 0) {
    return findings.length === 0
      ? 'Nothing a reader could object to.'
      : 'Nothing is open: what couldn’t be cured is accepted and will be said.';
  }
  const of = (severity: AuditFinding['severity']) => open.filter((f) => f.severity === severity).length;
  const parts = [
    of('breaks') > 0 && `${countWord(of('breaks'))} break${of('breaks') === 1 ? 's' : ''} the comparison`,
    of('weakens') > 0 && `${countWord(of('weakens'))} weaken${of('weakens') === 1 ? 's' : ''} it`,
    of('note') > 0 && `${countWord(of('note'))} will be asked about`,
  ].filter(Boolean);
  return `${sentenceCase(parts.join(', '))}.`;
}
