import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { type ReactNode, useCallback, useMemo, useState } from 'react';
import { farFromRound, implausible } from '~core/log/plausible';
import { tareDrift } from '~core/log/tareDrift';
import { samplesIn } from '~core/log/response';
import { type TrialState, observationsOf } from '~core/log/state';
import type { EntryBody } from '~core/log/entry';
import type { UnitId } from '~core/model/ids';
import type { Round, Trait } from '~core/model/plan';
import { type WeightUnit, fromGrams, toGrams, weightUnits } from '~core/quantity/amount';
import { formatFigure, plural } from '~core/quantity/format';
import { todayDate } from '../../bench/clock';
import { usePost, useSend } from '../../form/usePost';
import { InstrumentPanel } from '../../instruments/InstrumentPanel';
import { OtherInstruments } from '../../instruments/OtherInstruments';
import type { Instrument } from '../../instruments/instrument';
import { useSteady } from '../../instruments/useSteady';
import { useInstrument } from '../../instruments/useInstrument';
import { EntryPad } from '../../ui/EntryPad';
import { backToPad } from '../../ui/keys';
import { Legend } from '../../ui/Legend';
import { useTileInSight } from '../../ui/useTileInSight';
import { RoomHead } from '../../ui/RoomHead';
import { LogDialog } from '../LogDialog';
import { GoBack, SomethingOff, StandingValue, UnitHeading, spokenNumber } from '../UnitHeading';
import { FindUnit } from '../rounds/FindUnit';
import { LeftTypedList } from '../rounds/LeftTypedList';
import { MeasurePlan } from '../rounds/MeasurePlan';
import type { Weighed } from '../rounds/leftTyped';
import { useLeftTyped } from '../rounds/useLeftTyped';
import { firstOpenSample } from '~core/schedule/rounds';
import { nextStep, replacing, samplesAreAlike, stepFrom, walkOf } from '../rounds/walk';
import { Container } from './Container';
import { useManner } from './useManner';

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
}

/** Weighs every unit once: gross from scale or pad, tare of the container, net into the log. */
export function WeighWalk({ state, head, round, trait, when, visits, visit, onVisit }: Props) {
  const { plan } = state;
  const post = usePost({ tiles: true });
  const send = useSend();
  const sendValue = useSend({ tiles: true });
  const walk = useMemo(() => walkOf(state, trait), [state, trait]);
  const { instrument: scale, others, open, fault } = useInstrument('weight');
  const [unitId, setUnitId] = useState<UnitId | undefined>(
    () => nextStep(state, trait, round, null)?.unitId ?? walk[0]?.id,
  );
  const [text, setText] = useState('');
  const [weightUnit, setWeightUnit] = useState<WeightUnit>('g');
  const [reading, setReading] = useState<Weighed | null>(null);
  const [manner, setManner] = useManner(plan.id);
  const [common, setContainer] = useState<string>(() => [...state.tares.keys()][0] ?? '');
  /** steady readings are taken by themselves */
  const [auto, setAuto] = useState(false);
  const [confirmed, setConfirmed] = useState('');
  /** weighing without a container was confirmed once */
  const [noTare, setNoTare] = useState(false);
  const [error, setError] = useState<string | null>(null);
  /** a value for another day than today was confirmed once */
  const [otherDay, setOtherDay] = useState(false);
  const [off, setOff] = useState(false);
  useTileInSight(unitId);
  const [typing, setTyping] = useState(false);
  const [more, setMore] = useState(false);
  const [chosenCrop, setChosenCrop] = useState<number | null>(null);
  const goTo = useCallback((id: UnitId) => {
    setUnitId(id);
    setChosenCrop(null);
    setText('');
    setReading(null);
    setConfirmed('');
    setError(null);
  }, []);
  const unit = walk.find((u) => u.id === unitId) ?? walk[0];
  const container = manner === 'same' ? common : manner === 'own' && unit ? `container of ${unit.code}` : '';
  const tareG = state.tares.get(container) ?? 0;
  const grossG = text === '' ? null : Number(toGrams(Number(text), weightUnit).toFixed(4));
  const crops = plan.cropsWithin;
  // With several crops in a unit each is weighed on its own, in turn.
  const sample =
    unit && samplesIn(plan, trait) > 1
      ? (chosenCrop ?? firstOpenSample(state, unit.id, trait, round.id) ?? 1)
      : null;
  const none = { words: {}, borderline: 0, offType: 0 };
  const pad = useLeftTyped(
    `${plan.id}/${round.id}/${trait.id}`,
    unit ? { ...none, unitId: unit.id, sample, text: grossG === null ? '' : String(grossG), reading } : null,
    goTo,
  );
  const { leave, pick } = pad;
  if (!unit) return <p>No living {plan.unitNoun} is left.</p>;

  const netOf = (gross: number) => Number((gross - tareG).toFixed(4));
  const netG = grossG === null ? null : netOf(grossG);
  const standing = observationsOf(state, unit.id, trait.id, round.id).findLast((o) => o.sample === sample);
  const doubtOf = (net: number | null, read: Weighed | null): string | null => {
    const doubts = [
      net !== null && net >= 0 ? implausible(state, unit.id, trait, net, round.id) : null,
      net !== null && !otherDay ? farFromRound(plan, round, todayDate()) : null,
      read && !read.steady ? 'The scale wasn’t steady.' : null,
      net !== null && tareG === 0 && !noTare && manner !== 'pan' ? 'No tare is taken off.' : null,
      standing && net !== null && standing.value !== net ? replacing(standing.value, trait) : null,
    ].filter((d) => d !== null);
    return doubts.length > 0 ? doubts.join(' ') : null;
  };
  const doubt = doubtOf(netG, reading);
  const index = plan.treatments.findIndex((t) => t.id === unit.treatmentId);
  const next = walk[(walk.indexOf(unit) + 1) % walk.length];
  const done = walk.filter((u) => firstOpenSample(state, u.id, trait, round.id) === undefined).length;

  const write = (body: EntryBody) => post({ body });
  const changeUnit = (to: WeightUnit) => {
    // What the scale gave is the same weight in any unit; what was typed is as the person meant it.
    if (reading) setText(String(Number(fromGrams(reading.grams, to).toFixed(4))));
    setWeightUnit(to);
  };
  const goTowards = (by: 1 | -1) => {
    const step = stepFrom(state, trait, walk, { unitId: unit.id, sample }, by);
    goTo(step.unitId);
    if (step.unitId === unit.id || by === -1) setChosenCrop(step.sample);
  };
  const keep = () => {
    // Nothing weighed: this one is passed over, and stays open.
    if (grossG === null || netG === null) return goTowards(1);
    if (netG < 0)
      return setError(
        `${formatFigure(grossG, 1)} g is less than the tare of ${formatFigure(tareG, 1)} g: the wrong container?`,
      );
    if (doubt !== null && confirmed !== text) return setConfirmed(text);
    writeWeight(grossG, reading);
  };
  /** A steady reading goes into the log by itself, unless something about it is odd: then it stands on the pad. */
  const takeSteady = (grams: number) => {
    const read = { grams, steady: true, instrument: scale!.name, stepG: scale!.step };
    setReading(read);
    setText(String(Number(fromGrams(grams, weightUnit).toFixed(4))));
    setError(null);
    if (netOf(grams) >= 0 && doubtOf(netOf(grams), read) === null) writeWeight(grams, read);
  };
  const writeWeight = (grossG: number, reading: Weighed | null) => {
    if (tareG === 0) setNoTare(true);
    setOtherDay(true);
    const body = {
      kind: 'weighing' as const,
      unitId: unit.id,
      traitId: trait.id,
      roundId: round.id,
      sample,
      grossG,
      tareG,
      container,
      instrument: reading?.instrument ?? 'typed',
      stepG: reading?.stepG ?? null,
      steady: reading?.steady ?? null,
    };
    const sent = { ...none, unitId: unit.id, sample, text: String(grossG), reading };
    void sendValue({ body }).then((kept) => !kept && pad.refused(sent));
    pad.kept();
    goTowards(1);
  };

  return (
    <div className="with-side standing">
      <div className="main">
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
          {when} {done} of {walk.length} weighed. Net weights stand on the plan, in grams.
        </RoomHead>
        {head}
        <MeasurePlan
          state={state}
          round={round}
          trait={trait}
          current={unit.id}
          typed={netG === null ? '' : formatFigure(netG, trait.decimals)}
          onPick={pick}
        />
        <Legend plan={plan} />
        <Container
          manner={manner}
          onManner={setManner}
          drift={tareDrift(state, container)}
          tares={state.tares}
          chosen={container}
          onChoose={setContainer}
          onTare={(name, grams, instrument) => {
            write({
              kind: 'reading',
              quantity: 'tare',
              value: grams,
              subject: name,
              unitId: null,
              treatmentId: null,
              instrument,
            });
            if (manner === 'same') setContainer(name);
          }}
          grossG={grossG}
          instrument={reading?.instrument ?? 'typed'}
          clear={() => goTo(unit.id)}
        />
      </div>
      <aside className={typing ? 'side' : 'side pad-away'} aria-label="Scale and pad">
        <UnitHeading unit={unit} noun={plan.unitNoun} index={index} parts={state.parts.get(unit.id)} />
        <LeftTypedList
          plan={plan}
          left={pad.left}
          unit="g gross"
          onTake={(l) => {
            pick(l.unitId);
            pad.drop(l);
            setChosenCrop(l.sample);
            setWeightUnit('g');
            setText(l.text);
            setReading(l.reading);
            backToPad();
          }}
          onDrop={pad.drop}
        />
        {sample !== null && (
          <ToggleButtonGroup
            size="small"
            exclusive
            fullWidth
            value={sample}
            onChange={(_, s: number | null) => {
              if (s !== null) setChosenCrop(s);
              backToPad();
            }}
            aria-label="Crop"
            sx={{ my: 0.8 }}
          >
            {crops.map((crop, i) => (
              <ToggleButton key={crop} value={i + 1} sx={{ textTransform: 'none' }}>
                {crop}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        )}
        <OtherInstruments others={others} fault={fault} onOpen={open} />
        {scale && auto && <SteadyReadings scale={scale} floorG={tareG} onTake={takeSteady} />}
        {scale && (
          <InstrumentPanel
            instrument={scale}
            takeLabel="Take reading"
            onTake={(r) => {
              const grams = r.values.weight ?? 0;
              setReading({ grams, steady: r.atRest, instrument: r.instrument, stepG: r.step });
              setText(String(Number(fromGrams(grams, weightUnit).toFixed(4))));
              setError(null);
            }}
          />
        )}
        <ToggleButtonGroup
          size="small"
          exclusive
          fullWidth
          value={weightUnit}
          onChange={(_, u: WeightUnit | null) => u && changeUnit(u)}
          aria-label="Unit of the gross weight"
          sx={{ mt: 1.2 }}
        >
          {weightUnits.map((u) => (
            <ToggleButton key={u} value={u} sx={{ textTransform: 'none' }}>
              {u}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <EntryPad
          text={text}
          onText={(t) => {
            setText(t);
            setReading(null);
            setError(null);
          }}
          unit={`${weightUnit} gross`}
          left={`tare ${formatFigure(tareG, 1)} g${container ? `, ${container}` : ''}`}
          right={netG === null ? '' : `net ${formatFigure(netG, trait.decimals)} g`}
          warning={doubt !== null && confirmed === text && text !== '' ? doubt : null}
          error={error}
          keepLabel={
            grossG === null
              ? 'Go on without a weight'
              : sample !== null && sample < crops.length
                ? `Keep net, go to ${crops[sample]}`
                : next
                  ? `Keep net, go to ${plan.unitNoun} ${spokenNumber(next)}`
                  : 'Keep net'
          }
          onKeep={keep}
          onSomethingOff={() => setOff(true)}
        />
        <div className="pad-rows">
          {standing && <StandingValue label="Kept" standing={standing} trait={trait} />}
          <GoBack
            onBack={() => {
              leave();
              goTowards(-1);
            }}
          />
          <button
            type="button"
            className="pad-row phone-only"
            onClick={() => setTyping(!typing)}
            aria-expanded={typing}
          >
            {typing ? 'Pad away' : 'Type the weight'}
          </button>
          <SomethingOff onOpen={() => setOff(true)} />
          <button
            type="button"
            className="pad-row phone-only"
            onClick={() => setMore(!more)}
            aria-expanded={more}
          >
            {more ? 'Less' : 'More'}
          </button>
          <div className={more ? 'pad-more open' : 'pad-more'}>
            {scale && (
              <label className="pad-row" style={{ cursor: 'pointer' }}>
                <span>Take steady readings by itself</span>
                <input type="checkbox" checked={auto} onChange={(e) => setAuto(e.target.checked)} />
              </label>
            )}
            <FindUnit units={walk} onFound={pick} />
          </div>
          {done === walk.length && (
            <p role="status" className="small">
              All {walk.length} {plural(plan.unitNoun)} are weighed.
            </p>
          )}
        </div>
        {off && (
          <LogDialog
            unit={unit}
            sample={samplesAreAlike(plan) ? sample : null}
            sampleName={crops[(sample ?? 1) - 1]}
            onClose={() => setOff(false)}
            onKeep={(body) => send({ body })}
          />
        )}
      </aside>
    </div>
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
