import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { type ReactNode, useMemo, useState } from 'react';
import { tareDrift } from '~core/log/tareDrift';
import type { TrialState } from '~core/log/state';
import type { Round, Trait, Unit } from '~core/model/plan';
import { weightUnits } from '~core/quantity/amount';
import { formatFigure, plural } from '~core/quantity/format';
import { roundProgress } from '~core/schedule/rounds';
import { todayDate } from '../../ui/clock';
import { usePost } from '../../form/usePost';
import { InstrumentPart } from '../../instruments/InstrumentPart';
import { OtherInstruments } from '../../instruments/OtherInstruments';
import type { Instrument } from '../../instruments/instrument';
import { useInstrument } from '../../instruments/useInstrument';
import { useSteady } from '../../instruments/useSteady';
import { EntryPad } from '../../ui/EntryPad';
import { Legend } from '../../ui/Legend';
import { RoomHead } from '../../ui/RoomHead';
import { ToggleRow } from '../../ui/ToggleRow';
import { MeasurePlan } from '../../walk/MeasurePlan';
import type { Paste } from '../../walk/PasteDialog';
import { type InHand, Walk } from '../../walk/Walk';
import type { Onwards } from '../../walk/WhatIsNext';
import type { Capture, Stop } from '../../walk/capture';
import { standingAt, stopsOfRound } from '../../walk/stops';
import { useSitting } from '../../walk/useSitting';
import { CloseRound } from '../rounds/CloseRound';
import { Container } from './Container';
import { keepMassUnit, massUnitOf } from './massUnit';
import { ScaleFigure, emptyScale, gramsOn, readWeight, withReading, turnedTo, typed } from './scaleFigure';
import { useManner } from './useManner';
import { type Weight, doubtOfWeight, faultOfWeight, loadAdded, netOf, weighingOf } from './weighChecks';

interface Props {
  state: TrialState;
  /** shown under the title */
  head?: ReactNode;
  round: Round;
  trait: Trait;
  when: string;
  visits: { key: string; label: string }[];
  visit: string;
  onVisit: (key: string) => void;
  /** a weighing that is due and open */
  next: Onwards | null;
}

/** Weighs every unit once: gross from scale or pad, tare of the container, net into the log. */
export function WeighWalk({ state, head, round, trait, when, visits, visit, onVisit, next }: Props) {
  const { plan } = state;
  const post = usePost({ tiles: true });
  const sitting = useSitting(plan, round);
  const { instrument: scale, others, open, fault } = useInstrument('weight');
  const [manner, setManner] = useManner(plan.id);
  const [common, setContainer] = useState<string>(() => [...state.tares.keys()][0] ?? '');
  const [unitOfMass, setUnitOfMass] = useState(() => massUnitOf(plan.id));
  /** steady readings are taken by themselves */
  const [auto, setAuto] = useState(false);
  /** weighing without a container was confirmed once */
  const [noTare, setNoTare] = useState(false);
  /** On a phone the keypad is there at once where no scale is. */
  const [typing, setTyping] = useState(scale === null);
  const stops = useMemo(() => stopsOfRound(state, trait, round), [state, trait, round]);
  const crops = plan.cropsWithin;
  const containerOf = (unit: Unit) =>
    manner === 'same' ? common : manner === 'own' ? `container of ${unit.code}` : '';
  const tareOf = (unit: Unit) => state.tares.get(containerOf(unit)) ?? 0;
  const standing = standingAt(state, trait, round);
  const weightOf = (draft: ScaleFigure, unit: Unit): Weight | null => {
    const grossG = gramsOn(draft);
    return grossG === null ? null : { grossG, tareG: tareOf(unit), reading: draft.reading };
  };
  const lineOf = (weight: Weight, { unit, sample }: Stop) =>
    weighingOf(unit, trait, round, { sample, container: containerOf(unit) }, weight);
  const capture: Capture<ScaleFigure> = {
    schema: ScaleFigure,
    blank: { ...emptyScale, unit: unitOfMass },
    isBlank: ({ text }) => text === '',
    resumes: false,
    textOf: ({ text }) => text,
    said: ({ text, unit }) => `${text} ${unit} gross`,
    fault(draft, { unit }) {
      const weight = weightOf(draft, unit);
      return weight && faultOfWeight(weight);
    },
    doubt(draft, at, today) {
      const weight = weightOf(draft, at.unit);
      const withoutTare = noTare || manner === 'pan';
      return (
        weight &&
        doubtOfWeight(state, weight, { ...at, trait, round, standing: standing(at), today, withoutTare })
      );
    },
    bodies(draft, at) {
      const weight = weightOf(draft, at.unit);
      return weight ? [lineOf(weight, at)] : [];
    },
  };
  const paste: Paste = {
    title: `${trait.name}, gross`,
    columns: (stops.several ? crops : [trait.name]).map((name) => ({
      ...{ names: [name] as [string], read: (text: string) => readWeight(text, unitOfMass) },
      fault: (grossG, { id }) => {
        const unit = stops.units.find((u) => u.id === id)!;
        return faultOfWeight({ grossG, tareG: tareOf(unit) });
      },
    })),
    say: (grossG) => `${formatFigure(grossG, trait.decimals)} g`,
    doubt(unit, column, grossG) {
      const at = { unit, sample: stops.several ? column + 1 : null };
      const weight = { grossG, tareG: tareOf(unit), reading: null };
      const asked = { trait, round, standing: standing(at), today: null, withoutTare: manner === 'pan' };
      return doubtOfWeight(state, weight, { ...at, ...asked });
    },
    bodies: (unit, values) =>
      [...values].map(([column, grossG]) =>
        lineOf(
          { grossG, tareG: tareOf(unit), reading: null },
          { unit, sample: stops.several ? column + 1 : null },
        ),
      ),
  };
  const done = stops.units.filter((u) => stops.open(u) === undefined).length;
  const progress = roundProgress(state, todayDate()).find((r) => r.round.id === round.id);
  return (
    <Walk
      {...{ state, stops, capture, sitting, paste }}
      scope={`${plan.id}/${round.id}/${trait.id}`}
      label="Scale and pad"
      sideClass={typing ? '' : 'pad-away'}
      main={({ unit, draft, put }, pick) => {
        const weight = weightOf(draft, unit);
        return (
          <>
            <RoomHead
              title={`Weigh-in · ${trait.name.toLowerCase()}`}
              actions={
                visits.length > 1 && (
                  <TextField
                    select
                    label="Weighing"
                    value={visit}
                    onChange={(e) => onVisit(e.target.value)}
                    sx={{ width: 220 }}
                  >
                    {visits.map((v) => (
                      <MenuItem key={v.key} value={v.key}>
                        {v.label}
                      </MenuItem>
                    ))}
                  </TextField>
                )
              }
            >
              {when} {done} of {stops.units.length} weighed. Net weights stand on the plan, in grams.
            </RoomHead>
            {head}
            {progress && <CloseRound progress={progress} />}
            <MeasurePlan
              {...{ state, round, trait }}
              current={unit.id}
              typed={weight ? formatFigure(netOf(weight), trait.decimals) : ''}
              onPick={pick}
            />
            <Legend plan={plan} />
            <Container
              manner={manner}
              onManner={setManner}
              drift={tareDrift(state, containerOf(unit))}
              tares={state.tares}
              chosen={containerOf(unit)}
              onChoose={setContainer}
              onTare={(name, grams, instrument) => {
                post({
                  body: {
                    ...{ kind: 'reading', quantity: 'tare', value: grams, subject: name },
                    ...{ unitId: null, treatmentId: null, instrument },
                  },
                });
                if (manner === 'same') setContainer(name);
              }}
              grossG={weight?.grossG ?? null}
              instrument={draft.reading?.instrument ?? 'typed'}
              clear={() => put(typed(draft, ''), 'taken')}
            />
          </>
        );
      }}
      pad={(at) => {
        const { draft, put, sample } = at;
        const weight = weightOf(draft, at.unit);
        const container = containerOf(at.unit);
        return (
          <>
            {sample !== null && (
              <ToggleRow
                wide
                label="Crop"
                value={sample}
                options={crops.map((crop, i) => [i + 1, crop] as const)}
                onPick={at.toSample}
              />
            )}
            <OtherInstruments others={others} fault={fault} onOpen={open} />
            {scale && auto && (
              <SteadyReadings
                scale={scale}
                floorG={tareOf(at.unit)}
                onTake={(grams) => {
                  const read = { grams, steady: true, instrument: scale.name, stepG: scale.step };
                  at.offer(withReading(draft, read));
                }}
              />
            )}
            {scale && (
              <InstrumentPart
                instrument={scale}
                takeLabel="Take reading"
                onTake={({ values, atRest, instrument, step }) => {
                  const read = { grams: values.weight ?? 0, steady: atRest, instrument, stepG: step };
                  put(withReading(draft, read), 'taken');
                }}
              />
            )}
            <ToggleRow
              wide
              label="Unit of the gross weight"
              value={draft.unit}
              options={weightUnits.map((u) => [u, u] as const)}
              onPick={(u) => {
                // Typed figures in another unit are another weight: it is asked about anew.
                put(turnedTo(draft, u), 'taken');
                setUnitOfMass(u);
                keepMassUnit(plan.id, u);
              }}
            />
            <EntryPad
              text={draft.text}
              onText={(t, corrected) => put(typed(draft, t), corrected ? 'corrected' : 'typed')}
              unit={`${draft.unit} gross`}
              left={`${trait.name} · tare ${formatFigure(tareOf(at.unit), 1)} g${container && `, ${container}`}`}
              right={weight ? `net ${formatFigure(netOf(weight), trait.decimals)} g` : ''}
              warning={at.warning}
              error={at.fault}
              keepLabel={
                !weight
                  ? 'Go on without a weight'
                  : `Keep net, go to ${at.nextName ?? (sample !== null ? crops[sample] : undefined) ?? 'the next'}`
              }
              onKeep={at.enter}
              onSomethingOff={at.somethingOff}
            />
          </>
        );
      }}
      rows={(at) => (
        <>
          <AnotherLoad
            {...{ state, trait, round, at }}
            weight={weightOf(at.draft, at.unit)}
            before={standing(at)?.weighing ?? null}
            onAdd={(load) => at.write({ load: lineOf(load, at) }, 'stay')}
          />
          <button
            type="button"
            className="pad-row phone-only"
            onClick={() => setTyping(!typing)}
            aria-expanded={typing}
          >
            {typing ? 'Pad away' : 'Type the weight'}
          </button>
        </>
      )}
      more={
        scale && (
          <label className="pad-row" style={{ cursor: 'pointer' }}>
            <span>Take steady readings by itself</span>
            <input type="checkbox" checked={auto} onChange={(e) => setAuto(e.target.checked)} />
          </label>
        )
      }
      standing={{ trait, of: standing }}
      sampleName={({ sample }) => crops[(sample ?? 1) - 1] ?? `sample ${sample}`}
      onSent={({ unit }) => tareOf(unit) === 0 && setNoTare(true)}
      done={
        done === stops.units.length
          ? { said: `All ${done} ${plural(plan.unitNoun)} are weighed.`, next }
          : null
      }
    />
  );
}

interface LoadProps {
  state: TrialState;
  trait: Trait;
  round: Round;
  at: InHand<ScaleFigure>;
  /** what stands on the pad */
  weight: Weight | null;
  /** what stands of the unit in this round */
  before: Pick<Weight, 'grossG' | 'tareG'> | null;
  onAdd: (load: Weight) => void;
}

/** What didn't go on the scale at once is weighed in several loads, and stays at its unit. */
function AnotherLoad({ state, trait, round, at, weight, before, onAdd }: LoadProps) {
  if (!weight || !before || netOf(weight) <= 0) return null;
  const { unit, sample } = at;
  const together = loadAdded(state, before, weight, { unit, trait, round, sample });
  return (
    <button type="button" className="pad-row" onClick={() => onAdd(weight)}>
      <span>
        Another load: add it, {formatFigure(together.netG, trait.decimals)} g net together
        {together.doubt && `. ${together.doubt}`}
      </span>
    </button>
  );
}

/** Listens to the scale and takes what rests on it. */
function SteadyReadings({
  scale,
  floorG,
  onTake,
}: {
  scale: Instrument;
  floorG: number;
  onTake: (grams: number) => void;
}) {
  useSteady(scale, floorG, onTake);
  return null;
}
