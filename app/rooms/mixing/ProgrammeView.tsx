import { formatSignificant } from '~core/quantity/format';
import { Link } from 'react-router';
import { ofKind } from '~core/log/state';
import { stretchesIn } from '~core/mixing/givenPlan';
import { dueMixes } from '~core/mixing/dueMixes';
import { servedOn } from '~core/mixing/mixesInLog';
import { daysOfUse } from '~core/mixing/programme';
import { type ProductUse, doseAmount } from '~core/model/plan';
import { listNames } from '~core/quantity/format';
import { dateOfDay } from '~core/plan/days';
import { shortDate } from '../../ui/clock';
import { Tessera, TesseraName } from '../../ui/Tessera';
import { DoseChangePart } from './DoseChangePart';
import type { MixingData } from './mixingData';
import { productCodeKey } from '~core/mixing/productCodes';

/** The programme as a calendar of tiles, and every use in words. */
export function ProgrammeView({ data }: { data: MixingData }) {
  const { id, plan, shown, days, today, living, state, names, blind, sealed } = data;
  if (days.length === 0) {
    return (
      <div className="empty">
        <h2>No programme yet</h2>
        <p>
          A programme says which product, at which share of its rate, from which day and how often: half the
          rate for seedlings from day 3, every 2 days, 4 times; the full rate from day 11; another product
          from flowering on; plain water on day 28 as a flush. It is written with the doses.
        </p>
        {!sealed && <Link to={`/trial/${id}/contenders`}>Doses and days, in Contenders</Link>}
        {sealed && <DoseChangePart data={data} />}
      </div>
    );
  }
  const changedUses = new Set(
    ofKind(state, 'doseChange').map(({ body }) => `${body.treatmentId}/${body.use}`),
  );
  const byDay = days.map((day) => ({ day, due: dueMixes(plan, day, living), mixed: servedOn(state, day) }));
  return (
    <div className="stack">
      <div className="scroll-x">
        <table className="ledger calendar" style={{ '--lines': days.length + 1 } as React.CSSProperties}>
          <thead>
            <tr>
              <th>contender</th>
              {byDay.map(({ day }) => (
                <th key={day} className={day === today ? 'today' : undefined}>
                  <Link
                    to={`/trial/${id}/mixing?view=day&day=${day}`}
                    title={shortDate(dateOfDay(plan.startDate, day))}
                  >
                    {day}
                  </Link>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {shown.treatments.map((t, index) => (
              <tr key={t.id}>
                <td>
                  <TesseraName index={index} size={22} name={t.name} />
                </td>
                {byDay.map(({ day, due, mixed }) => {
                  const own = due.filter((d) => d.treatmentId === t.id);
                  const kinds = [...new Set(own.map((d) => d.kind))];
                  const strengths = [...new Set(own.flatMap((d) => d.uses.map((u) => u.strengthPercent)))];
                  const done = mixed.has(t.id);
                  const missed = sealed && !done && day < today;
                  return (
                    <td key={day} className={day === today ? 'today' : undefined}>
                      {own.length > 0 && (
                        <span
                          className={`mix-cell ${done ? 'done' : missed ? 'missed' : ''}`}
                          title={`day ${day}: ${kinds.join(', ')}${done ? ', mixed' : missed ? ', not in the log' : ''}`}
                        >
                          {kinds.includes('solution') || kinds.includes('direct') ? (
                            <Tessera index={index} size={18} />
                          ) : (
                            <span className="drop" aria-hidden="true">
                              ○
                            </span>
                          )}
                          <span className="sr-only">
                            day {day} {kinds.join(', ')}{' '}
                            {done ? 'mixed' : missed ? 'not in the log' : 'to come'}
                          </span>
                          {strengths.some((s) => s !== 100) && (
                            <span className="small">{strengths.map((s) => `${s} %`).join(', ')}</span>
                          )}
                        </span>
                      )}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="small quiet">
        A tile: feed. A ring: plain water, as the control’s share or a flush. Underlined: mixed and in the
        log; dashed: its day is past and it isn’t.
      </p>
      <div className="scroll-x">
        <table className="ledger as-rows">
          <thead>
            <tr>
              <th>contender</th>
              <th>{blind ? 'jar' : 'product'}</th>
              <th>stage</th>
              <th className="n">dose</th>
              <th className="n">share of rate</th>
              <th>when</th>
            </tr>
          </thead>
          <tbody>
            {shown.treatments.flatMap((t, index) => {
              return stretchesIn(state, t.id).map(({ use: u, of, goesOn }, i) => (
                <tr key={`${t.id}/${i}`}>
                  <td>
                    <TesseraName index={index} size={20} name={t.name} />
                  </td>
                  <td data-label={blind ? 'jar' : 'product'}>
                    {names[productCodeKey(t.id, u.productId)]}
                    {!goesOn && <div className="small quiet">until the change</div>}
                    {goesOn && changedUses.has(`${t.id}/${of}`) && <div className="small">changed</div>}
                  </td>
                  <td data-label="stage">{u.stage || <span className="quiet">throughout</span>}</td>
                  <td className="n" data-label="dose">
                    <span>
                      {Number(doseAmount(u).toPrecision(3))} {u.unit}
                      <span className="unit">
                        {u.solutionLPerUnit === null ? ` each ${plan.unitNoun}` : ' per L'}
                      </span>
                    </span>
                  </td>
                  <td className="n" data-label="share of rate">
                    {formatSignificant(u.strengthPercent, 3)} %
                  </td>
                  <td className="small when" data-label="when">
                    {when(u)}
                  </td>
                </tr>
              ));
            })}
          </tbody>
        </table>
      </div>
      {plan.treatments.some((t) => t.flushDays.length > 0) && !blind && (
        <p className="small">
          Flush:{' '}
          {plan.treatments
            .filter((t) => t.flushDays.length > 0)
            .map((t) => `${t.name} on day ${listNames(t.flushDays.map(String))}`)
            .join('; ')}
          .
        </p>
      )}
      {sealed && <DoseChangePart data={data} />}
      {!sealed && <Link to={`/trial/${id}/contenders`}>Change doses and days in Contenders</Link>}
    </div>
  );
}

function when(u: ProductUse): string {
  const days = daysOfUse(u);
  if (days.length === 0) return `${u.timesPerUnit} times, on no fixed days`;
  if (days.length === 1) return `day ${days[0]}`;
  return `every ${u.everyDays === 1 ? 'day' : `${u.everyDays} days`}, day ${days[0]} to ${days[days.length - 1]}, ${days.length} times`;
}
