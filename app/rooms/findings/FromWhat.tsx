import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import type { Plan } from '~core/model/plan';
import { pairsTable, valuesTable } from '~core/report/findingBlocks';
import { formatFigure, sentenceCase } from '~core/quantity/format';
import type { Finding } from '~core/verdict/finding';
import { methodText } from '~core/verdict/words';
import { ReportTable } from '../../ui/Report';
import { nameIn } from './findingData';

interface Props {
  plan: Plan;
  finding: Finding;
  onClose: () => void;
}

/** What a finding was made from: every unit's value, what was left out, all pairs, the method and what it assumes. */
export function FromWhat({ plan, finding, onClose }: Props) {
  const nameOf = nameIn(plan);
  const { assumptions } = finding.analysis;
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth>
      <DialogTitle>How this was worked out</DialogTitle>
      <DialogContent>
        <div className="stack">
          <p className="small">{methodText(finding, plan.unitNoun)}</p>
          <h3>Values</h3>
          <ReportTable table={valuesTable(finding, plan, nameOf)} />
          {finding.leftOut.length > 0 && (
            <p className="small">
              Left out:{' '}
              {finding.leftOut
                .map(
                  (u) =>
                    `${u.code}${u.value === null ? '' : ` (${formatFigure(u.value, finding.trait.decimals)})`}: ${u.reason}`,
                )
                .join('; ')}
            </p>
          )}
          <h3>Between all pairs</h3>
          <ReportTable table={pairsTable(finding, nameOf)} />
          {assumptions.length > 0 && (
            <>
              <h3>What this takes for granted</h3>
              <ul className="small report-list">
                {assumptions.map((a) => (
                  <li key={a.what} className={a.holds === false ? 'warning' : undefined}>
                    {sentenceCase(a.what)}: {a.seen}
                    {a.holds === null ? '' : a.holds ? ' (holds)' : ' (doubtful)'}
                  </li>
                ))}
              </ul>
            </>
          )}
        </div>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
