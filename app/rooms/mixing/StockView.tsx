import { Link } from 'react-router';
import { type Money, formatMoney } from '~core/quantity/money';
import { describeCostError, treatmentCost } from '~core/cost/treatmentCost';
import { armAt } from '~core/mixing/armAt';
import { costPerLitre } from '~core/mixing/matching';
import { servedOn } from '~core/mixing/mixesInLog';
import { usesAt } from '~core/mixing/programme';
import { sayLasts } from '~core/mixing/sayStrength';
import { stockForecast } from '~core/mixing/forecast';
import { dateOfDay } from '~core/plan/days';
import { amountWords } from '~core/quantity/format';
import { shortDate } from '../../ui/clock';
import { TesseraName } from '../../ui/Tessera';
import { CodesClosed } from '../CodesClosed';
import type { MixingData } from './mixingData';

const figure = (x: number) => String(Number(x.toPrecision(4)));

/** Packs, what is left of them and for how long; what a litre, a feed and a unit cost; stock solutions. */
export function StockView({ data }: { data: MixingData }) {
  const { id, plan, packs, stocks, living, day } = data;
  if (data.blind) return <CodesClosed trialId={id} title="Stock and cost" />;
  if (packs.length === 0) {
    return (
      <div className="empty">
        <h2>No packs yet</h2>
        <p>
          A product’s packs and prices are kept in the library. Once a contender uses it, every mix takes from
          its pack.
        </p>
        <Link to="/library">The library</Link>
      </div>
    );
  }
  const money = (m: Money) => formatMoney(m);
  const today = Math.max(data.today, 0);
  const mixed = servedOn(data.state, today);
  return (
    <div className="stack">
      <section>
        <h2>Packs</h2>
        <div className="scroll-x">
          <table className="ledger as-rows">
            <thead>
              <tr>
                <th>product</th>
                <th>pack</th>
                <th className="n">left</th>
                <th className="n">feeds in a pack</th>
                <th className="n">feeds left</th>
                <th>runs out</th>
              </tr>
            </thead>
            <tbody>
              {packs.map((p) => {
                const f = stockForecast(plan, p, living, today, mixed);
                return (
                  <tr key={p.pack.id}>
                    <td>
                      <strong>{p.product.name}</strong>
                    </td>
                    <td className="small" data-label="pack">
                      {p.pack.count > 1 ? `${p.pack.count} × ` : ''}
                      {amountWords(p.pack.size, p.pack.unit)} at{' '}
                      {money({ minor: p.pack.priceMinor, currency: p.pack.currency })}
                      {p.pack.boughtOn && `, ${shortDate(p.pack.boughtOn)}`}
                    </td>
                    <td className="n" data-label="left">
                      <span data-testid={`left-${p.pack.id}`}>{figure(p.left)}</span>{' '}
                      <span className="unit">of {amountWords(Number(figure(p.bought)), p.pack.unit)}</span>
                      {p.overdrawn && (
                        <div className="small" style={{ color: 'var(--porphyry)' }}>
                          more was used than bought: enter the other pack
                        </div>
                      )}
                    </td>
                    <td className="n" data-label="feeds in a pack">
                      {f ? Math.floor(p.bought / p.pack.count / f.perFeed) : '–'}
                    </td>
                    <td className="n" data-label="feeds left">
                      {f ? Math.floor(p.left / f.perFeed) : '–'}
                    </td>
                    <td className="small" data-label="runs out">
                      {sayLasts(f, p.left, (d) => shortDate(dateOfDay(plan.startDate, d)))}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
        <p className="small quiet" style={{ marginTop: '0.4rem' }}>
          A feed is one batch of this trial, spare included. Mixes of every trial on the bench are counted.
        </p>
      </section>
      <section>
        <h2>What it costs</h2>
        <div className="scroll-x">
          <table className="ledger as-rows">
            <thead>
              <tr>
                <th>contender</th>
                <th className="n">per litre</th>
                <th className="n">per feed of one {plan.unitNoun}</th>
                <th className="n">per {plan.unitNoun}, whole trial</th>
                <th>price from</th>
              </tr>
            </thead>
            <tbody>
              {plan.treatments.map((t, i) => {
                const uses = usesAt(t, day);
                const perL = costPerLitre(armAt(plan, t, day), {
                  water: null,
                  currency: plan.currency,
                  exchange: plan.mixing.exchange,
                });
                const whole = treatmentCost(t, plan.products, plan.currency, plan.mixing.exchange);
                const litres = uses[0]?.solutionLPerUnit ?? null;
                return (
                  <tr key={t.id}>
                    <td>
                      <TesseraName index={i} name={t.name} />
                    </td>
                    <td className="n" data-label="per litre">
                      {perL && uses.length > 0 ? money(perL) : '–'}
                    </td>
                    <td className="n" data-label={`per feed of one ${plan.unitNoun}`}>
                      {perL && litres !== null ? money({ ...perL, minor: perL.minor * litres }) : '–'}
                    </td>
                    <td className="n" data-label={`per ${plan.unitNoun}, whole trial`}>
                      {whole.ok ? money(whole.value.perUnit) : '–'}
                    </td>
                    <td className="small" data-label="price from">
                      {whole.ok
                        ? whole.value.products
                            .map(
                              (c) =>
                                `${amountWords(c.pack.size, c.pack.unit)} at ${money({ minor: c.pack.priceMinor, currency: c.pack.currency })}${exchanged(c.pack.currency, data)}`,
                            )
                            .filter((line, n, all) => all.indexOf(line) === n)
                            .join(', ')
                        : describeCostError(whole.error)}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
        <p className="small quiet" style={{ marginTop: '0.4rem' }}>
          Products only, at the doses planned for day {day}.
        </p>
      </section>
      {stocks.length > 0 && (
        <section>
          <h2>Stock solutions</h2>
          <table className="ledger as-rows">
            <thead>
              <tr>
                <th>stock</th>
                <th>of</th>
                <th className="n">concentration</th>
                <th className="n">left</th>
                <th>made</th>
              </tr>
            </thead>
            <tbody>
              {stocks.map((s) => (
                <tr key={s.batch}>
                  <td>{s.batch}</td>
                  <td>{plan.products.find((p) => p.id === s.productId)?.name}</td>
                  <td className="n">
                    {figure(s.body.amount / s.body.volumeL)} <span className="unit">{s.body.unit}/L</span>
                  </td>
                  <td className="n">
                    {figure(s.leftMl)} <span className="unit">of {figure(s.body.volumeL * 1000)} mL</span>
                  </td>
                  <td className="small">{shortDate(s.at)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
    </div>
  );
}

/** The rate a foreign price was turned with. */
function exchanged(currency: string, data: MixingData): string {
  const { plan } = data;
  const rate = plan.mixing.exchange.find((e) => e.currency === currency)?.rate;
  return currency === plan.currency || rate === undefined
    ? ''
    : ` (1 ${currency} = ${rate} ${plan.currency})`;
}
