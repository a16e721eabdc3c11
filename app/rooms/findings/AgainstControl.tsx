import type { Plan } from '~core/model/plan';
import { formatFigure, formatP, formatSigned } from '~core/quantity/format';
import type { Finding } from '~core/verdict/finding';
import { TesseraName } from '../../ui/Tessera';

/** Every contender against the control: mean, change with its interval, letter. */
export function AgainstControl({ plan, finding }: { plan: Plan; finding: Finding }) {
  const { comparison, trait } = finding;
  const control = plan.treatments.find((t) => t.id === comparison.control)!;
  const isBand = trait.direction === 'band';
  // Per cent needs a control clearly away from zero.
  const percent =
    !isBand &&
    comparison.versusControl.every((v) => v.percent !== null && (v.percentLow !== null || v.low === null));
  const level = Math.round((1 - comparison.alpha) * 100);
  // Distances outside a band are small: one more decimal keeps their sign visible.
  const d = trait.decimals + (isBand ? 1 : 0);
  return (
    <table className="ledger">
      <thead>
        <tr>
          <th>against {control.name.toLowerCase()}</th>
          <th className="n">{isBand ? `outside, ${trait.unit}` : trait.unit || 'mean'}</th>
          <th className="n">change</th>
          <th className="n">{comparison.anova ? `${level} %` : ''}</th>
          <th aria-label="letter" />
        </tr>
      </thead>
      <tbody>
        {comparison.treatments.map((t) => {
          const v = comparison.versusControl.find((x) => x.name === t.name);
          const index = plan.treatments.findIndex((x) => x.id === t.name);
          const change = !v
            ? '—'
            : percent
              ? `${formatSigned(v.percent!, 0)} %`
              : formatSigned(v.difference, d);
          const interval =
            !v || v.low === null
              ? ''
              : percent && v.percentLow !== null
                ? `${formatSigned(v.percentLow, 0)} to ${formatSigned(v.percentHigh!, 0)}`
                : `${formatSigned(v.low, d)} to ${formatSigned(v.high!, d)}`;
          return (
            <tr key={t.name} title={v?.p == null ? undefined : `p ${formatP(v.p)}, Dunnett`}>
              <td>
                <TesseraName index={index} name={plan.treatments[index]?.name ?? ''} size={19} />
              </td>
              <td className="n">{formatFigure(t.adjustedMean, d)}</td>
              <td className="n">{change}</td>
              <td className="n">{interval}</td>
              <td className="letter">{comparison.letters[t.name] ?? ''}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
