import { formatMoney } from '~core/quantity/money';
import { type Arm, type Around, type MatchBasis, type MatchedArm, matchDoses } from '~core/mixing/matching';
import { sayElement } from '~core/mixing/sayStrength';
import type { ElementSymbol } from '~core/model/element';
import type { TreatmentId } from '~core/model/ids';
import { formatFigure } from '~core/quantity/format';
import { TesseraName } from '../../ui/Tessera';
import type { MixingData } from './mixingData';

interface Props {
  data: MixingData;
  arms: readonly Arm[];
  referenceId: TreatmentId | null;
  around: Around;
  element: ElementSymbol;
  end: 'low' | 'middle' | 'high';
}

/** Every way of matching side by side: how each dose would change, and what it would then be. */
export function GlanceTable({ data, arms, referenceId, around, element, end }: Props) {
  const { plan } = data;
  const columns: [string, MatchBasis][] = [
    ['as planned', { kind: 'asIs' }],
    ['label rate', { kind: 'label', end }],
    [`equal ${element}`, { kind: 'element', element }],
    ['equal strength', { kind: 'strength' }],
    ['equal money', { kind: 'money' }],
  ];
  const results = columns.map(([name, basis]) => ({
    name,
    arms: matchDoses(arms, basis, referenceId, around),
  }));
  return (
    <section>
      <h2>Every choice at a glance</h2>
      <div className="scroll-x">
        <table className="ledger as-rows">
          <thead>
            <tr>
              <th>contender</th>
              {results.map((r) => (
                <th key={r.name} className="n">
                  {r.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {plan.treatments.map((t, i) => (
              <tr key={t.id}>
                <td>
                  <TesseraName index={i} size={20} name={t.name} />
                </td>
                {results.map((r) => (
                  <td key={r.name} className="n small" data-label={r.name}>
                    <Cell arm={r.arms.find((a) => a.id === t.id)!} element={element} />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="small quiet" style={{ marginTop: '0.4rem' }}>
        Times the planned dose; then {element} in mg/L, estimated strength in mS/cm, cost per litre. In ochre:
        outside the label’s rate.
      </p>
    </section>
  );
}

function Cell({ arm, element }: { arm: MatchedArm; element: ElementSymbol }) {
  if (arm.doses.length === 0) return <span className="quiet">–</span>;
  if (arm.problem) return <span className="quiet">can’t be matched</span>;
  const factors = [...new Set(arm.doses.map((d) => Number(d.factor.toPrecision(2))))];
  const outside = arm.doses.some((d) => d.label && d.label.stand !== 'within');
  return (
    <span style={outside ? { color: 'var(--ochre-text)' } : undefined}>
      × {factors.join(', ')}
      <br />
      {element} {sayElement(arm.solution.mgPerL[element], arm.solution)} ·{' '}
      {arm.solution.unknown.length > 0 ? 'EC not known' : formatFigure(arm.solution.strength.ec, 2)}
      <br />
      {arm.costPerL ? formatMoney(arm.costPerL) : 'no price'}
      {outside && <span className="sr-only"> outside the label’s rate</span>}
    </span>
  );
}
