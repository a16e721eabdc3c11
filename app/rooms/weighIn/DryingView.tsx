import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { type ReactNode, useState } from 'react';
import { z } from 'zod';
import { type DryingSeries, USUAL_CONSTANT_PERCENT, dryingOf } from '~core/log/drying';
import { localDay } from '~core/log/localDay';
import type { TrialState } from '~core/log/state';
import type { Trait } from '~core/model/plan';
import { formatFigure, formatSigned, plural } from '~core/quantity/format';
import { readQuantity } from '~core/quantity/quantity';
import { faultOrReadings } from '../../ui/Readings';
import { temperatureText } from '~core/quantity/temperature';
import { shortDate } from '../../ui/clock';
import { InstrumentDrawer } from '../../instruments/InstrumentDrawer';
import { Caution } from '../../ui/Caution';
import { ToggleRow } from '../../ui/ToggleRow';
import { UnitsPlan } from '../../walk/UnitsPlan';
import type { Paste } from '../../walk/PasteDialog';
import { Walk } from '../../walk/Walk';
import type { Capture } from '../../walk/capture';
import { stopsOfUnits, walkOf } from '../../walk/stops';
import { useSitting } from '../../walk/useSitting';

/** What is typed for one unit. */
const Weight = z.object({
  gross: z.string(),
  instrument: z.string(),
  /** chosen for it; null: the one that is next */
  stage: z.enum(['fresh', 'dry']).nullable(),
});
type Weight = z.infer<typeof Weight>;

const draftOf = (grossG: number): Weight => ({ gross: `${grossG} g`, instrument: '', stage: null });

const stages = [
  ['fresh', 'fresh'],
  ['dry', 'out of the oven'],
] as const;

/** Dries to constant weight: fresh once, then again and again until it stays the same. */
export function DryingView({ state, trait, head }: { state: TrialState; trait: Trait; head: ReactNode }) {
  const { plan } = state;
  const sitting = useSitting(plan, { id: `dry-${trait.id}`, name: trait.name, day: null });
  const walk = walkOf(state, trait);
  const series = new Map(walk.map((u) => [u.id, dryingOf(state, u.id, trait)]));
  const stops = stopsOfUnits(walk, (u) => series.get(u.id)?.dryG == null);
  const constant = walk.filter((u) => stops.open(u) === undefined).length;
  const [container, setContainer] = useState('');
  const [together, setTogether] = useState('1');
  const tareG = state.tares.get(container) ?? 0;
  const percent = trait.constantPercent ?? USUAL_CONSTANT_PERCENT;
  // Fresh first, unless it was forgotten.
  const stageOf = ({ stage }: Weight, own: DryingSeries | null | undefined) =>
    stage ?? (own == null ? 'fresh' : 'dry');
  const n = /^[1-9]\d{0,2}$/.test(together.trim()) ? Number(together) : null;
  const capture: Capture<Weight> = {
    schema: Weight,
    blank: { gross: '', instrument: '', stage: null },
    isBlank: ({ gross }) => gross.trim() === '',
    resumes: true,
    textOf: ({ gross }) => gross,
    said: ({ gross }) => gross,
    fault(draft, { unit }) {
      const read = readQuantity(draft.gross, 'mass');
      const own = series.get(unit.id);
      if (!read.ok) return read.error;
      if (read.value < tareG) return `Less than the tare of ${formatFigure(tareG, 1)} g: another container?`;
      if (n === null) return 'How many were dried together? A whole number.';
      return own?.freshG != null && stageOf(draft, own) === 'dry' && read.value - tareG > own.freshG
        ? `More than it weighed fresh, ${formatFigure(own.freshG, 1)} g.`
        : null;
    },
    doubt: () => null,
    bodies(draft, { unit }) {
      const read = readQuantity(draft.gross, 'mass');
      if (!read.ok || n === null) return [];
      const stage = stageOf(draft, series.get(unit.id));
      const weight = { stage, grossG: read.value, tareG, container, together: n };
      const instrument = draft.instrument || 'typed';
      return [{ kind: 'drying', unitId: unit.id, traitId: trait.id, ...weight, instrument }];
    },
  };
  const paste: Paste = {
    title: `${trait.name}, gross`,
    columns: [
      {
        names: [trait.name],
        read: (text) => readQuantity(text, 'mass'),
        fault: (grossG, { id }) => {
          const unit = walk.find((u) => u.id === id)!;
          return capture.fault(draftOf(grossG), { unit, sample: null });
        },
      },
    ],
    say: (grossG) => `${formatFigure(grossG, 2)} g`,
    doubt: () => null,
    bodies: (unit, values) =>
      [...values.values()].flatMap((g) => capture.bodies(draftOf(g), { unit, sample: null })),
  };
  return (
    <Walk
      {...{ state, stops, capture, sitting, paste }}
      scope={`${plan.id}/dry/${trait.id}`}
      label="Drying"
      className="plain"
      sideClass="stack"
      main={({ unit }, pick) => (
        <>
          {head}
          <p className="small quiet" role="status">
            {constant} of {walk.length} {plural(plan.unitNoun)} are constant: the last weight less than{' '}
            {percent} % from the one before.
          </p>
          <UnitsPlan
            state={state}
            current={unit.id}
            onPick={pick}
            valueOf={(u) => {
              const s = series.get(u.id);
              if (s === undefined) return null;
              if (s === null) return '–';
              if (s.dryG !== null) return formatFigure(s.dryG, trait.decimals);
              return s.steps.length === 0 ? 'fresh' : 'drying';
            }}
          />
          <Caution>
            Low heat and fresh air: {temperatureText(60, 0)} to {temperatureText(80, 0)}, door ajar, not in an
            oven used for food without thought; nothing that was treated with pesticides. Paper bags don’t
            touch the elements.
          </Caution>
        </>
      )}
      pad={({ unit, draft, put, enter, fault }) => {
        const own = series.get(unit.id) ?? null;
        const read = readQuantity(draft.gross, 'mass');
        return (
          <>
            {own && <WeightsSoFar own={own} noun={plan.unitNoun} />}
            <ToggleRow
              wide
              label="Weighed"
              value={stageOf(draft, own)}
              options={stages}
              onPick={(stage) => put({ stage })}
            />
            <TextField
              label="Gross weight"
              value={draft.gross}
              onChange={(e) => put({ gross: e.target.value, instrument: '' })}
              onKeyDown={(e) => e.key === 'Enter' && enter()}
              error={fault !== null}
              helperText={
                fault !== null
                  ? faultOrReadings(fault, draft.gross, (gross) => put({ gross, instrument: '' }))
                  : read.ok
                    ? `net ${formatFigure(read.value - tareG, 2)} g`
                    : 'a scale that shows tenths or better; “2.5 oz” is read too'
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
            <Button variant="contained" onClick={enter}>
              Keep the weight
            </Button>
            <InstrumentDrawer
              measures="weight"
              called="scale"
              takeLabel="Take reading"
              onTake={(r) => put({ gross: String(r.values.weight ?? 0), instrument: r.instrument }, 'taken')}
            />
          </>
        );
      }}
      done={
        constant === walk.length
          ? { said: `All ${constant} ${plural(plan.unitNoun)} are constant.`, next: null }
          : null
      }
    />
  );
}

/** A unit’s weights, and what they come to. */
function WeightsSoFar({ own, noun }: { own: DryingSeries; noun: string }) {
  return (
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
          {own.together} dried together: one value for the {noun}.
        </li>
      )}
    </ul>
  );
}
