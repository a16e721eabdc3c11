import { roundProgress } from '~core/schedule/rounds';
import { CloseRound } from '../rounds/CloseRound';
import { entered, nothingAsked, questionOf, typedOver } from '../../walk/asking';
import { SittingChoice, useSitting } from '../../walk/SittingChoice';
import { type Onwards, WhatIsNext } from '../../walk/WhatIsNext';
import { dayOfRound, faultOfSitting, whenOf } from '../../walk/sitting';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { type ReactNode, useCallback, useMemo, useState } from 'react';
import { tareDrift } from '~core/log/tareDrift';
import { samplesIn } from '~core/log/response';
import { type TrialState, observationsOf } from '~core/log/state';
import type { UnitId } from '~core/model/ids';
import type { Round, Trait } from '~core/model/plan';
import { type WeightUnit, weightUnits } from '~core/quantity/amount';
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
import { UnitHeading, spokenNumber } from '../UnitHeading';
import { LeftTypedList } from '../rounds/LeftTypedList';
import { MeasurePlan } from '../rounds/MeasurePlan';
import type { Weighed } from '../rounds/leftTyped';
import { useLeftTyped } from '../rounds/useLeftTyped';
import { firstOpenSample } from '~core/log/asked';
import { nextStep, samplesAreAlike, stepFrom, walkOf } from '../rounds/walk';
import { BesideScale } from './BesideScale';
import { Container } from './Container';
import { keepMassUnit, massUnitOf } from './massUnit';
import { emptyScale, gramsOn, taken, turnedTo, typed } from './scaleFigure';
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
  const send = useSend();
  const sendValue = useSend({ tiles: true });
  const walk = useMemo(() => walkOf(state, trait), [state, trait]);
  const { instrument: scale, others, open, fault } = useInstrument('weight');
  const [unitId, setUnitId] = useState<UnitId | undefined>(
    () => nextStep(state, trait, round, null)?.unitId ?? walk[0]?.id,
  );
  const [figure, setFigure] = useState(() => ({ ...emptyScale, unit: massUnitOf(plan.id) }));
  const [manner, setManner] = useManner(plan.id);
  const [common, setContainer] = useState<string>(() => [...state.tares.keys()][0] ?? '');
  /** steady readings are taken by themselves */
  const [auto, setAuto] = useState(false);
  const [asking, setAsking] = useState(nothingAsked);
  /** weighing without a container was confirmed once */
  const [noTare, setNoTare] = useState(false);
  const [error, setError] = useState<string | null>(null);
  const [sitting, setSitting] = useSitting(plan, round);
  /** a weight before its round’s day was confirmed once */
  const [early, setEarly] = useState(false);
  const [off, setOff] = useState(false);
  useTileInSight(unitId);
  /** On a phone the keypad is there at once where no scale is. */
  const [typing, setTyping] = useState(scale === null);
  const [chosenCrop, setChosenCrop] = useState<number | null>(null);
  const goTo = useCallback((id: UnitId) => {
    setUnitId(id);
    setChosenCrop(null);
    setFigure((f) => typed(f, ''));
    setAsking(nothingAsked);
    setError(null);
  }, []);
  const unit = walk.find((u) => u.id === unitId) ?? walk[0];
  const container = manner === 'same' ? common : manner === 'own' && unit ? `container of ${unit.code}` : '';
  const tareG = state.tares.get(container) ?? 0;
  const { reading } = figure;
  const grossG = gramsOn(figure);
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

  const standing = observationsOf(state, unit.id, trait.id, round.id).findLast((o) => o.sample === sample);
  const doubtOf = (weight: Weight) =>
    doubtOfWeight(state, weight, {
      ...{ unit, trait, round, sample, standing },
      // When it was is said once for the sitting; only a round that is to come is asked about.
      today: early || sitting.at !== 'now' || dayOfRound(plan, round) < todayDate() ? null : todayDate(),
      withoutTare: noTare || manner === 'pan',
    });
  const weight = grossG === null ? null : { grossG, tareG, reading };
  const netG = weight && netOf(weight);
  const doubt = weight && doubtOf(weight);
  const question = weight && questionOf({ ...asking, text: figure.text }, doubt, unit.code);
  const together =
    standing?.weighing && weight && netOf(weight) > 0
      ? loadAdded(state, standing.weighing, weight, { unit, trait, round, sample })
      : null;
  const happened = whenOf(sitting, plan, round, todayDate());
  const at = happened && { when: happened };
  const progress = roundProgress(state, todayDate()).find((r) => r.round.id === round.id);
  const index = plan.treatments.findIndex((t) => t.id === unit.treatmentId);
  const nextUnit = walk[(walk.indexOf(unit) + 1) % walk.length];
  const done = walk.filter((u) => firstOpenSample(state, u.id, trait, round.id) === undefined).length;

  const goTowards = (by: 1 | -1) => {
    const step = stepFrom(state, trait, walk, { unitId: unit.id, sample }, by);
    goTo(step.unitId);
    if (step.unitId === unit.id || by === -1) setChosenCrop(step.sample);
  };
  const keep = () => {
    // Nothing weighed: this one is passed over, and stays open.
    if (!weight) return goTowards(1);
    const fault = faultOfWeight(weight);
    if (fault) return setError(fault);
    const enter = entered({ ...asking, text: figure.text }, question);
    if (!enter.keep) return setAsking(enter.next);
    write(weight);
  };
  const take = (read: Weighed) => {
    setFigure((f) => taken(f, read));
    setAsking(nothingAsked);
    setError(null);
  };
  /** A steady reading goes into the log by itself, unless something about it is odd: then it stands on the pad. */
  const takeSteady = (grams: number) => {
    const read = { grams, steady: true, instrument: scale!.name, stepG: scale!.step };
    take(read);
    const steady = { grossG: grams, tareG, reading: read };
    if (faultOfWeight(steady) === null && doubtOf(steady) === null) write(steady);
  };
  const write = (weight: Weight) => {
    const notThen = faultOfSitting(sitting, todayDate());
    if (notThen) return setError(notThen);
    if (tareG === 0) setNoTare(true);
    setEarly(true);
    const sent = { ...none, unitId: unit.id, sample, text: String(weight.grossG), reading: weight.reading };
    const body = weighingOf(unit, trait, round, { sample, container }, weight);
    void sendValue({ body, ...at }).then((kept) => !kept && pad.refused(sent));
    pad.kept();
    goTowards(1);
  };

  /** What didn't go on the scale at once is weighed in several loads, and stays at its unit. */
  const addLoad = async (weight: Weight) => {
    const notThen = faultOfSitting(sitting, todayDate());
    if (notThen) return setError(notThen);
    const load = weighingOf(unit, trait, round, { sample, container }, weight);
    if (!(await send({ load, ...at }))) return;
    pad.kept();
    goTo(unit.id);
    setChosenCrop(sample);
    backToPad();
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
        {progress && <CloseRound progress={progress} />}
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
            post({
              body: {
                ...{ kind: 'reading', quantity: 'tare', value: grams, subject: name },
                ...{ unitId: null, treatmentId: null, instrument },
              },
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
        <SittingChoice plan={plan} round={round} sitting={sitting} onSay={setSitting} />
        <LeftTypedList
          plan={plan}
          left={pad.left}
          unit="g gross"
          onTake={(l) => {
            pick(l.unitId);
            pad.drop(l);
            setChosenCrop(l.sample);
            setFigure({ text: l.text, unit: 'g', reading: l.reading });
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
            onTake={({ values, atRest, instrument, step }) =>
              take({ grams: values.weight ?? 0, steady: atRest, instrument, stepG: step })
            }
          />
        )}
        <ToggleButtonGroup
          size="small"
          exclusive
          fullWidth
          value={figure.unit}
          onChange={(_, u: WeightUnit | null) => {
            if (!u) return;
            setFigure((f) => turnedTo(f, u));
            keepMassUnit(plan.id, u);
            // Typed figures in another unit are another weight: it is asked about anew.
            setAsking(nothingAsked);
          }}
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
          text={figure.text}
          onText={(t, corrected) => {
            setAsking(typedOver({ ...asking, text: figure.text }, t, corrected));
            setFigure((f) => typed(f, t));
            setError(null);
          }}
          unit={`${figure.unit} gross`}
          left={`${trait.name} · tare ${formatFigure(tareG, 1)} g${container ? `, ${container}` : ''}`}
          right={netG === null ? '' : `net ${formatFigure(netG, trait.decimals)} g`}
          warning={question !== null && asking.asked === question ? question : null}
          error={error}
          keepLabel={
            grossG === null
              ? 'Go on without a weight'
              : sample !== null && sample < crops.length
                ? `Keep net, go to ${crops[sample]}`
                : nextUnit
                  ? `Keep net, go to ${plan.unitNoun} ${spokenNumber(nextUnit)}`
                  : 'Keep net'
          }
          onKeep={keep}
          onSomethingOff={() => setOff(true)}
        />
        <div className="pad-rows">
          <BesideScale
            {...{ trait, standing, typing }}
            units={walk}
            onFound={pick}
            onBack={() => {
              leave();
              goTowards(-1);
            }}
            onSomethingOff={() => setOff(true)}
            onTyping={setTyping}
            auto={scale ? auto : null}
            onAuto={setAuto}
          />
          {weight && together && (
            <button type="button" className="pad-row" onClick={() => void addLoad(weight)}>
              <span>
                Another load: add it, {formatFigure(together.netG, trait.decimals)} g net together
                {together.doubt && `. ${together.doubt}`}
              </span>
            </button>
          )}
          {done === walk.length && (
            <WhatIsNext said={`All ${walk.length} ${plural(plan.unitNoun)} are weighed.`} next={next} />
          )}
        </div>
        {off && (
          <LogDialog
            unit={unit}
            sample={samplesAreAlike(plan) ? sample : null}
            sampleName={crops[(sample ?? 1) - 1]}
            onClose={() => setOff(false)}
            onKeep={(body) => send({ body, ...at })}
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
