import { elements, mainElements } from '~core/model/element';
import type { Solution } from '~core/mixing/solution';
import { sayElement, sayStrength, sayUnknown } from '~core/mixing/sayStrength';
import { STRENGTH_ERROR_PERCENT, STRENGTH_FORMULA, ppmOf, ppmScales } from '~core/mixing/strength';
import { formatFigure, formatSigned } from '~core/quantity/format';

/** What the batch holds as it will be measured, against what was wanted; its estimated strength. */
export function SolutionLine({ made, wanted, dosed }: { made: Solution; wanted: Solution; dosed: number }) {
  const shownElements = mainElements.filter((e) => made.mgPerL[e] > 0 || wanted.mgPerL[e] > 0);
  return (
    <div>
      <div className="elements-line">
        {shownElements.map((e) => {
          const off = wanted.mgPerL[e] > 0 ? 100 * (made.mgPerL[e] / wanted.mgPerL[e] - 1) : 0;
          return (
            <span key={e}>
              <strong>{e}</strong> <span className="num">{sayElement(made.mgPerL[e], made)}</span>
              {Math.abs(off) >= 0.05 && <small className="quiet"> {formatSigned(off, 1)} %</small>}
            </span>
          );
        })}
        <span className="unit">mg/L</span>
      </div>
      <StrengthLine solution={made} dosed={dosed} />
      <details className="small">
        <summary>
          Ions: {formatFigure(made.ions.cations, 1)} meq/L of cations, {formatFigure(made.ions.anions, 1)} of
          anions
        </summary>
        <table className="ledger ions">
          <thead>
            <tr>
              <th>element</th>
              <th className="n">mg/L</th>
              <th className="n">mmol/L</th>
              <th className="n">wanted, mg/L</th>
              <th className="n">off by</th>
            </tr>
          </thead>
          <tbody>
            {elements
              .filter((e) => made.mgPerL[e] > 0)
              .map((e) => (
                <tr key={e}>
                  <td>{e}</td>
                  <td className="n">{Number(made.mgPerL[e].toPrecision(3))}</td>
                  <td className="n">{Number(made.mmolPerL[e].toPrecision(3))}</td>
                  <td className="n">{Number(wanted.mgPerL[e].toPrecision(3))}</td>
                  <td className="n">
                    {wanted.mgPerL[e] > 0
                      ? `${formatSigned(100 * (made.mgPerL[e] / wanted.mgPerL[e] - 1), 1)} %`
                      : '–'}
                  </td>
                </tr>
              ))}
          </tbody>
        </table>
        {made.ions.unstatedNitrogen > 0 && (
          <p className="quiet">
            {formatFigure(made.ions.unstatedNitrogen, 1)} mmol/L of nitrogen in a form the label doesn’t say
            are counted in neither.
          </p>
        )}
      </details>
      {made.unknown.length > 0 && (
        <p className="small quiet">
          The figures are the rest’s alone. Missing in the library: {sayUnknown(made.unknown)}.
        </p>
      )}
    </div>
  );
}

/** Estimated strength with its error, its formula and what a ppm meter shows. */
export function StrengthLine({ solution, dosed }: { solution: Solution; dosed: number }) {
  const { strength: s, unknown } = solution;
  const sentence = sayStrength(solution, dosed);
  if (sentence === 'not known') {
    return <p className="small quiet">Strength not known. Missing in the library: {sayUnknown(unknown)}.</p>;
  }
  return (
    <details className="small">
      <summary>
        Estimated strength <strong className="num">{sentence}</strong>
      </summary>
      <p className="quiet">
        {STRENGTH_FORMULA}; the formula itself is good to about {STRENGTH_ERROR_PERCENT} % (practice).
        {s.ammoniumShare !== null &&
          ` The label doesn’t say all forms of nitrogen; ${Math.round(100 * s.ammoniumShare)} % of what it leaves open is taken as ammonium, so that charges balance.`}{' '}
        Meters show “ppm” on three scales:{' '}
        {ppmScales.map((k) => `${Math.round(ppmOf(s.ec, k))} (×${k})`).join(', ')}. Write EC down, and which
        scale a ppm was.
      </p>
    </details>
  );
}
