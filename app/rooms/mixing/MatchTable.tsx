import { formatMoney } from '~core/quantity/money';
import type { MatchProblem, MatchedArm } from '~core/mixing/matching';
import { withMatched } from '~core/mixing/matchPlan';
import { elementPerWeek } from '~core/mixing/perUnit';
import { formatFigure } from '~core/quantity/format';
import type { ElementSymbol } from '~core/model/element';
import { TesseraName } from '../../ui/Tessera';
import { StrengthLine } from './SolutionLine';
import type { MixingData } from './mixingData';

const problemWords = (problem: MatchProblem, element: ElementSymbol): string =>
  ({
    noElement: `has no ${element} on its label, or no density for a dose by volume: left as it is`,
    noStrength: 'its strength can’t be estimated: left as it is',
    noPrice: 'has no price: left as it is',
    noLabel: 'has no label rate in the library that can be worked out: left as it is',
  })[problem];

/** Doses, how far from the label, strength and cost of every treatment under the matching. */
export function MatchTable({
  data,
  matched,
  element,
}: {
  data: MixingData;
  matched: readonly MatchedArm[];
  element: ElementSymbol;
}) {
  const { plan } = data;
  /** What a unit gets in a week differs where volumes or rhythms do, though a litre is alike. */
  const weekly = (m: MatchedArm) => {
    const treatment = plan.treatments.find((t) => t.id === m.id)!;
    const grams = elementPerWeek(withMatched(treatment, m), plan, element);
    if (treatment.products.length === 0) return '–';
    return grams === null ? 'not known' : `${formatFigure(grams * 1000, 0)} mg`;
  };
  return (
    <div className="scroll-x">
      <table className="ledger as-rows">
        <thead>
          <tr>
            <th>contender</th>
            <th>dose per litre</th>
            <th>against its label</th>
            <th>strength</th>
            <th className="n">
              {element} a week, each {plan.unitNoun}
            </th>
            <th className="n">cost per litre</th>
          </tr>
        </thead>
        <tbody>
          {matched.map((m) => {
            const index = plan.treatments.findIndex((t) => t.id === m.id);
            return (
              <tr key={m.id}>
                <td>
                  <TesseraName index={index} size={22} name={plan.treatments[index]?.name ?? ''} />
                </td>
                <td data-label="dose per litre">
                  <div>
                    {m.doses.map((d) => (
                      <div key={d.product.id}>
                        <span className="num">
                          {Number(d.amount.toPrecision(3))} {d.unit}
                        </span>{' '}
                        {d.product.name}
                        {Math.abs(d.factor - 1) > 0.005 && (
                          <span className="quiet small"> × {Number(d.factor.toPrecision(2))}</span>
                        )}
                      </div>
                    ))}
                    {m.doses.length === 0 && <span className="quiet">nothing</span>}
                    {m.problem && (
                      <div className="small" style={{ color: 'var(--ochre-text)' }}>
                        {problemWords(m.problem, element)}
                      </div>
                    )}
                  </div>
                </td>
                <td className="small" data-label="against its label">
                  <div>
                    {m.doses.map((d) => (
                      <div key={d.product.id}>{labelWords(d.label)}</div>
                    ))}
                  </div>
                </td>
                <td data-label="strength">
                  {m.doses.length > 0 && <StrengthLine solution={m.solution} dosed={m.doses.length} />}
                </td>
                <td className="n" data-label={`${element} a week, each ${plan.unitNoun}`}>
                  {weekly(m)}
                </td>
                <td className="n" data-label="cost per litre">
                  {m.doses.length === 0 ? '–' : m.costPerL ? formatMoney(m.costPerL) : 'no price'}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

function labelWords(label: MatchedArm['doses'][number]['label']) {
  if (!label) return <span className="quiet">no label rate that can be worked out</span>;
  if (label.stand === 'within') return 'within its range';
  const times = Number(label.times.toPrecision(2));
  return (
    <span style={{ color: 'var(--ochre-text)' }}>
      {label.stand === 'above'
        ? `${times} times its highest: more than the label allows`
        : `${times} of its lowest`}
    </span>
  );
}
