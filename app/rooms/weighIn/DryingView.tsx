import { SittingChoice, useSitting } from '../../walk/SittingChoice';
import { faultOfSitting, whenOf } from '../../walk/sitting';
import { temperatureText } from '~core/quantity/temperature';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { type ReactNode, useState } from 'react';
import { USUAL_CONSTANT_PERCENT, dryingOf } from '~core/log/drying';
import type { TrialState } from '~core/log/state';
import type { RoundId, UnitId } from '~core/model/ids';
import { dayOfDate } from '~core/plan/days';
import type { Trait } from '~core/model/plan';
import { planIndex } from '~core/plan/planIndex';
import { readQuantity } from '~core/quantity/quantity';
import { formatFigure, formatSigned, plural } from '~core/quantity/format';
import { localDay } from '~core/log/localDay';
import { shortDate, todayDate } from '../../bench/clock';
import { LeaveGuard } from '../../form/UnsavedGuard';
import { useSend } from '../../form/usePost';
import { InstrumentDrawer } from '../../instruments/InstrumentDrawer';
import { Caution } from '../../ui/Caution';
import { PlanView } from '../../ui/PlanView';
import { UnitFace, tileInk, unitNumber } from '../../ui/UnitTile';
import { UnitHeading } from '../UnitHeading';
import { walkOf } from '../rounds/walk';
import { OtherTyped } from './OtherTyped';
import { type TypedByUnit, withTyped, withoutSent } from './typedByUnit';

/** What is typed for one unit. */
interface Weight {
  gross: string;
  instrument: string;
  /** chosen for it; null: the one that is next */
  stage: 'fresh' | 'dry' | null;
}
const noWeight: Weight = { gross: '', instrument: '', stage: null };
const isBlank = ({ gross, stage }: Weight) => gross.trim() === '' && stage === null;

/** Dries to constant weight: fresh once, then again and again until it stays the same. */
export function DryingView({ state, trait, head }: { state: TrialState; trait: Trait; head: ReactNode }) {
  const { plan } = state;
  const send = useSend();
  const [busy, setBusy] = useState(false);
  const today = todayDate();
  const drying = {
    id: `dry-${trait.id}` as RoundId,
    name: trait.name,
    day: dayOfDate(plan.startDate, today),
    traitIds: [],
  };
  const [sitting, setSitting] = useSitting(plan, drying);
  const walk = walkOf(state, trait);
  const series = new Map(walk.map((u) => [u.id, dryingOf(state, u.id, trait)]));
  const open = walk.filter((u) => series.get(u.id)?.dryG == null);
  const [chosen, setChosen] = useState<UnitId | null>(null);
  const unit = walk.find((u) => u.id === chosen) ?? open[0] ?? walk[0];
  const [all, setAll] = useState<TypedByUnit<Weight>>(new Map());
  const typed = (unit && all.get(unit.id)) ?? noWeight;
  const { gross, instrument, stage } = typed;
  const weights = new Map([...all].filter(([, w]) => w.gross.trim() !== ''));
  const [container, setContainer] = useState('');
  const [together, setTogether] = useState('1');
  const [fault, setFault] = useState('');
  if (!unit) return <p>No living {plan.unitNoun} is left.</p>;
  const own = series.get(unit.id) ?? null;
  // Fresh first, unless it was forgotten.
  const at = stage ?? (own === null ? 'fresh' : 'dry');
  const read = readQuantity(gross, 'mass');
  const tareG = state.tares.get(container) ?? 0;
  const percent = trait.constantPercent ?? USUAL_CONSTANT_PERCENT;
  const goTo = (id: UnitId | null) => {
    setChosen(id);
    setFault('');
  };
  const put = (change: Partial<Weight>) => {
    setAll(withTyped(all, unit.id, { ...typed, ...change }, isBlank));
    setFault('');
  };
  const keep = async () => {
    if (!read.ok) return setFault(read.error);
    const grossG = read.value;
    if (grossG < tareG)
      return setFault(`Less than the tare of ${formatFigure(tareG, 1)} g: another container?`);
    const n = /^\d{1,3}$/.test(together.trim()) ? Number(together) : 0;
    if (n < 1) return setFault('How many were dried together? A whole number.');
    if (own?.freshG != null && at === 'dry' && grossG - tareG > own.freshG)
      return setFault(`More than it weighed fresh, ${formatFigure(own.freshG, 1)} g.`);
    const notThen = faultOfSitting(sitting, today);
    if (notThen) return setFault(notThen);
    const when = whenOf(sitting, plan, drying, today);
    const sent = typed;
    setBusy(true);
    const kept = await send({
      body: {
        ...{ kind: 'drying', unitId: unit.id, traitId: trait.id, stage: at, grossG, tareG, container },
        ...{ together: n, instrument: instrument || 'typed' },
      },
      ...(when && { when }),
    });
    setBusy(false);
    // What wasn't kept stays here.
    if (!kept) return;
    setAll((now) => withoutSent(now, unit.id, sent));
    const i = walk.findIndex((u) => u.id === unit.id);
    const rest = [...walk.slice(i + 1), ...walk.slice(0, i)];
    const to = rest.find((u) => series.get(u.id)?.dryG == null)?.id ?? unit.id;
    // Who went to another one meanwhile stays there.
    setChosen((here) => (here === null || here === unit.id ? to : here));
  };
  const index = planIndex(plan).treatmentOrder(unit.treatmentId);
  return (
    <div className="with-side">
      <div className="main">
        {head}
        <LeaveGuard unsaved={weights.size > 0} what="The weight you typed" />
        <p className="small quiet" role="status">
          {walk.length - open.length} of {walk.length} {plural(plan.unitNoun)} are constant: the last weight
          less than {percent} % from the one before.
        </p>
        <PlanView
          plan={plan}
          positions={state.positions}
          renderPlace={(_, u) => {
            if (!u) return <span className="place" aria-hidden="true" />;
            const s = series.get(u.id);
            const i = planIndex(plan).treatmentOrder(u.treatmentId);
            const value =
              s == null
                ? '–'
                : s.dryG !== null
                  ? formatFigure(s.dryG, trait.decimals)
                  : s.steps.length === 0
                    ? 'fresh'
                    : 'drying';
            return (
              <button
                type="button"
                className={`tile${u.id === unit.id ? ' current' : ''}`}
                style={tileInk(i)}
                data-unit={u.code}
                disabled={!series.has(u.id)}
                onClick={() => goTo(u.id)}
              >
                <UnitFace index={i} number={unitNumber(u.code)} value={value} words={value === 'drying'} />
              </button>
            );
          }}
        />
        <Caution>
          Low heat and fresh air: {temperatureText(60, 0)} to {temperatureText(80, 0)}, door ajar, not in an
          oven used for food without thought; nothing that was treated with pesticides. Paper bags don’t touch
          the elements.
        </Caution>
      </div>
      <aside className="side stack" aria-label="Drying">
        <UnitHeading unit={unit} noun={plan.unitNoun} index={index} parts={state.parts.get(unit.id)} />
        <SittingChoice plan={plan} round={drying} sitting={sitting} onSay={setSitting} />
        {own && (
          <ul className="report-list small" aria-label="Weights so far">
            {own.freshG !== null && <li>fresh {formatFigure(own.freshG, 1)} g</li>}
            {own.steps.map((s) => (
              <li key={s.entryId}>
                {shortDate(localDay(s))}: {formatFigure(s.netG, 2)} g
                {s.changePercent !== null && ` (${formatSigned(s.changePercent, 1)} %)`}
              </li>
            ))}
            <li>
              {own.dryG === null
                ? own.steps.length < 2
                  ? 'Two weighings out of the oven are needed.'
                  : 'Still drying: weigh again.'
                : `Constant at ${formatFigure(own.dryG, 2)} g${own.waterPercent === null ? '' : `, ${formatFigure(own.waterPercent, 1)} % water`}.`}
            </li>
            {own.together > 1 && (
              <li>
                {own.together} dried together: one value for the {plan.unitNoun}.
              </li>
            )}
          </ul>
        )}
        <ToggleButtonGroup
          size="small"
          exclusive
          fullWidth
          value={at}
          onChange={(_, s: 'fresh' | 'dry' | null) => s && put({ stage: s })}
          aria-label="Weighed"
        >
          <ToggleButton value="fresh" sx={{ textTransform: 'none' }}>
            fresh
          </ToggleButton>
          <ToggleButton value="dry" sx={{ textTransform: 'none' }}>
            out of the oven
          </ToggleButton>
        </ToggleButtonGroup>
        <TextField
          label="Gross weight"
          value={gross}
          onChange={(e) => put({ gross: e.target.value, instrument: '' })}
          onKeyDown={(e) => e.key === 'Enter' && !busy && void keep()}
          error={fault !== ''}
          helperText={
            fault ||
            (read.ok
              ? `net ${formatFigure(read.value - tareG, 2)} g`
              : 'a scale that shows tenths or better; “2.5 oz” is read too')
          }
          slotProps={{
            htmlInput: { inputMode: 'decimal', 'aria-label': 'Gross weight in g' },
            input: { endAdornment: <span className="unit">g</span> },
            inputLabel: { shrink: true },
          }}
        />
        <TextField
          select
          size="small"
          label="Dried in"
          value={state.tares.has(container) ? container : ''}
          onChange={(e) => setContainer(e.target.value)}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        >
          <MenuItem value="">nothing, or zeroed</MenuItem>
          {[...state.tares].map(([n, g]) => (
            <MenuItem key={n} value={n}>
              {n}, {formatFigure(g, 1)} g
            </MenuItem>
          ))}
        </TextField>
        <TextField
          size="small"
          label="Heads or plants in it"
          value={together}
          onChange={(e) => setTogether(e.target.value)}
          slotProps={{ htmlInput: { inputMode: 'numeric' } }}
        />
        <Button variant="contained" onClick={() => void keep()} disabled={busy}>
          Keep the weight
        </Button>
        <OtherTyped units={walk} typed={weights} here={unit.id} onGo={goTo} />
        <InstrumentDrawer
          measures="weight"
          called="scale"
          takeLabel="Take reading"
          onTake={(r) => put({ gross: String(r.values.weight ?? 0), instrument: r.instrument })}
        />
      </aside>
    </div>
  );
}
