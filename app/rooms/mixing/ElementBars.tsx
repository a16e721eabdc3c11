import type { MatchedArm } from '~core/mixing/matching';
import { elements, mainElements } from '~core/model/element';
import { withMatched } from '~core/mixing/matchPlan';
import { elementPerWeek } from '~core/mixing/perUnit';
import { sayElement, sayNutrient } from '~core/mixing/sayStrength';
import { Tessera } from '../../ui/Tessera';
import { TesseraBar } from '../../ui/TesseraBar';
import type { MixingData } from './mixingData';

/** A block for each element, a bar laid of tiles for each treatment. */
export function ElementBars({ data, matched }: { data: MixingData; matched: readonly MatchedArm[] }) {
  const { plan } = data;
  const name = (id: string) => plan.treatments.find((t) => t.id === id)?.name ?? '';
  const shownElements = elements.filter(
    (e) =>
      (mainElements as readonly string[]).includes(e) ||
      // What the water alone brings is the same for all and says nothing.
      matched.some((m) => m.solution.mgPerL[e] - (plan.mixing.water.elementsMgPerL[e] ?? 0) > 0.05),
  );
  const weekly = matched.map((m) => {
    const treatment = plan.treatments.find((t) => t.id === m.id)!;
    const grams = elementPerWeek(withMatched(treatment, m), plan, 'N');
    return { name: treatment.name, mg: grams === null ? null : grams * 1000 };
  });
  return (
    <figure className="element-bars" aria-label="Elements by treatment">
      <figcaption>
        {sayNutrient(
          matched.map((arm) => ({ name: name(arm.id), arm })),
          weekly,
          plan.unitNoun,
        )}
      </figcaption>
      <h2 className="sr-only">Element by element</h2>
      <div className="element-grid">
        {shownElements.map((e) => {
          const longest = Math.max(...matched.map((m) => m.solution.mgPerL[e]), 1e-9);
          return (
            <section key={e} aria-label={e}>
              <h3>
                {e} <span className="unit">mg/L</span>
              </h3>
              {matched.map((m) => {
                const index = plan.treatments.findIndex((t) => t.id === m.id);
                return (
                  <div key={m.id} className="element-row" title={name(m.id)}>
                    <Tessera index={index} size={16} />
                    <TesseraBar index={index} share={m.solution.mgPerL[e] / longest} />
                    <span className="num">{sayElement(m.solution.mgPerL[e], m.solution)}</span>
                  </div>
                );
              })}
            </section>
          );
        })}
      </div>
    </figure>
  );
}
