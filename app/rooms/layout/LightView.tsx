import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import TextField from '@mui/material/TextField';
import { type ReactNode, useMemo, useState } from 'react';
import { exposureSpreadPercent, meanExposure } from '~core/design/rotation';
import { describeGridTextError, readGridText } from '~core/formats/gridText';
import { positionKey } from '~core/model/positions';
import type { Position } from '~core/model/plan';
import { formatFigure, sentenceCase } from '~core/quantity/format';
import { LeaveGuard } from '../../form/UnsavedGuard';
import { Field, LockedForm } from '../../form/fields';
import { StaleNote } from '../../form/StaleNote';
import { useRecordForm } from '../../form/useRecordForm';
import { FormProvider, useWatch } from 'react-hook-form';
import { type Instrument, readOnce } from '../../instruments/instrument';
import { connect } from '../../instruments/registry';
import { PlanView } from '../../ui/PlanView';
import { Tessera, TesseraName, tesseraLetter } from '../../ui/Tessera';
import { GRADIENT_LIMIT_PERCENT } from '~core/plan/limits';
import { BalancePart } from './BalancePart';
import { tintOf } from './tint';
import type { LayoutData } from './layoutData';
import { cellsOf, placeReading, readingsRecord } from './layoutRecords';
import { FramedFault, figuresIn } from '../../form/Framed';

/** The light map: readings per position, typed, pasted or from the meter; and what each contender gets. */
export function LightView({ plan, planRev, positions, seal, head }: LayoutData & { head: ReactNode }) {
  const sealed = seal !== null;
  const defaults = useMemo(() => readingsRecord.shown(plan), [plan]);
  const { form, busy, stale, conflicts, onSubmit } = useRecordForm(defaults, { merges: readingsRecord.name });
  const { isDirty } = form.formState;
  const { name, unit, at: typed } = useWatch({ control: form.control }) as typeof defaults;
  const [pasted, setPasted] = useState('');
  const [error, setError] = useState('');
  const [reading, setReading] = useState<number | null>(null);
  const cells = useMemo(() => cellsOf(plan), [plan]);
  // Another tab may have taken places away meanwhile.
  const there = cells.map(positionKey);
  const { figures: readings, faults } = figuresIn(
    Object.fromEntries(there.map((key) => [key, typed[key] ?? ''])),
    placeReading,
  );
  const calledAt = (p: Position) => `row ${p.row + 1}, position ${p.column + 1}`;
  const set = (key: string, text: string) => form.setValue(`at.${key}`, text, { shouldDirty: true });
  const takePasted = () => {
    const read = readGridText(pasted, plan.areas);
    if (!read.ok) return setError(describeGridTextError(read.error));
    setError('');
    const given = new Map(read.value.map((r) => [positionKey(r.position), String(r.value)]));
    for (const p of cells) set(positionKey(p), given.get(positionKey(p)) ?? '');
    setPasted('');
  };
  const meter = useMemo(() => connect('light', { areas: plan.areas }), [plan.areas]);
  const readAll = async (meter: Instrument) => {
    form.setValue('unit', meter.channels[0]!.unit, { shouldDirty: true });
    for (const [i, position] of cells.entries()) {
      setReading(i);
      const value = (await readOnce(meter, { at: position })).values.light ?? 0;
      set(positionKey(position), String(value));
    }
    setReading(null);
  };
  const withReadings = {
    ...plan,
    gradient: {
      name,
      unit,
      readings: cells.flatMap((position) => {
        const value = readings.get(positionKey(position));
        return value === undefined ? [] : [{ position, value }];
      }),
    },
  };
  const means = meanExposure(withReadings);
  const spread = exposureSpreadPercent(means);

  if (plan.areas.length === 0) {
    return (
      <div className="with-side alone">
        <div className="main">
          {head}
          <p className="quiet">Say under Areas where the units stand first.</p>
        </div>
      </div>
    );
  }
  const at = new Map(plan.units.map((u) => [positionKey(positions.get(u.id) ?? u.position), u]));
  return (
    <FormProvider {...form}>
      <form className="with-side" onSubmit={onSubmit} noValidate>
        <LeaveGuard unsaved={isDirty} isOnItsWay={busy} what="The readings you typed" />
        <div className="main">
          {head}
          <StaleNote stale={stale} conflicts={conflicts} />
          <PlanView
            plan={plan}
            positions={positions}
            tint={tintOf(readings)}
            renderPlace={(position) => {
              const key = positionKey(position);
              const u = at.get(key);
              const index = u ? plan.treatments.findIndex((t) => t.id === u.treatmentId) : -1;
              return (
                <label className={`reading-place${faults.has(key) ? ' wrong' : ''}`}>
                  <span className="small">
                    {u ? (
                      <>
                        <Tessera index={index} size={14} /> {tesseraLetter(index)}
                      </>
                    ) : (
                      'free'
                    )}
                  </span>
                  <input
                    inputMode="decimal"
                    aria-label={`Reading at ${calledAt(position)}`}
                    aria-invalid={faults.has(key)}
                    disabled={sealed}
                    {...form.register(`at.${key}`)}
                  />
                </label>
              );
            }}
          />
          {spread !== null && (
            <section className="section">
              <h2>What each contender gets</h2>
              <table className="ledger" style={{ maxWidth: '34rem' }}>
                <thead>
                  <tr>
                    <th>contender</th>
                    <th className="n">mean {name.toLowerCase()}</th>
                  </tr>
                </thead>
                <tbody>
                  {plan.treatments.map((t, i) => (
                    <tr key={t.id}>
                      <td>
                        <TesseraName index={i} size={18} name={t.name} />
                      </td>
                      <td className="n">
                        {means.has(t.id) ? formatFigure(means.get(t.id)!, 0) : '–'}{' '}
                        <span className="unit">{unit}</span>
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
              <p
                className={spread > GRADIENT_LIMIT_PERCENT ? 'note bad' : 'note good'}
                style={{ marginTop: '0.8rem' }}
              >
                {formatFigure(spread, 1)} % apart{plan.rotation ? ' over the rotation' : ''}
                {spread > GRADIENT_LIMIT_PERCENT
                  ? ': more than the twentieth that fairness allows.'
                  : ': fair enough.'}
              </p>
            </section>
          )}
        </div>
        <aside className="side stack">
          <h2>Readings</h2>
          <LockedForm value={sealed}>
            <Field name="name" label="What was read" />
            <Field name="unit" label="Unit" />
          </LockedForm>
          {!sealed && (
            <>
              {meter && (
                <div>
                  <Button
                    variant="outlined"
                    color="secondary"
                    disabled={reading !== null}
                    onClick={() => void readAll(meter)}
                  >
                    Read with the meter
                  </Button>
                  <p className="small quiet" style={{ marginTop: '0.3rem' }}>
                    {reading === null
                      ? 'A simulated meter; type over what a real one shows.'
                      : `Place ${reading + 1} of ${cells.length} …`}
                  </p>
                </div>
              )}
              <TextField
                label={meter ? 'Or paste a table' : 'Paste a table'}
                multiline
                minRows={2}
                value={pasted}
                onChange={(e) => setPasted(e.target.value)}
                helperText="one line a row, back row first"
              />
              {pasted.trim() !== '' && (
                <div>
                  <Button size="small" color="secondary" variant="outlined" onClick={takePasted}>
                    Put it on the plan
                  </Button>
                </div>
              )}
              {error && (
                <p role="alert" className="small" style={{ color: 'var(--porphyry)' }}>
                  {error}
                </p>
              )}
              <FramedFault
                typed={typed}
                faults={faults}
                called={(key) => sentenceCase(calledAt(cells.find((p) => positionKey(p) === key)!))}
                onPick={set}
              />
              <div className="inline-row">
                <Button type="submit" variant={isDirty ? 'contained' : 'outlined'} disabled={busy}>
                  Keep the readings
                </Button>
                {isDirty && <span className="small quiet">Not kept yet</span>}
              </div>
              {reading !== null && (
                <LinearProgress
                  variant="determinate"
                  value={(100 * reading) / cells.length}
                  aria-label="Readings"
                />
              )}
              <BalancePart plan={plan} planRev={planRev} ready={!isDirty && plan.gradient !== null} />
            </>
          )}
        </aside>
      </form>
    </FormProvider>
  );
}
