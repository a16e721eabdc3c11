import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import type { Plan } from '~core/model/plan';
import { formatFigure, formatP, formatSigned } from '~core/quantity/format';
import type { Finding } from '~core/verdict/finding';
import { methodText } from '~core/verdict/words';
import { TesseraName } from '../../ui/Tessera';

interface Props {
  plan: Plan;
  finding: Finding;
  onClose: () => void;
}

/** What a finding was made from: every unit's value, what was left out, all pairs, the method. */
export function FromWhat({ plan, finding, onClose }: Props) {
  const { comparison, trait } = finding;
  const d = trait.decimals;
  const name = (id: string) => plan.treatments.find((t) => t.id === id)?.name ?? id;
  const index = (id: string) => plan.treatments.findIndex((t) => t.id === id);
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth>
      <DialogTitle>From what?</DialogTitle>
      <DialogContent>
        <div className="stack">
          <p className="small">{methodText(finding, plan.unitNoun)}</p>
          <h3>Values per {plan.unitNoun}</h3>
          <table className="ledger">
            <tbody>
              {comparison.treatments.map((t) => (
                <tr key={t.name}>
                  <td>
                    <TesseraName index={index(t.name)} name={name(t.name)} />
                  </td>
                  <td className="num small">
                    {finding.units
                      .filter((u) => u.treatmentId === t.name)
                      .map((u) => `${u.code} ${formatFigure(u.value, d)}`)
                      .join(' · ')}
                  </td>
                  <td className="n">
                    {formatFigure(t.mean, d)}
                    {t.sd !== null && <span className="unit"> ± {formatFigure(t.sd, d)} sd</span>}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {finding.leftOut.length > 0 && (
            <p className="small">
              Left out:{' '}
              {finding.leftOut
                .map(
                  (u) => `${u.code}${u.value === null ? '' : ` (${formatFigure(u.value, d)})`}: ${u.reason}`,
                )
                .join('; ')}
            </p>
          )}
          <h3>Between all pairs</h3>
          <table className="ledger">
            <tbody>
              {comparison.pairs.map((p) => (
                <tr key={`${p.a}${p.b}`}>
                  <td>
                    {name(p.a)} − {name(p.b)}
                  </td>
                  <td className="n">{formatSigned(p.difference, d)}</td>
                  <td className="n">
                    {p.low === null ? '' : `${formatSigned(p.low, d)} to ${formatSigned(p.high!, d)}`}
                  </td>
                  <td className="n">{p.p === null ? '' : `p ${formatP(p.p)}`}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
