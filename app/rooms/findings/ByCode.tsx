import type { Plan } from '~core/model/plan';
import { formatFigure } from '~core/quantity/format';
import type { Finding } from '~core/verdict/finding';
import { TesseraName } from '../../ui/Tessera';

/** Means and letters by code: nothing that would tell which one is the control. */
export function ByCode({ plan, finding }: { plan: Plan; finding: Finding }) {
  const { comparison, trait } = finding;
  const d = trait.decimals + (trait.direction === 'band' ? 1 : 0);
  return (
    <table className="ledger">
      <thead>
        <tr>
          <th>by code</th>
          <th className="n">{plan.unitNoun}s</th>
          <th className="n">
            {trait.direction === 'band' ? `outside, ${trait.unit}` : trait.unit || 'mean'}
          </th>
          <th aria-label="letter" />
        </tr>
      </thead>
      <tbody>
        {plan.treatments.flatMap((t, index) => {
          const found = comparison.treatments.find((x) => x.name === t.id);
          return found
            ? [
                <tr key={t.id}>
                  <td>
                    <TesseraName index={index} name={t.name} size={19} />
                  </td>
                  <td className="n">{found.n}</td>
                  <td className="n">{formatFigure(found.adjustedMean, d)}</td>
                  <td className="letter">{comparison.letters[t.id] ?? ''}</td>
                </tr>,
              ]
            : [];
        })}
      </tbody>
    </table>
  );
}
