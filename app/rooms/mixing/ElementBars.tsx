import type { MatchedArm } from '~core/mixing/matching';
import { elements, mainElements } from '~core/model/element';
import { formatFigure } from '~core/quantity/format';
import { Tessera } from '../../ui/Tessera';
import { TesseraBar } from '../../ui/TesseraBar';
import type { MixingData } from './mixingData';

/** A block for each element, a bar laid of tiles for each treatment. */
export function ElementBars({ data, matched }: { data: MixingData; matched: readonly MatchedArm[] }) {
  const { plan } = data;
  const name = (id: string) => plan.treatments.find((t) => t.id === id)?.name ?? '';
  const shown = elements.filter(
    (e) =>
      (mainElements as readonly string[]).includes(e) ||
      // What the water alone brings is the same for all and says nothing.
      matched.some((m) => m.solution.mgPerL[e] - (plan.mixing.water.elementsMgPerL[e] ?? 0) > 0.05),
  );
  const figure = (x: number) =>
    x === 0 ? '0' : x < 10 ? String(Number(x.toPrecision(2))) : String(Math.round(x));
  const fed = matched.filter((m) => m.doses.length > 0 && m.solution.unknown.length === 0);
  const byN = [...fed].sort((a, b) => a.solution.mgPerL.N - b.solution.mgPerL.N);
  const [least, most] = [byN[0], byN[byN.length - 1]];
  const times = least && most ? most.solution.mgPerL.N / least.solution.mgPerL.N : 1;
  return (
    <figure className="element-bars" aria-label="Elements by treatment">
      <figcaption>
        {times > 1.1 && least && most && Number.isFinite(times) ? (
          <>
            A litre of <strong>{name(most.id)}</strong> has {formatFigure(times, 1)} times the nitrogen of a
            litre of <strong>{name(least.id)}</strong>: {figure(most.solution.mgPerL.N)} against{' '}
            {figure(least.solution.mgPerL.N)} mg.
          </>
        ) : fed.length > 1 ? (
          'A litre of each has about the same nitrogen.'
        ) : (
          'Milligrams of each element in a litre, the water’s own included.'
        )}
      </figcaption>
      <div className="element-grid">
        {shown.map((e) => {
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
                    <span className="num">
                      {m.solution.unknown.length > 0 ? '≥ ' : ''}
                      {figure(m.solution.mgPerL[e])}
                    </span>
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
