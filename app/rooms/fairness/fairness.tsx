import { toAction } from '../../form/command';
import Button from '@mui/material/Button';
import { useLoaderData } from 'react-router';
import { type AuditFinding, audit, openFindings } from '~core/fairness/audit';
import { severityNames } from '~core/fairness/rule';
import { countWord, sentenceCase } from '~core/quantity/format';
import { usePost } from '../../form/usePost';
import { loadTrial } from '../../store/trials';
import { undoDepth } from '../../store/undo';
import { RoomHead } from '../../ui/RoomHead';
import { SealedBanner } from '../SealedBanner';
import { auditInputOf } from '../auditOf';
import type { RoomArgs } from '../roomArgs';
import { FindingRow, freshSeed } from './FindingRow';
import { auditHeadline, fairnessCommands } from './fairnessActions';
import './fairness.css';

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
    undoable: state.seal ? 0 : await undoDepth(row.id),
  };
}

export const clientAction = toAction(fairnessCommands);

export default function FairnessRoom() {
  const { id, findings, codes, sealedAt, hidden, undoable } = useLoaderData<typeof clientLoader>();
  const post = usePost();
  const open = openFindings(findings);
  const byThemselves = open.filter((f) => f.curesItself).length;
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
            <>
              <Button color="secondary" disabled={undoable === 0} onClick={() => post({ intent: 'undo' })}>
                Undo
              </Button>
              {byThemselves > 1 && (
                <Button variant="contained" onClick={() => post({ intent: 'cureAll', seed: freshSeed() })}>
                  Cure the {countWord(byThemselves)} that cure themselves
                </Button>
              )}
            </>
          )
        }
      >
        The fairness audit looks at the plan as readers will. Each finding is cured, or accepted with a reason
        that the review prints.{byThemselves > 1 && ' What only you can know is left for you.'}
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
            Control, units, doses, positions, light, blinding and words are in order. The audit goes on
            looking while the plan changes.
          </p>
        </div>
      )}
    </div>
  );
}
