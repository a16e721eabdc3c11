import { pickDays } from '~core/log/picks';
import type { TrialState } from '~core/log/state';
import { dateOfDay } from '~core/plan/days';
import { planIndex } from '~core/plan/planIndex';
import { formatFigure, listNames } from '~core/quantity/format';
import { shortDate } from '../../ui/clock';
import { TesseraName } from '../../ui/Tessera';
import { UnitLines } from '../../ui/UnitLines';
import { allWeighed, harvests } from './pickData';

/** What every unit gave so far, and its course. */
export function Harvest({ state }: { state: TrialState }) {
  const { plan } = state;
  const list = harvests(state);
  const gaps = pickDays(state).filter((d) => d.missing.length > 0);
  const codeOf = new Map(plan.units.map((u) => [u.id, u.code]));
  const lines = list.filter((h) => h.curve.length > 0).map(({ unit, curve }) => ({ unit, points: curve }));
  if (lines.length === 0) return null;
  const weighed = allWeighed(state);
  return (
    <section className="section" aria-labelledby="harvest">
      <h2 id="harvest">So far</h2>
      {gaps.map((g) => (
        <p key={g.day} className="note open small">
          {shortDate(dateOfDay(plan.startDate, g.day))} (day {g.day}) doesn’t count yet:{' '}
          {listNames(g.missing.slice(0, 6).map((id) => codeOf.get(id) ?? '?'))}
          {g.missing.length > 6 && ` and ${g.missing.length - 6} more`}{' '}
          {g.missing.length === 1 ? 'has' : 'have'} no entry. Where nothing was ripe, say so.
        </p>
      ))}
      <UnitLines
        plan={plan}
        lines={lines}
        stepped
        what={weighed ? 'yield so far, g' : 'yield so far, pieces'}
        label={`Yield so far by day: ${list.map((h) => `${h.unit.code} ${h.curve.at(-1)?.y ?? 0}`).join(', ')}`}
      />
      <div className="scroll-x">
        <table className="ledger as-rows">
          <thead>
            <tr>
              <th>{plan.unitNoun}</th>
              <th className="n">first pick</th>
              <th className="n">pieces</th>
              <th className="n">weight, g</th>
              <th className="n">a piece, g</th>
              <th className="n">yield of all picked</th>
            </tr>
          </thead>
          <tbody>
            {list.map(({ unit, totals: t }) => (
              <tr key={unit.id}>
                <td>
                  <TesseraName
                    index={planIndex(plan).treatmentOrder(unit.treatmentId)}
                    size={20}
                    name={unit.code}
                  />
                </td>
                <td className="n" data-label="first pick">
                  {t?.firstDay == null ? '–' : `day ${t.firstDay}`}
                </td>
                <td className="n" data-label="pieces">
                  {t?.count ?? '–'}
                </td>
                <td className="n" data-label="weight, g">
                  {t?.weightG == null ? '–' : formatFigure(t.weightG, 0)}
                </td>
                <td className="n" data-label="a piece, g">
                  {t && t.weightG !== null && t.count > 0 ? formatFigure(t.weightG / t.count, 0) : '–'}
                </td>
                <td className="n" data-label="yield of all picked">
                  {t && t.all > 0 ? `${t.count}/${t.all}` : '–'}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
