import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Slider from '@mui/material/Slider';
import TextField from '@mui/material/TextField';
import { useMemo, useState } from 'react';
import type { CardHeading } from '~core/model/judgement';
import type { Plan } from '~core/model/plan';
import { planIndex } from '~core/plan/planIndex';
import { formatFigure } from '~core/quantity/format';
import { makeCard, presets, proposedHeadings } from '~core/scorecard/card';
import { sayAlone, sayCard, sayFlips } from '~core/say/cardWords';
import type { PanelFigures } from '~core/scorecard/cardSource';
import type { Finding } from '~core/account/finding';
import type { Verdict } from '~core/verdict/verdict';
import { TesseraName } from '../../ui/Tessera';
import { NotKept } from '../../form/NotKept';
import { useKept } from '../../form/useKept';
import { nameIn } from '../findings/findingData';
import { OwnPoints } from './OwnPoints';
import { PairsDialog } from './PairsDialog';
import { PointsStrip } from './PointsStrip';
import { WeightsMap } from './WeightsMap';
import { addableHeadings } from './addableHeadings';

interface Props {
  plan: Plan;
  primary: Finding;
  findings: readonly Finding[];
  verdict: Verdict;
  stored: CardHeading[];
  /** of the trial it is read from */
  rev: number;
  panels: readonly PanelFigures[];
}

const presetNames: Record<string, string> = {
  grower: 'Grower',
  cook: 'Cook',
  seller: 'Seller',
  saver: 'Saver',
};

/** Headings as points of 0 to 10, their weights, who is first and how surely, and what would turn it. */
export function ScorecardView({ plan, primary, findings, verdict, stored, rev, panels }: Props) {
  const nameOf = useMemo(() => nameIn(plan), [plan]);
  const { shown, show, keep, keeping, refused } = useKept('headings', stored, rev);
  const [editing, setEditing] = useState<string | null>(null);
  const [pairs, setPairs] = useState(false);
  const card = useMemo(
    () => makeCard({ plan, headings: shown, findings, lines: verdict.lines, nameOf, panels }),
    [plan, shown, findings, verdict, nameOf, panels],
  );
  if (shown.length === 0) {
    return (
      <div className="empty">
        <p>
          Weigh headings against each other: yield, evenness, cost, looks, ease. The card says who comes
          first, how surely, and how far a weight must move before another does.
        </p>
        <Button variant="contained" onClick={() => keep(proposedHeadings(plan, primary))}>
          Begin a scorecard
        </Button>
      </div>
    );
  }
  const change = (id: string, over: Partial<CardHeading>) =>
    shown.map((h) => (h.id === id ? { ...h, ...over } : h));
  const total = shown.reduce((s, h) => s + h.weight, 0);
  const edited = shown.find((h) => h.id === editing);
  const flips = sayFlips(card, nameOf);
  const addable = addableHeadings(plan, panels);
  return (
    <>
      <div className="inline-row" style={{ justifyContent: 'space-between' }}>
        <h2 aria-live="polite">{sayCard(card, nameOf)}</h2>
        <span className="inline-row">
          <TextField
            select
            size="small"
            label="Weigh as"
            value=""
            sx={{ width: 160 }}
            onChange={(e) => keep(shown.map((h) => ({ ...h, weight: presets[e.target.value]!(h) })))}
          >
            {Object.entries(presetNames).map(([id, name]) => (
              <MenuItem key={id} value={id}>
                {name}
              </MenuItem>
            ))}
          </TextField>
          {shown.length > 1 && (
            <Button size="small" color="secondary" onClick={() => setPairs(true)}>
              Which matters more?
            </Button>
          )}
        </span>
      </div>
      <p className="small quiet">
        Points from 0 to 10 by the rule under each heading; the bar is what is uncertain about them. Move a
        weight to see who leads.
      </p>
      <div className="card-scroll" aria-busy={keeping}>
        <table className="ledger scorecard">
          <thead>
            <tr>
              <th scope="col">heading</th>
              <th scope="col">weight</th>
              {plan.treatments.map((t, i) => (
                <th scope="col" key={t.id}>
                  <TesseraName index={i} name={t.name} size={16} />
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {shown.map((h) => {
              const row = card.rows.find((r) => r.heading.id === h.id);
              const flip = card.flips.find((f) => f.id === h.id);
              return (
                <tr key={h.id}>
                  <th scope="row">
                    {h.name}
                    <div className="small quiet">{row?.rule ?? 'no figures yet'}</div>
                    <span className="inline-row">
                      <button type="button" className="link small" onClick={() => setEditing(h.id)}>
                        {h.from.kind === 'own' ? 'Points' : 'Name, scale'}
                      </button>
                      <button
                        type="button"
                        className="link small"
                        aria-label={`Remove ${h.name}`}
                        onClick={() => keep(shown.filter((x) => x.id !== h.id))}
                      >
                        Remove
                      </button>
                    </span>
                  </th>
                  <td className="weight">
                    <Slider
                      size="small"
                      value={h.weight}
                      min={0}
                      max={100}
                      sx={{ color: 'var(--ink)' }}
                      marks={notch(h.weight, flip, total)}
                      aria-label={`Weight of ${h.name}`}
                      onChange={(_, v) => show(change(h.id, { weight: v as number }))}
                      onChangeCommitted={(_, v) => keep(change(h.id, { weight: v as number }))}
                    />
                    <div className="small num">{row ? `${row.sharePercent} %` : 'doesn’t count'}</div>
                    {flip?.weightThen != null && flip.winner && (
                      <div className="small turned">
                        {flip.weightThen > flip.weightNow ? 'above' : 'below'}{' '}
                        {Math.round(100 * flip.weightThen)} %: {nameOf(flip.winner)}
                      </div>
                    )}
                  </td>
                  {plan.treatments.map((t, i) => (
                    <td key={t.id}>
                      <NameNarrow index={i} name={t.name} />
                      {row && <PointsStrip cell={row.cells.get(t.id)!} index={i} name={t.name} />}
                    </td>
                  ))}
                </tr>
              );
            })}
            <tr className="card-total">
              <th scope="row">All together</th>
              <td className="small quiet">weights add up to 100 %</td>
              {card.contenders.map((c) => (
                <td key={c.id}>
                  <NameNarrow index={planIndex(plan).treatmentOrder(c.id)} name={nameOf(c.id)} />
                  {c.score === null ? (
                    <span className="small quiet">no total</span>
                  ) : (
                    <span>
                      <strong className="card-score">{formatFigure(c.score, 1)}</strong>{' '}
                      {c.firstOf100 !== null && <span className="small">leads in {c.firstOf100} of 100</span>}
                    </span>
                  )}
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      </div>
      <TextField
        select
        size="small"
        label="Add a heading"
        value=""
        sx={{ width: 260, my: 1.5 }}
        onChange={(e) => {
          const heading = addable.find((a) => a.key === e.target.value)!.heading();
          keep([...shown, heading]);
          if (heading.from.kind === 'own') setEditing(heading.id);
        }}
      >
        {addable.map((a) => (
          <MenuItem key={a.key} value={a.key}>
            {a.name}
          </MenuItem>
        ))}
      </TextField>
      <div className="findings-grid">
        <div className="note good">
          <h3>Who should take what</h3>
          <ul className="report-list">
            {sayAlone(card, nameOf).map((s) => (
              <li key={s}>{s}</li>
            ))}
          </ul>
        </div>
        <div className="note open">
          <h3>What would turn it</h3>
          {flips.length === 0 ? (
            <p>No single weight, moved alone, puts another first.</p>
          ) : (
            <ul className="report-list">
              {flips.map((s) => (
                <li key={s}>{s}</li>
              ))}
            </ul>
          )}
          {card.open.map((s) => (
            <p key={s} className="small">
              {s}
            </p>
          ))}
        </div>
      </div>
      <WeightsMap plan={plan} card={card} />
      <NotKept refused={refused} />
      {pairs && (
        <PairsDialog
          headings={shown}
          onClose={() => setPairs(false)}
          onKeep={(weights) => {
            keep(shown.map((h) => ({ ...h, weight: weights.get(h.id) ?? h.weight })));
            setPairs(false);
          }}
        />
      )}
      {edited && (
        <OwnPoints
          heading={edited}
          contenders={plan.treatments.map((t) => ({
            id: t.id,
            name: t.name,
            order: planIndex(plan).treatmentOrder(t.id),
          }))}
          onClose={() => setEditing(null)}
          onKeep={(over) => {
            keep(change(edited.id, over));
            setEditing(null);
          }}
        />
      )}
    </>
  );
}

/** On a phone each contender has a row of its own, with its name. */
const NameNarrow = ({ index, name }: { index: number; name: string }) => (
  <span className="who-narrow">
    <TesseraName index={index} name={name} size={16} />
  </span>
);

/** Where on its slider a weight, moved alone, puts another first. */
function notch(weight: number, flip: { weightThen: number | null } | undefined, total: number) {
  const share = flip?.weightThen ?? null;
  if (share === null || share >= 1) return false;
  const value = (share * (total - weight)) / (1 - share);
  return value <= 100 ? [{ value }] : false;
}
