import Button from '@mui/material/Button';
import { type ReactNode, useMemo } from 'react';
import { useWatch } from 'react-hook-form';
import type { UnitId } from '~core/model/ids';
import { START_SIZE_LIMIT_PERCENT } from '~core/plan/limits';
import { planIndex } from '~core/plan/planIndex';
import { startSizes } from '~core/plan/startSizes';
import { formatFigure } from '~core/quantity/format';
import { LeaveGuard } from '../../form/UnsavedGuard';
import { StaleNote } from '../../form/StaleNote';
import { useRecordForm } from '../../form/useRecordForm';
import { PlanView } from '../../ui/PlanView';
import { Tessera, TesseraName, tesseraLetter } from '../../ui/Tessera';
import { unitNumber, useTileInk } from '../../ui/UnitTile';
import type { LayoutData } from './layoutData';
import { sizesRecord, startSize } from './layoutRecords';
import { FramedFault, figuresIn } from '../../form/Framed';

/** Start size of every unit, and whether the contenders began alike. */
export function SizesView({ plan, positions, seal, head }: LayoutData & { head: ReactNode }) {
  const tileInk = useTileInk();
  const defaults = useMemo(() => sizesRecord.shown(plan), [plan]);
  const { form, busy, stale, conflicts, onSubmit } = useRecordForm(defaults, { merges: sizesRecord.name });
  const { isDirty } = form.formState;
  const typed = useWatch({ control: form.control, name: 'sizes' });
  const { figures, faults } = figuresIn(typed, startSize);
  const { rows, spreadPercent: spread } = startSizes(plan, figures);
  return (
    <form className="with-side" onSubmit={onSubmit} noValidate>
      <LeaveGuard unsaved={isDirty} isOnItsWay={busy} what="The start sizes you typed" />
      <div className="main">
        {head}
        <StaleNote stale={stale} conflicts={conflicts} />
        {plan.units.length > 0 ? (
          <PlanView
            plan={plan}
            positions={positions}
            renderPlace={(_, unit) => {
              if (!unit) return <span className="place" />;
              const index = plan.treatments.findIndex((t) => t.id === unit.treatmentId);
              return (
                <label
                  className={`reading-place${faults.has(unit.id) ? ' wrong' : ''}`}
                  style={tileInk(index)}
                >
                  <span className="small">
                    <Tessera index={index} size={14} /> {tesseraLetter(index)} {unitNumber(unit.code)}
                  </span>
                  <input
                    inputMode="decimal"
                    aria-label={`Start size of ${unit.code}`}
                    aria-invalid={faults.has(unit.id)}
                    disabled={seal !== null}
                    {...form.register(`sizes.${unit.id}`)}
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
        <FramedFault
          typed={typed}
          faults={faults}
          called={(id) => planIndex(plan).unit(id as UnitId)?.code ?? id}
          onPick={(id, text) => form.setValue(`sizes.${id}`, text, { shouldDirty: true })}
        />
        {seal === null && plan.units.length > 0 && (
          <div>
            <Button type="submit" variant="contained" disabled={busy}>
              Save the start sizes
            </Button>
          </div>
        )}
      </aside>
    </form>
  );
}
