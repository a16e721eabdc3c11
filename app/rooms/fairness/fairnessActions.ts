import { z } from 'zod';
import { type AuditFinding, cure, openFindings } from '~core/fairness/audit';
import { countWord, sentenceCase } from '~core/quantity/format';
import type { ActionResult } from '../../form/schemaFields';
import { err, ok } from '~core/model/result';
import { recorder } from '../../store/bench';
import { change } from '../../store/change';
import { type ChangeError, describeChangeError } from '../../store/errors';
import { savePlan } from '../../store/trials';
import { plainAuditInput } from '../auditOf';
import { undoAction } from '../undoAction';

/** What the Fairness room sends. */
export const FairnessAct = z.discriminatedUnion('intent', [
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
export async function fairnessAction(
  trialId: string | undefined,
  act: z.output<typeof FairnessAct>,
): Promise<ActionResult> {
  switch (act.intent) {
    case 'cure':
      return cureFinding(trialId, act.ruleId, act.seed);
    case 'accept': {
      const { ruleId, reason } = act;
      const saved = await savePlan(trialId, (plan) => ({
        ...plan,
        accepted: [...plan.accepted.filter((a) => a.ruleId !== ruleId), { ruleId, reason }],
      }));
      return saved.ok ? { saved: true, message: 'Accepted; the review will say so.' } : refused(saved.error);
    }
    case 'unaccept': {
      const saved = await savePlan(trialId, (plan) => ({
        ...plan,
        accepted: plan.accepted.filter((a) => a.ruleId !== act.ruleId),
      }));
      return saved.ok ? { saved: true, message: 'Open again.' } : refused(saved.error);
    }
    case 'undo':
      return undoAction(trialId);
  }
}

const refused = (error: ChangeError): ActionResult => ({
  errors: {
    ruleId:
      error.tag === 'sealed'
        ? 'The plan is sealed; write it into the log or the review.'
        : describeChangeError(error),
  },
});

/** Cures a finding: worked out on the plan as the database has it, so that nothing changed meanwhile is lost. */
async function cureFinding(trialId: string | undefined, ruleId: string, seed: number): Promise<ActionResult> {
  const me = await recorder();
  let disclosed = false;
  const done = await change<{ tag: 'nothing' } | { tag: 'sealed' }>(trialId, ({ trial }) => {
    const cured = cure({ ...plainAuditInput(trial), me }, ruleId, seed);
    if (!cured) return err({ tag: 'nothing' });
    if (cured.disclosure !== undefined) {
      disclosed = true;
      return ok({ review: { ...trial.row.review, disclosure: cured.disclosure } });
    }
    if (trial.state.seal) return err({ tag: 'sealed' });
    return ok(cured.plan ? { plan: cured.plan } : {});
  });
  if (!done.ok) {
    return done.error.tag === 'nothing'
      ? { errors: { ruleId: 'There is nothing to cure any more.' } }
      : refused(done.error);
  }
  return {
    saved: true,
    message: disclosed ? 'The disclosure stands in the review.' : 'Cured; Undo takes it back.',
  };
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
