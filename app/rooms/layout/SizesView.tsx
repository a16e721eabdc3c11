import Button from '@mui/material/Button';
import { type ReactNode, useState } from 'react';
import { numberIn } from '~core/quantity/number';
import type { UnitId } from '~core/model/ids';
import { START_SIZE_LIMIT_PERCENT } from '~core/plan/limits';
import { planIndex } from '~core/plan/planIndex';
import { startSizes } from '~core/plan/startSizes';
import { formatFigure } from '~core/quantity/format';
import { LeaveGuard } from '../../form/UnsavedGuard';
import { useSend } from '../../form/usePost';
import { PlanView } from '../../ui/PlanView';
import { Tessera, TesseraName, tesseraLetter } from '../../ui/Tessera';
import { tileInk, unitNumber } from '../../ui/UnitTile';
import type { LayoutData } from './layoutData';

/** Start size of every unit, and whether the contenders began alike. */
export function SizesView({ plan, positions, seal, head }: LayoutData & { head: ReactNode }) {
  const send = useSend();
  const [dirty, setDirty] = useState(false);
  const [typed, setTyped] = useState<ReadonlyMap<UnitId, string>>(
    () => new Map(plan.units.map((u) => [u.id, u.startSize === null ? '' : String(u.startSize)])),
  );
  const sizes = new Map<UnitId, number>();
  const wrong = new Set<UnitId>();
  for (const [id, text] of typed) {
    if (text.trim() === '') continue;
    const value = numberIn(text);
    if (value === null || value < 0) wrong.add(id);
    else sizes.set(id, value);
  }
  const keep = async () => {
    setDirty(false);
    const kept = await send({
      intent: 'sizes',
      sizes: plan.units.map((u) => ({ unitId: u.id, size: sizes.get(u.id) ?? null })),
    });
    if (!kept) setDirty(true);
  };
  const { rows, spreadPercent: spread } = startSizes(plan, sizes);
  return (
    <div className="with-side">
      <LeaveGuard unsaved={dirty} what="The start sizes you typed" />
      <div className="main">
        {head}
        {plan.units.length > 0 ? (
          <PlanView
            plan={plan}
            positions={positions}
            renderPlace={(_, unit) => {
              if (!unit) return <span className="place" />;
              const index = plan.treatments.findIndex((t) => t.id === unit.treatmentId);
              return (
                <label
                  className={`reading-place${wrong.has(unit.id) ? ' wrong' : ''}`}
                  style={tileInk(index)}
                >
                  <span className="small">
                    <Tessera index={index} size={14} /> {tesseraLetter(index)} {unitNumber(unit.code)}
                  </span>
                  <input
                    inputMode="decimal"
                    aria-label={`Start size of ${unit.code}`}
                    aria-invalid={wrong.has(unit.id)}
                    value={typed.get(unit.id) ?? ''}
                    disabled={seal !== null}
                    onChange={(e) => {
                      setTyped(new Map(typed).set(unit.id, e.target.value));
                      setDirty(true);
                    }}
                  />
                </label>
              );
            }}
          />
        ) : (
          <p className="quiet">Lay the units out under Arrange first.</p>
        )}
      </div>
      <aside className="side stack">
        <h2>Alike at the start?</h2>
        <table className="ledger">
          <thead>
            <tr>
              <th>contender</th>
              <th className="n">n</th>
              <th className="n">mean</th>
              <th className="n">range</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((r) => (
              <tr key={r.treatment.id}>
                <td>
                  <TesseraName
                    index={planIndex(plan).treatmentOrder(r.treatment.id)}
                    size={16}
                    name={r.treatment.name}
                  />
                </td>
                <td className="n">{r.n}</td>
                <td className="n">{r.mean === null ? '–' : Number(r.mean.toPrecision(3))}</td>
                <td className="n">{r.n === 0 ? '–' : `${r.least}–${r.most}`}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {spread !== null && (
          <p className={spread > START_SIZE_LIMIT_PERCENT ? 'note bad' : 'note good'}>
            Means {formatFigure(spread, 0)} % apart
            {spread > START_SIZE_LIMIT_PERCENT ? ': share small and large out before the start.' : ': alike.'}
          </p>
        )}
        {wrong.size > 0 && (
          <p role="alert" className="small" style={{ color: 'var(--porphyry)' }}>
            Framed figures aren’t numbers of 0 or more.
          </p>
        )}
        {seal === null && plan.units.length > 0 && (
          <div>
            <Button variant="contained" disabled={wrong.size > 0} onClick={() => void keep()}>
              Save the start sizes
            </Button>
          </div>
        )}
      </aside>
    </div>
  );
}
