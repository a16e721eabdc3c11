import Button from '@mui/material/Button';
import { useLoaderData } from 'react-router';
import { z } from 'zod';
import { type AuditFinding, audit, cure, openFindings } from '~core/fairness/audit';
import { severityNames } from '~core/fairness/rule';
import { countWord, sentenceCase } from '~core/quantity/format';
import { fieldErrors, type ActionResult } from '../../form/schemaFields';
import { useDeed } from '../../form/useDeed';
import { loadTrial, savePlan, saveReview, undoDepth, undoPlan } from '../../store/trials';
import { announce } from '../../ui/announce';
import { RoomHead } from '../../ui/RoomHead';
import { SealedBanner } from '../SealedBanner';
import { auditInputOf } from '../auditOf';
import type { RoomArgs } from '../roomArgs';
import { FindingRow } from './FindingRow';

export async function clientLoader({ params }: RoomArgs) {
  const trial = await loadTrial(params.trialId);
  const { row, state, blind } = trial;
  return {
    id: row.id,
    findings: audit(await auditInputOf(trial)),
    codes: Object.fromEntries(row.plan.units.map((u) => [u.id, u.code])),
    sealedAt: state.seal?.at ?? null,
    /** what was found would tell the scorer who is who */
    hidden: blind && state.seal !== null,
    undoable: state.seal ? 0 : undoDepth(row.id),
  };
}

const Deed = z.discriminatedUnion('intent', [
  z.object({ intent: z.literal('cure'), ruleId: z.string(), seed: z.number().int().min(0) }),
  z.object({
    intent: z.literal('accept'),
    ruleId: z.string(),
    reason: z.string().trim().min(1, 'Say why; the review prints it.').max(500),
  }),
  z.object({ intent: z.literal('unaccept'), ruleId: z.string() }),
  z.object({ intent: z.literal('undo') }),
]);

export async function clientAction({ params, request }: RoomArgs): Promise<ActionResult> {
  const parsed = Deed.safeParse(await request.json());
  if (!parsed.success) return { errors: fieldErrors(parsed.error) };
  const result = await fairnessDeed(params.trialId, parsed.data);
  announce('errors' in result ? Object.values(result.errors)[0]! : (result.message ?? 'Done.'));
  return result;
}

/** Cures a finding, accepts it with a reason, or takes that back. */
export async function fairnessDeed(
  trialId: string | undefined,
  deed: z.output<typeof Deed>,
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

export default function FairnessRoom() {
  const { id, findings, codes, sealedAt, hidden, undoable } = useLoaderData<typeof clientLoader>();
  const deed = useDeed();
  const open = openFindings(findings);
  const accepted = findings.filter((f) => f.accepted !== null);
  const row = (f: AuditFinding) => (
    <FindingRow
      key={f.ruleId}
      trialId={id}
      finding={f}
      codes={codes}
      locked={sealedAt !== null}
      hidden={hidden}
    />
  );
  return (
    <div style={{ maxWidth: '64rem' }}>
      <RoomHead
        title={auditHeadline(findings)}
        actions={
          sealedAt === null && (
            <Button color="secondary" disabled={undoable === 0} onClick={() => deed({ intent: 'undo' })}>
              Undo
            </Button>
          )
        }
      >
        The fairness audit looks at the plan as readers will. Each finding is cured, or accepted with a reason
        that the review prints.
      </RoomHead>
      <SealedBanner trialId={id} sealedAt={sealedAt} />
      {hidden && (
        <p className="note open">What was found names contenders; it is shown when the codes are open.</p>
      )}
      {(['breaks', 'weakens', 'note'] as const).map((severity) => {
        const here = open.filter((f) => f.severity === severity);
        return (
          here.length > 0 && (
            <section key={severity} className="audit-group">
              <h2>{sentenceCase(severityNames[severity])}</h2>
              {here.map(row)}
            </section>
          )
        );
      })}
      {accepted.length > 0 && (
        <section className="audit-group">
          <h2>Accepted, and said in the review</h2>
          {accepted.map(row)}
        </section>
      )}
      {findings.length === 0 && (
        <div className="empty">
          <p>
            Control, units, doses, places, light, blinding and words are in order. The audit goes on looking
            while the plan changes.
          </p>
        </div>
      )}
    </div>
  );
}
