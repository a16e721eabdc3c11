import { experimentalNoun } from '~core/plan/sharing';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import type { Plan } from '~core/model/plan';
import { pairsTable, valuesTable } from '~core/report/findingBlocks';
import { formatFigure, sentenceCase } from '~core/quantity/format';
import type { Finding } from '~core/account/finding';
import { methodText } from '~core/say/words';
import { announce } from '../../ui/announce';
import { ReportTable } from '../../ui/Report';
import { nameIn } from './findingData';

interface Props {
  plan: Plan;
  finding: Finding;
  /** the R lines for exactly this finding */
  r: string;
  onClose: () => void;
}

/** What a finding was made from: every unit's value, what was left out, all pairs, the method and what it assumes. */
export function FromWhat({ plan, finding, r, onClose }: Props) {
  const nameOf = nameIn(plan);
  const { assumptions } = finding.analysis;
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth>
      <DialogTitle>How this was worked out</DialogTitle>
      <DialogContent>
        <div className="stack">
          <p className="small">{methodText(finding, experimentalNoun(plan))}</p>
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
          {r !== '' && (
            <>
              <h3>The same in R</h3>
              <p className="small quiet">
                Base R alone; prints difference, limits and p against the control.{' '}
                <button
                  type="button"
                  className="link"
                  onClick={() => void navigator.clipboard.writeText(r).then(() => announce('Copied.'))}
                >
                  Copy these lines
                </button>
              </p>
              <pre className="r-lines" tabIndex={0} aria-label="R lines">
                {r}
              </pre>
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
