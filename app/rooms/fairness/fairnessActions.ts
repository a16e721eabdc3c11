import { z } from 'zod';
import { type AuditFinding, cure, cureAll, openFindings } from '~core/fairness/audit';
import { countWord, sentenceCase } from '~core/quantity/format';
import type { Plan } from '~core/model/plan';
import { type Answer, command, done } from '../../form/command';
import { type Refused, refuse } from '../../form/recordForm';
import { ok } from '~core/model/result';
import { recorder } from '../../store/bench';
import { change } from '../../store/change';
import { savePlan } from '../../store/trials';
import { plainAuditInput } from '../auditOf';
import { undoCommand } from '../undoAction';

const SEALED = 'The plan is sealed; write it into the log or the review.';
const Cure = z.object({ ruleId: z.string(), seed: z.number().int().min(0) });

/** Changes what is accepted, as long as the plan is open. */
const accepting = async (
  trialId: string | undefined,
  message: string,
  to: (accepted: Plan['accepted']) => Plan['accepted'],
) => {
  const saved = await savePlan(trialId, (plan) => ({ ...plan, accepted: to(plan.accepted) }));
  return !saved.ok && saved.error.tag === 'sealed' ? refuse('ruleId', SEALED) : done(saved, message);
};

/** Cures a finding, accepts it with a reason, or takes that back. */
export const fairnessCommands = {
  cure: command(Cure, cureFinding),
  cureAll: command(z.object({ seed: z.number().int().min(0) }), cureEvery),
  accept: command(
    z.object({
      ruleId: z.string(),
      reason: z.string().trim().min(1, 'Say why; the review prints it.').max(500),
    }),
    (trialId, { ruleId, reason }) =>
      accepting(trialId, 'Accepted; the review will say so.', (accepted) => [
        ...accepted.filter((a) => a.ruleId !== ruleId),
        { ruleId, reason },
      ]),
  ),
  unaccept: command(z.object({ ruleId: z.string() }), (trialId, { ruleId }) =>
    accepting(trialId, 'Open again.', (accepted) => accepted.filter((a) => a.ruleId !== ruleId)),
  ),
  undo: undoCommand,
};

/** Cures a finding: worked out on the plan as the database has it, so that nothing changed meanwhile is lost. */
async function cureFinding(
  trialId: string | undefined,
  { ruleId, seed }: z.output<typeof Cure>,
): Promise<Answer> {
  const me = await recorder();
  let disclosed = false;
  const written = await change<Refused>(trialId, ({ trial }) => {
    const cured = cure({ ...plainAuditInput(trial), me }, ruleId, seed);
    if (!cured) return refuse('ruleId', 'There is nothing to cure any more.');
    if (cured.disclosure !== undefined) {
      disclosed = true;
      return ok({ review: { ...trial.row.review, disclosure: cured.disclosure } });
    }
    if (trial.state.seal) return refuse('ruleId', SEALED);
    return ok(cured.plan ? { plan: cured.plan } : {});
  });
  return done(written, () =>
    disclosed ? 'The disclosure stands in the review.' : 'Cured; Undo takes it back.',
  );
}

/** Cures at once all that asks nothing of the reviewer; one Undo takes it back. */
async function cureEvery(trialId: string | undefined, { seed }: { seed: number }): Promise<Answer> {
  const me = await recorder();
  const written = await change<Refused>(trialId, ({ trial }) => {
    if (trial.state.seal) return refuse('ruleId', SEALED);
    const { plan, cured } = cureAll({ ...plainAuditInput(trial), me }, seed);
    return cured.length === 0 ? refuse('ruleId', 'There is nothing to cure any more.') : ok({ plan });
  });
  return done(written, 'Cured what cures itself; Undo takes all of it back.');
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
