import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import TextField from '@mui/material/TextField';
import { type ReactNode, useMemo, useState } from 'react';
import { exposureSpreadPercent, meanExposure } from '~core/design/rotation';
import { positionsOf } from '~core/design/layOut';
import { numberIn } from '~core/quantity/number';
import { describeGridTextError, readGridText } from '~core/formats/gridText';
import type { Position } from '~core/model/plan';
import { positionKey } from '~core/model/positions';
import { formatFigure } from '~core/quantity/format';
import { LeaveGuard } from '../../form/UnsavedGuard';
import { useSend } from '../../form/usePost';
import { readOnce } from '../../instruments/instrument';
import { connect } from '../../instruments/registry';
import { PlanView } from '../../ui/PlanView';
import { Tessera, TesseraName, tesseraLetter } from '../../ui/Tessera';
import { GRADIENT_LIMIT_PERCENT } from '~core/plan/limits';
import { BalancePanel } from './BalancePanel';
import { tintOf } from './tint';
import type { LayoutData } from './layoutData';

/** The light map: readings per position, typed, pasted or from the meter; and what each contender gets. */
export function LightView({ plan, planRev, positions, seal, head }: LayoutData & { head: ReactNode }) {
  const send = useSend();
  const sealed = seal !== null;
  const [name, setName] = useState(plan.gradient?.name ?? 'Light');
  const [unit, setUnit] = useState(plan.gradient?.unit ?? 'µmol m⁻² s⁻¹');
  const [typed, setTyped] = useState<ReadonlyMap<string, string>>(
    () => new Map((plan.gradient?.readings ?? []).map((r) => [positionKey(r.position), String(r.value)])),
  );
  const [pasted, setPasted] = useState('');
  const [error, setError] = useState('');
  const [reading, setReading] = useState<number | null>(null);
  const [dirty, setDirty] = useState(false);

  const cells = useMemo(
    () =>
      positionsOf(plan.areas).map((c): Position => ({
        areaId: c.area as Position['areaId'],
        row: c.row,
        column: c.column,
      })),
    [plan.areas],
  );
  const readings = new Map<string, number>();
  const wrong = new Set<string>();
  for (const [key, text] of typed) {
    if (text.trim() === '') continue;
    const value = numberIn(text);
    if (value === null) wrong.add(key);
    else readings.set(key, value);
  }
  const set = (key: string, text: string) => {
    setTyped((old) => new Map(old).set(key, text));
    setDirty(true);
  };
  const keep = async () => {
    if (wrong.size > 0) return setError('Some figures on the plan aren’t numbers; they are framed.');
    setError('');
    setDirty(false);
    const kept = send({
      intent: 'readings',
      name,
      unit,
      readings: cells.flatMap((position) => {
        const value = readings.get(positionKey(position));
        return value === undefined ? [] : [{ position, value }];
      }),
    });
    if (!(await kept)) setDirty(true);
  };
  const takePasted = () => {
    const read = readGridText(pasted, plan.areas);
    if (!read.ok) return setError(describeGridTextError(read.error));
    setError('');
    setTyped(new Map(read.value.map((r) => [positionKey(r.position), String(r.value)])));
    setPasted('');
    setDirty(true);
  };
  const readAll = async () => {
    const meter = connect('light', { areas: plan.areas });
    if (!meter) return;
    setUnit(meter.channels[0]!.unit);
    for (const [i, position] of cells.entries()) {
      setReading(i);
      const value = (await readOnce(meter, { at: position })).values.light ?? 0;
      setTyped((old) => new Map(old).set(positionKey(position), String(value)));
    }
    setReading(null);
    setDirty(true);
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
          <p className="quiet">Say under Places where the units stand first.</p>
        </div>
      </div>
    );
  }
  const at = new Map(plan.units.map((u) => [positionKey(positions.get(u.id) ?? u.position), u]));
  return (
    <div className="with-side">
      <LeaveGuard unsaved={dirty} what="The readings you typed" />
      <div className="main">
        {head}
        <PlanView
          plan={plan}
          positions={positions}
          tint={tintOf(readings)}
          renderPlace={(position) => {
            const key = positionKey(position);
            const u = at.get(key);
            const index = u ? plan.treatments.findIndex((t) => t.id === u.treatmentId) : -1;
            return (
              <label className={`reading-place${wrong.has(key) ? ' wrong' : ''}`}>
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
                  aria-label={`Reading at row ${position.row + 1}, position ${position.column + 1}`}
                  aria-invalid={wrong.has(key)}
                  value={typed.get(key) ?? ''}
                  disabled={sealed}
                  onChange={(e) => set(key, e.target.value)}
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
        <TextField
          label="What was read"
          value={name}
          disabled={sealed}
          onChange={(e) => {
            setName(e.target.value);
            setDirty(true);
          }}
        />
        <TextField
          label="Unit"
          value={unit}
          disabled={sealed}
          onChange={(e) => {
            setUnit(e.target.value);
            setDirty(true);
          }}
        />
        {!sealed && (
          <>
            <div>
              <Button
                variant="outlined"
                color="secondary"
                disabled={reading !== null}
                onClick={() => void readAll()}
              >
                Read with the meter
              </Button>
              <p className="small quiet" style={{ marginTop: '0.3rem' }}>
                {reading === null
                  ? 'A simulated meter; type over what a real one shows.'
                  : `Place ${reading + 1} of ${cells.length} …`}
              </p>
            </div>
            <TextField
              label="Or paste a table"
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
            <div className="inline-row">
              <Button variant={dirty ? 'contained' : 'outlined'} onClick={() => void keep()}>
                Keep the readings
              </Button>
              {dirty && <span className="small quiet">Not kept yet</span>}
            </div>
            {reading !== null && (
              <LinearProgress
                variant="determinate"
                value={(100 * reading) / cells.length}
                aria-label="Readings"
              />
            )}
            <BalancePanel plan={plan} planRev={planRev} ready={!dirty && plan.gradient !== null} />
          </>
        )}
      </aside>
    </div>
  );
}
