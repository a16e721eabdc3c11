import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { useState } from 'react';
import { Link } from 'react-router';
import { formatMoney } from '~core/cost/money';
import { type MatchBasis, type MatchProblem, type MatchedArm, matchDoses } from '~core/mixing/matching';
import { usesAt } from '~core/mixing/programme';
import { type ElementSymbol, elements, mainElements } from '~core/model/element';
import { doseAmount } from '~core/model/plan';
import { formatFigure } from '~core/quantity/format';
import { useDeed } from '../../form/useDeed';
import { Tessera } from '../../ui/Tessera';
import { TesseraBar } from '../../ui/TesseraBar';
import { CodesClosed } from '../CodesClosed';
import { StrengthLine } from './SolutionLine';
import type { MixingData } from './mixing';

type Kind = MatchBasis['kind'];
const bases: readonly (readonly [Kind, string, string])[] = [
  ['asIs', 'As planned', 'The doses as they stand in the plan.'],
  ['label', 'Label rate', 'As a buyer would use it: each product at its label’s rate.'],
  ['element', 'Equal element', 'Is it the product, or more of the nutrient?'],
  ['strength', 'Equal strength', 'Is it the product, or a stronger solution?'],
  ['money', 'Equal money', 'What the same money per litre buys.'],
];

const problemWords = (problem: MatchProblem, element: ElementSymbol): string =>
  ({
    noElement: `has no ${element} on its label, or no density for a dose by volume: left as it is`,
    noStrength: 'its strength can’t be estimated: left as it is',
    noPrice: 'has no price: left as it is',
    noLabel: 'has no label rate in the library that can be worked out: left as it is',
  })[problem];

/** What each treatment gets of everything, and what it would get if the doses were matched otherwise. */
export function CompareView({ data }: { data: MixingData }) {
  const { id, plan, day, sealed, undoable } = data;
  const deed = useDeed();
  const planned: Kind =
    plan.matchedOn === 'nitrogen' ? 'element' : plan.matchedOn === 'asIs' ? 'asIs' : plan.matchedOn;
  const [kind, setKind] = useState<Kind>('asIs');
  const [element, setElement] = useState<ElementSymbol>(plan.mixing.matchedElement);
  const [end, setEnd] = useState<'low' | 'middle' | 'high'>('middle');
  const fed = plan.treatments.filter((t) => usesAt(t, day).length > 0);
  const [referenceId, setReference] = useState<string>(
    (fed.find((t) => t.role === 'reference') ?? fed[0])?.id ?? '',
  );
  if (data.blind) return <CodesClosed trialId={id} title="What each gets" />;
  if (fed.length === 0) {
    return (
      <div className="empty">
        <h2>No doses yet</h2>
        <p>
          Once the contenders have products with a dose per litre, this shows the milligrams of each element
          they get, the estimated strength and the cost, side by side.
        </p>
        <Link to={`/trial/${id}/contenders`}>Doses, in Contenders</Link>
      </div>
    );
  }
  const basis: MatchBasis =
    kind === 'element' ? { kind, element } : kind === 'label' ? { kind, end } : { kind };
  const arms = plan.treatments.map((t) => ({
    id: t.id,
    doses: usesAt(t, day).flatMap((u) => {
      const product = plan.products.find((p) => p.id === u.productId);
      return product ? [{ product, amount: doseAmount(u), unit: u.unit, packId: u.packId }] : [];
    }),
  }));
  const matched = matchDoses(arms, basis, (referenceId || null) as never, {
    water: plan.mixing.water,
    currency: plan.currency,
    exchange: plan.mixing.exchange,
  });
  const reference = plan.treatments.find((t) => t.id === referenceId);
  const apply = () =>
    deed({
      intent: 'match',
      matchedOn: kind === 'element' ? 'nitrogen' : kind,
      element,
      factors: matched.flatMap((m) =>
        m.doses.map((d) => ({ treatmentId: m.id, productId: d.product.id, factor: d.factor })),
      ),
    });
  return (
    <div className="stack">
      <div className="line no-print" style={{ alignItems: 'flex-start' }}>
        <div className="scroll-x">
          <ToggleButtonGroup
            exclusive
            size="small"
            value={kind}
            onChange={(_, k: Kind | null) => k && setKind(k)}
            aria-label="Doses matched on"
          >
            {bases.map(([k, name]) => (
              <ToggleButton key={k} value={k} sx={{ textTransform: 'none', whiteSpace: 'nowrap' }}>
                {name}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        </div>
        {kind === 'element' && (
          <TextField
            select
            size="small"
            label="Element"
            value={element}
            onChange={(e) => setElement(e.target.value as ElementSymbol)}
            sx={{ width: 100 }}
          >
            {elements.map((e) => (
              <MenuItem key={e} value={e}>
                {e}
              </MenuItem>
            ))}
          </TextField>
        )}
        {kind === 'label' && (
          <TextField
            select
            size="small"
            label="Of its range"
            value={end}
            onChange={(e) => setEnd(e.target.value as typeof end)}
            sx={{ width: 140 }}
          >
            <MenuItem value="low">the low end</MenuItem>
            <MenuItem value="middle">the middle</MenuItem>
            <MenuItem value="high">the high end</MenuItem>
          </TextField>
        )}
        {kind !== 'asIs' && kind !== 'label' && (
          <TextField
            select
            size="small"
            label="Equal to"
            value={referenceId}
            onChange={(e) => setReference(e.target.value)}
            sx={{ width: 200 }}
          >
            {fed.map((t) => (
              <MenuItem key={t.id} value={t.id}>
                {t.name}
              </MenuItem>
            ))}
          </TextField>
        )}
        {kind !== 'asIs' && !sealed && (
          <Button variant="contained" onClick={apply}>
            Use these doses
          </Button>
        )}
        {undoable > 0 && (
          <Button color="secondary" onClick={() => deed({ intent: 'undo' })}>
            Undo
          </Button>
        )}
      </div>
      <p className="quiet small">
        {bases.find(([k]) => k === kind)![2]}{' '}
        {kind !== 'asIs' && kind !== 'label' && reference ? `All get as much as ${reference.name}. ` : ''}
        Day {day} of the programme; the plan says: {bases.find(([k]) => k === planned)![1].toLowerCase()}
        {planned === 'element' ? ` (${plan.mixing.matchedElement})` : ''}.
        {kind !== 'asIs' && sealed && ' The plan is sealed: this only shows what would have been.'}
      </p>
      <ElementBars data={data} matched={matched} />
      <MatchTable data={data} matched={matched} element={element} />
    </div>
  );
}

/** A block for each element, a bar laid of tiles for each treatment. */
function ElementBars({ data, matched }: { data: MixingData; matched: readonly MatchedArm[] }) {
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

/** Doses, how far from the label, strength and cost of every treatment under the matching. */
function MatchTable({
  data,
  matched,
  element,
}: {
  data: MixingData;
  matched: readonly MatchedArm[];
  element: ElementSymbol;
}) {
  const { plan } = data;
  return (
    <div className="scroll-x">
      <table className="ledger">
        <thead>
          <tr>
            <th>contender</th>
            <th>dose per litre</th>
            <th>against its label</th>
            <th>strength</th>
            <th className="n">cost per litre</th>
          </tr>
        </thead>
        <tbody>
          {matched.map((m) => {
            const index = plan.treatments.findIndex((t) => t.id === m.id);
            return (
              <tr key={m.id}>
                <td>
                  <span className="who">
                    <Tessera index={index} size={22} /> {plan.treatments[index]?.name}
                  </span>
                </td>
                <td>
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
                </td>
                <td className="small">
                  {m.doses.map((d) => (
                    <div key={d.product.id}>{labelWords(d.label)}</div>
                  ))}
                </td>
                <td>{m.doses.length > 0 && <StrengthLine strength={m.solution.strength} />}</td>
                <td className="n">
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
  if (!label) return <span className="quiet">no label rate entered</span>;
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
