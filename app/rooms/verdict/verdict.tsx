import { Link, useLoaderData } from 'react-router';
import { formatMoney } from '~core/cost/money';
import { describeCostError } from '~core/cost/treatmentCost';
import { roleNames } from '~core/model/plan';
import { formatFigure } from '~core/quantity/format';
import { measureLabel } from '~core/verdict/words';
import { type VerdictLine, makeVerdict } from '~core/verdict/verdict';
import { Tessera } from '../../ui/Tessera';
import { allFindings, describeFindingError, nameIn } from '../findings/findingData';
import { CodesClosed } from '../CodesClosed';
import type { RoomArgs } from '../roomArgs';

export async function clientLoader({ params }: RoomArgs) {
  const { plan, primary, problem, blind } = await allFindings(params.trialId);
  return { plan, primary, problem, blind, verdict: primary && makeVerdict(plan, primary, nameIn(plan)) };
}

function place(line: VerdictLine): string {
  if (line.rank?.rank == null) return '–';
  return `${line.rank.rank}${line.rank.tied ? ' =' : ''}`;
}

export default function VerdictRoom() {
  const { plan, primary, problem, verdict, blind } = useLoaderData<typeof clientLoader>();
  if (blind) return <CodesClosed trialId={plan.id} title="Verdict" />;
  if (!primary || !verdict) {
    return (
      <div className="empty">
        <h1>Verdict</h1>
        <p style={{ marginTop: '0.6rem' }}>
          Who came where, what each gram cost, and what this trial can’t tell.{' '}
          {problem ? describeFindingError(problem, plan) : 'Choose the deciding trait in Question first.'}
        </p>
        <Link to={`/trial/${plan.id}/${problem ? 'rounds' : 'question'}`}>
          {problem ? 'Go to Rounds' : 'Open Question'}
        </Link>
      </div>
    );
  }
  const { trait } = primary;
  const per = trait.unit || 'unit';
  return (
    <>
      <div className="room-head">
        <h1>{verdict.headline}</h1>
        <p>
          Decided by {trait.name.toLowerCase()} per {plan.unitNoun}. A place is shared where nothing separates
          the contenders.
        </p>
      </div>
      <div className="scroll-x">
        <table className="ledger">
          <thead>
            <tr>
              <th>place</th>
              <th>contender</th>
              <th className="n">{measureLabel(primary).toLowerCase()}</th>
              <th className="n">products per {plan.unitNoun}</th>
              <th className="n">per {per}</th>
              <th className="n">per extra {per}</th>
              <th>can’t be told from</th>
            </tr>
          </thead>
          <tbody>
            {verdict.lines.map((l) => {
              const index = plan.treatments.indexOf(plan.treatments.find((t) => t.id === l.treatment.id)!);
              return (
                <tr key={l.treatment.id} className={l.rank?.rank === 1 ? 'first' : undefined}>
                  <td className="letter" style={{ fontSize: '1.25rem' }}>
                    {place(l)}
                  </td>
                  <td>
                    <span className="who">
                      <Tessera index={index} size={26} />
                      <span>
                        <strong>{l.treatment.name}</strong>
                        <div className="small quiet">{roleNames[l.role]}</div>
                      </span>
                    </span>
                  </td>
                  <td className="n">{l.mean === null ? '–' : formatFigure(l.mean, trait.decimals)}</td>
                  <td className="n">
                    {l.cost.ok ? (
                      formatMoney(l.cost.value.perUnit)
                    ) : (
                      <span className="small" style={{ color: 'var(--ochre-text)', whiteSpace: 'normal' }}>
                        {describeCostError(l.cost.error)}
                      </span>
                    )}
                  </td>
                  <td className="n">{l.perResult ? formatMoney(l.perResult) : '–'}</td>
                  <td className="n">
                    {l.perExtra ? formatMoney(l.perExtra.perExtra) : '–'}
                    {l.perExtra && (
                      <div className="unit">
                        {l.perExtra.worst
                          ? `${l.perExtra.best ? formatMoney(l.perExtra.best) : ''} to ${formatMoney(l.perExtra.worst)}`
                          : l.perExtra.best
                            ? `${formatMoney(l.perExtra.best)} or any amount more`
                            : ''}
                      </div>
                    )}
                  </td>
                  <td className="small">
                    {l.rank?.rank == null
                      ? 'nothing was tested'
                      : l.rank.notSeparatedFrom.map((id) => nameIn(plan)(id)).join(', ') ||
                        'clearly apart from all'}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <div className="findings-grid" style={{ marginTop: '1.8rem' }}>
        <section>
          <h2>What this trial can’t tell</h2>
          <ul style={{ paddingLeft: '1.1rem', margin: '0.5rem 0' }}>
            {verdict.cannotTell.map((t) => (
              <li key={t}>{t}</li>
            ))}
          </ul>
        </section>
        <section className="stack">
          <div className="note good">
            <h3>Best value</h3>
            <p>{verdict.bestValue.text}</p>
          </div>
          <CostLines lines={verdict.lines} unitNoun={plan.unitNoun} />
        </section>
      </div>
    </>
  );
}

/** Where the money goes: dose, doses per pack, pack and price, for each product. */
function CostLines({ lines, unitNoun }: { lines: readonly VerdictLine[]; unitNoun: string }) {
  const rows = lines.flatMap((l) =>
    l.cost.ok ? l.cost.value.products.map((p) => ({ ...p, treatment: l.treatment })) : [],
  );
  if (rows.length === 0) return null;
  return (
    <table className="ledger">
      <thead>
        <tr>
          <th>price taken from</th>
          <th className="n">a dose</th>
          <th className="n">doses a pack</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <tr key={`${r.treatment.id}${r.product.id}`}>
            <td>
              {r.product.name}{' '}
              <span className="small quiet">
                {r.pack.size} {r.pack.unit} at{' '}
                {formatMoney({ minor: r.pack.priceMinor, currency: r.pack.currency })}
                {r.product.obtained !== 'bought' && `, ${r.product.obtained}`}
              </span>
            </td>
            <td className="n">{formatMoney(r.perDose)}</td>
            <td className="n" title={`per ${unitNoun}`}>
              {Math.floor(r.dosesPerPack)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
