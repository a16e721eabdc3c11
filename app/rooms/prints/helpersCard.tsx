import { tilesOf } from '~core/plan/tiles';
import { titled } from '../../ui/title';
import { amountWords } from '~core/quantity/format';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { Link, useLoaderData } from 'react-router';
import { letterOf } from '~core/plan/letters';
import { productCodesOf } from '~core/mixing/productCodes';
import { rotationPlan } from '~core/design/rotation';
import { positionKey } from '~core/model/positions';
import { dateOfDay } from '~core/plan/days';
import { shortDate } from '../../ui/clock';
import { loadTrial } from '../../store/trials';
import { Caution } from '../../ui/Caution';
import { RoomHead } from '../../ui/RoomHead';
import { Tessera } from '../../ui/Tessera';
import { OnlyHelper } from '../OnlyHelper';
import type { RoomArgs } from '../roomArgs';
import './labels.css';

export const meta = () => titled('Card');

export async function clientLoader({ params }: RoomArgs) {
  const { row, key, blind } = await loadTrial(params.trialId);
  const { plan } = row;
  const order = plan.blinding !== 'open' && key ? key.order : plan.treatments.map((t) => t.id);
  return { plan, order, blind, jars: plan.blinding !== 'open' && key ? productCodesOf(plan, key) : [] };
}

/** The card for whoever fills and moves: what goes into which bottle, who moves where on which day. */
export default function Card() {
  const { plan, order, blind, jars } = useLoaderData<typeof clientLoader>();
  const [open, setOpen] = useState(!blind);
  const turns = rotationPlan(plan);
  const place = (p: { areaId: string; row: number; column: number }) =>
    `${plan.areas.length > 1 ? `${plan.areas.find((a) => a.id === p.areaId)?.name}, ` : ''}row ${p.row + 1}, position ${p.column + 1}`;
  return (
    <main className="labels-page" id="room">
      <RoomHead
        title={blind ? 'The helper’s card' : 'The card'}
        actions={
          <span className="inline-row">
            <Button component={Link} to={`/trial/${plan.id}/layout`} color="secondary">
              Back to the layout
            </Button>
            {open && (
              <Button variant="contained" onClick={() => window.print()}>
                Print the card
              </Button>
            )}
          </span>
        }
      >
        {plan.question} · {plan.code}
      </RoomHead>
      {!open ? (
        <OnlyHelper onShow={() => setOpen(true)}>
          This card says which code is which product. Who scores this trial looks away now and lets the helper
          print it.
        </OnlyHelper>
      ) : (
        <>
          <section className="section">
            <h2>What goes into which bottle</h2>
            <table className="ledger" style={{ margin: '0.6rem 0' }}>
              <thead>
                <tr>
                  <th>bottle</th>
                  <th>contender</th>
                  <th>per litre, or as it is</th>
                  <th>to each {plan.unitNoun}</th>
                </tr>
              </thead>
              <tbody>
                {order.map((id, i) => {
                  const t = plan.treatments.find((x) => x.id === id);
                  return (
                    t && (
                      <tr key={id}>
                        <td>
                          <span className="who">
                            <Tessera index={tilesOf(plan)[i]!} size={24} /> <strong>{letterOf(i)}</strong>
                          </span>
                        </td>
                        <td>{t.name}</td>
                        <td>
                          {t.products.length === 0
                            ? t.water || 'the same water, nothing in it'
                            : t.products
                                .map(
                                  (u) =>
                                    `${amountWords(u.amount, u.unit)} ${plan.products.find((p) => p.id === u.productId)?.name ?? ''}${u.stage ? ` (${u.stage})` : ''}`,
                                )
                                .join(' + ')}
                        </td>
                        <td>
                          {[
                            ...new Set(
                              t.products.map(
                                (u) =>
                                  `${u.solutionLPerUnit ? `${u.solutionLPerUnit} L, ` : ''}${u.timesPerUnit} times`,
                              ),
                            ),
                          ].join(' + ') || 'as the others'}
                        </td>
                      </tr>
                    )
                  );
                })}
              </tbody>
            </table>
            <Caution>
              Concentrates are never mixed with each other: each into the water on its own; acid into water,
              never water into acid. Gloves and eye protection with acids, peroxide and powders. Labels and
              safety data sheets come first.
            </Caution>
          </section>
          {jars.length > 0 && (
            <section className="section">
              <h2>What goes into which jar</h2>
              <p className="quiet">
                Fill each product into its jar once, stick on the{' '}
                <Link to={`/trial/${plan.id}/labels?for=jars`}>jar tag</Link>, and put the originals away. Who
                mixes then works by the mixing card, which knows codes only. Keep the products’ own labels and
                safety data sheets at hand.
              </p>
              <table className="ledger" style={{ margin: '0.6rem 0' }}>
                <thead>
                  <tr>
                    <th>jar</th>
                    <th>product</th>
                  </tr>
                </thead>
                <tbody>
                  {jars.map((j) => (
                    <tr key={j.code}>
                      <td>
                        <strong>{j.code}</strong>
                      </td>
                      <td>{plan.products.find((p) => p.id === j.productId)?.name}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </section>
          )}
          {turns.length > 1 && (
            <section className="section">
              <h2>Who moves where</h2>
              <div className="scroll-x">
                <table className="ledger">
                  <thead>
                    <tr>
                      <th>{plan.unitNoun}</th>
                      {turns.map((t) => (
                        <th key={t.number}>
                          {t.number === 0
                            ? 'start'
                            : `day ${t.day}, ${shortDate(dateOfDay(plan.startDate, t.day))}`}
                        </th>
                      ))}
                    </tr>
                  </thead>
                  <tbody>
                    {plan.units.map((u) => (
                      <tr key={u.id}>
                        <td className="num">{u.code}</td>
                        {turns.map((t, i) => {
                          const at = t.positions.get(u.id)!;
                          const before = i > 0 ? turns[i - 1]!.positions.get(u.id)! : null;
                          return (
                            <td key={t.number} className="small">
                              {before && positionKey(before) === positionKey(at) ? 'stays' : place(at)}
                            </td>
                          );
                        })}
                      </tr>
                    ))}
                  </tbody>
                </table>
              </div>
            </section>
          )}
        </>
      )}
    </main>
  );
}
