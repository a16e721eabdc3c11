import { entered, nothingAsked, questionOf, typedOver } from '../../walk/asking';
import { SittingChoice, useSitting } from '../../walk/SittingChoice';
import { type Onwards, WhatIsNext } from '../../walk/WhatIsNext';
import { dayOfRound, faultOfSitting, whenOf } from '../../walk/sitting';
import { sayValue } from '~core/log/sayValue';
import { type ReactNode, useCallback, useMemo, useState } from 'react';
import { relativeDay, todayDate } from '../../bench/clock';
import { lastValueBefore } from '~core/log/plausible';
import { type TrialState, observationsOf } from '~core/log/state';
import { cropOfSample, cropsTaken, numberInCrop, samplesIn } from '~core/log/response';
import type { EntryBody } from '~core/log/entry';
import type { TraitId, UnitId } from '~core/model/ids';
import { type Round, type Trait, type Unit, kindOf } from '~core/model/plan';
import { answeredIn, firstOpenSample } from '~core/log/asked';
import { countOf, formatSigned } from '~core/quantity/format';
import TextField from '@mui/material/TextField';
import { usePost, useSend } from '../../form/usePost';
import { EntryPad } from '../../ui/EntryPad';
import { backToPad } from '../../ui/keys';
import { Legend } from '../../ui/Legend';
import { useTileInSight } from '../../ui/useTileInSight';
import { LogDialog } from '../LogDialog';
import { GoBack, PadMore, SomethingOff, StandingValue, UnitHeading, spokenNumber } from '../UnitHeading';
import { MeasurePlan } from './MeasurePlan';
import { CountsApart } from './CountedApart';
import { FindUnit } from './FindUnit';
import { LeftTypedList } from './LeftTypedList';
import { PasteDialog } from './PasteDialog';
import { TraitRows } from './TraitRows';
import { WordsPad } from './WordsPad';
import { type PadDraft, blankPad, doubtOnPad, faultOnPad, inEighths, valueOn } from './padChecks';
import { useLeftTyped } from './useLeftTyped';
import { nextStep, remarkOf, samplesAreAlike, stepFrom, walkOf } from './walk';

interface Props {
  state: TrialState;
  round: Round;
  trait: Trait;
  traits: readonly Trait[];
  /** goes to a trait, and where it is said to a unit */
  onTrait: (id: TraitId, unitId?: UnitId) => void;
  /** all traits of a unit one after the other, before the next unit */
  byUnit: boolean;
  onByUnit: (byUnit: boolean) => void;
  startAt: UnitId | undefined;
  head: ReactNode;
  /** a round that is due and open */
  nextRound: Onwards | null;
}

/** One trait of one round: the plan walked with the pad at hand. */
export function RoundWalk({
  state,
  round,
  trait,
  traits,
  onTrait,
  byUnit,
  onByUnit,
  startAt,
  head,
  nextRound,
}: Props) {
  const { plan } = state;
  const post = usePost({ tiles: true });
  const send = useSend();
  const sendValue = useSend({ tiles: true });
  const { positions, deaths } = state;
  const walk = useMemo(() => walkOf({ plan, positions, deaths }, trait), [plan, positions, deaths, trait]);
  const [unitId, setUnitId] = useState<UnitId | undefined>(
    () => startAt ?? nextStep(state, trait, round, null)?.unitId ?? walk[0]?.id,
  );
  const [chosenSample, setChosenSample] = useState<number | null | undefined>(undefined);
  const [typed, setTyped] = useState(nothingAsked);
  const [beside, setBeside] = useState(blankPad);
  const draft = { ...beside, text: typed.text };
  const [error, setError] = useState<string | null>(null);
  const [sitting, setSitting] = useSitting(plan, round);
  /** a value before its round’s day was confirmed once */
  const [early, setEarly] = useState(false);
  const [off, setOff] = useState(false);
  const [more, setMore] = useState(false);
  const [pasting, setPasting] = useState(false);
  useTileInSight(unitId);
  const goTo = useCallback((id: UnitId) => {
    setUnitId(id);
    setChosenSample(undefined);
    setBeside(blankPad);
    setTyped(nothingAsked);
    setError(null);
  }, []);
  const put = ({ text, ...change }: Partial<PadDraft>, corrected = false) => {
    setBeside({ ...beside, ...change });
    if (text === undefined) return;
    setTyped(typedOver(typed, text, corrected));
    setError(null);
  };
  const doneOf = useMemo(() => {
    const done = (t: Trait) => {
      const units = walkOf(state, t);
      const open = (u: Unit) => firstOpenSample(state, u.id, t, round.id) !== undefined;
      const part = answeredIn(state, t, round).inPart.length;
      // What is a yes is counted by itself: “2 of 2” isn't in flower.
      const isYes = (u: Unit) => observationsOf(state, u.id, t.id, round.id).at(-1)?.value === 1;
      const yes = t.kind === 'yesno' && samplesIn(plan, t) === 1 ? units.filter(isYes).length : null;
      return { done: units.filter((u) => !open(u)).length, of: units.length, part, yes };
    };
    return new Map(traits.map((t) => [t.id, done(t)]));
  }, [state, plan, round, traits]);
  // Who stood at one that died goes on where work is open.
  const unit =
    walk.find((u) => u.id === unitId) ??
    walk.find((u) => u.id === nextStep(state, trait, round, null)?.unitId) ??
    walk[0];
  const samples = samplesIn(plan, trait);
  const multiple = samples > 1;
  const sample =
    chosenSample !== undefined || !unit
      ? (chosenSample ?? null)
      : (firstOpenSample(state, unit.id, trait, round.id) ?? (multiple ? 1 : null));
  const pad = useLeftTyped(
    `${plan.id}/${round.id}/${trait.id}`,
    unit ? { ...draft, unitId: unit.id, sample, reading: null } : null,
    goTo,
  );
  const { leave, pick } = pad;
  if (!unit) return <p>No living {plan.unitNoun} is left.</p>;

  const index = plan.treatments.findIndex((t) => t.id === unit.treatmentId);
  const position = state.positions.get(unit.id) ?? unit.position;
  const area = plan.areas.find((a) => a.id === position.areaId);
  const here = observationsOf(state, unit.id, trait.id, round.id);
  const kind = kindOf(trait);
  const standing = here.findLast((o) => o.sample === sample);
  const last = lastValueBefore(state, unit.id, trait, round.id);
  const { text, words } = draft;
  const value = valueOn(draft);
  // When it was is said once for the sitting; only a round that is to come is asked about.
  const today = early || sitting.at !== 'now' || dayOfRound(plan, round) < todayDate() ? null : todayDate();
  const doubt =
    value === null ? null : doubtOnPad(state, { unit, trait, round, value, sample, standing, today });
  const question = value === null ? null : questionOf(typed, doubt, unit.code);
  const warning = question !== null && typed.asked === question ? question : null;

  const when = whenOf(sitting, plan, round, todayDate());
  const at = when && { when };
  const write = (body: EntryBody) => post({ body, ...at });
  const goTowards = (by: 1 | -1) => {
    const step = stepFrom(state, trait, walk, { unitId: unit.id, sample }, by);
    if (byUnit && traits.length > 1 && step.unitId !== unit.id) {
      const other = traits[traits.indexOf(trait) + by];
      if (other) return onTrait(other.id, unit.id);
      return onTrait((by === 1 ? traits[0]! : traits.at(-1)!).id, step.unitId);
    }
    goTo(step.unitId);
    // Forwards a unit opens at its first open sample by itself.
    if (step.unitId === unit.id || by === -1) setChosenSample(step.sample);
  };
  const goOn = () => goTowards(1);
  const { yes = null } = doneOf.get(trait.id) ?? {};
  const allTaken = doneOf.get(trait.id)?.done === walk.length;
  const nextTrait = allTaken ? traits.find((t) => doneOf.get(t.id)!.done < doneOf.get(t.id)!.of) : undefined;
  const next: Onwards | null = nextTrait
    ? { name: nextTrait.name, go: () => onTrait(nextTrait.id) }
    : nextRound;
  const measurement = { kind: 'measurement', unitId: unit.id, traitId: trait.id, roundId: round.id } as const;
  const wordTraits = kind.takenBy === 'words' ? [] : traits.filter((t) => kindOf(t).takenBy === 'words');
  const keepRemarks = () => {
    for (const t of wordTraits) {
      const text = words[t.id]?.trim() ?? '';
      if (text !== '') write({ kind: 'note', unitId: unit.id, text, traitId: t.id, roundId: round.id });
    }
  };
  const keep = () => {
    if (value === null && /[ /]/.test(text)) return setError(`“${text}” isn’t a number yet.`);
    // No value: this one is passed over, and stays open; words on it are kept all the same.
    if (value === null) {
      keepRemarks();
      pad.kept();
      return nextTrait ? next!.go() : goOn();
    }
    const fault = faultOnPad(trait, value, draft);
    if (fault) return setError(fault);
    const notThen = faultOfSitting(sitting, todayDate());
    if (notThen) return setError(notThen);
    const enter = entered(typed, question);
    if (!enter.keep) return setTyped(enter.next);
    setEarly(true);
    const body = {
      ...measurement,
      sample,
      value,
      ...(draft.borderline > 0 && { borderline: draft.borderline }),
      ...(draft.offType > 0 && { offType: draft.offType }),
    };
    const sent = { ...draft, unitId: unit.id, sample, reading: null };
    void sendValue({ body, ...at }).then((kept) => !kept && pad.refused(sent));
    keepRemarks();
    pad.kept();
    goOn();
  };
  const notYet = () => {
    write({ ...measurement, sample, value: round.day, notYet: true });
    pad.kept();
    backToPad();
    goOn();
  };
  const nextUnit = walk[(walk.indexOf(unit) + 1) % walk.length];
  const crop = cropsTaken(plan, trait) > 1 ? plan.cropsWithin[cropOfSample(trait, sample)] : undefined;

  return (
    <div className="with-side standing">
      <div className="main">
        {head}
        <MeasurePlan state={state} round={round} trait={trait} current={unit.id} typed={text} onPick={pick} />
        <Legend plan={plan} />
      </div>
      <aside className="side" aria-label="Entry pad">
        <UnitHeading unit={unit} noun={plan.unitNoun} index={index} parts={state.parts.get(unit.id)} />
        <SittingChoice plan={plan} round={round} sitting={sitting} onSay={setSitting} />
        <p className="quiet small">
          <strong>{trait.name}</strong> · {area?.name}, row {position.row + 1}, position {position.column + 1}
          {crop && ` · ${crop}`}
          {multiple &&
            trait.samplesPerUnit > 1 &&
            ` · sample ${numberInCrop(trait, sample)} of ${trait.samplesPerUnit}`}
        </p>
        {kind.takenBy === 'words' ? (
          <WordsPad
            key={unit.id}
            standing={remarkOf(state, unit.id, trait, round.id)}
            label={trait.name}
            words={words[trait.id] ?? ''}
            onWords={(of) => put({ words: { ...words, [trait.id]: of } })}
            onKeep={async (text) => {
              const note = { kind: 'note', unitId: unit.id, text, traitId: trait.id, roundId: round.id };
              if (!(await send({ body: note, ...at }))) return;
              pad.kept();
              goOn();
            }}
          />
        ) : (
          <EntryPad
            text={text}
            onText={(t, corrected) => put({ text: t }, corrected)}
            unit={kind.padUnit(trait)}
            fractions={trait.kind === 'number' && inEighths(trait)}
            choices={kind.choices(trait)}
            onChoice={(v) => put({ text: String(v) })}
            left={
              last
                ? `last ${sayValue(last, trait)}, ${relativeDay(last.date, todayDate())}`
                : 'no value before'
            }
            right={
              value !== null && last && !last.notYet && kind.jumpsAreOdd
                ? formatSigned(value - last.value, trait.decimals)
                : ''
            }
            warning={warning}
            error={error}
            keepLabel={
              value === null
                ? nextTrait
                  ? `Next: ${next!.name}`
                  : 'Go on without a value'
                : byUnit && traits[traits.indexOf(trait) + 1] && !multiple
                  ? `Keep and go to ${traits[traits.indexOf(trait) + 1]!.name.toLowerCase()}`
                  : nextUnit && !multiple
                    ? `Keep and go to ${plan.unitNoun} ${spokenNumber(nextUnit)}`
                    : 'Keep and go on'
            }
            onKeep={keep}
            onSomethingOff={() => setOff(true)}
          />
        )}
        {trait.countsAs && <p className="note small">Counts: {trait.countsAs}</p>}
        {trait.kind === 'ratio' && (
          <CountsApart
            borderline={draft.borderline}
            offType={draft.offType}
            most={trait.outOf ?? 0}
            onBorderline={(borderline) => put({ borderline })}
            onOffType={(offType) => put({ offType })}
          />
        )}
        {wordTraits.map((t) => {
          const kept = remarkOf(state, unit.id, t, round.id);
          return (
            <TextField
              key={`${unit.id}/${t.id}`}
              label={t.name}
              size="small"
              fullWidth
              sx={{ mt: 1.2 }}
              value={words[t.id] ?? ''}
              placeholder={kept ?? 'in words, kept with the value'}
              onChange={(e) => put({ words: { ...words, [t.id]: e.target.value } })}
              onKeyDown={(e) => {
                if (e.key !== 'Enter') return;
                e.preventDefault();
                keep();
              }}
              slotProps={{ inputLabel: { shrink: true } }}
            />
          );
        })}
        <LeftTypedList
          plan={plan}
          left={pad.left}
          unit={kind.padUnit(trait)}
          onTake={(l) => {
            pick(l.unitId);
            pad.drop(l);
            setChosenSample(l.sample);
            const { text, words, borderline, offType } = l;
            setBeside({ text: '', words, borderline, offType });
            setTyped({ ...nothingAsked, text });
            backToPad();
          }}
          onDrop={pad.drop}
        />
        <div className="pad-rows">
          {kind.observes === 'event' && (
            <button type="button" className="pad-row" onClick={notYet}>
              <span>Not yet, on day {round.day}</span>
            </button>
          )}
          <GoBack
            onBack={() => {
              leave();
              goTowards(-1);
            }}
          />
          <SomethingOff onOpen={() => setOff(true)} />
          <PadMore more={more} onMore={setMore} />
          {allTaken && (
            <WhatIsNext
              said={`${trait.name}: written down of all ${countOf(walk.length, plan.unitNoun)} in this round${
                yes === null ? '' : `, ${yes} yes and ${walk.length - yes} no`
              }.`}
              // A pad has it on its button.
              next={nextTrait && kind.takenBy !== 'words' ? null : next}
            />
          )}
          {standing?.notYet && <p className="small quiet">Last said: not yet.</p>}
          {standing && <StandingValue label="Kept in this round" standing={standing} trait={trait} />}
          <div className={more ? 'pad-more open' : 'pad-more'}>
            <TraitRows
              {...{ traits, byUnit, doneOf }}
              chosen={trait}
              onTrait={(t) => onTrait(t.id)}
              unitNoun={plan.unitNoun}
              onByUnit={(all) => {
                onByUnit(all);
                backToPad();
              }}
            />
            {!multiple && kind.takenBy !== 'words' && (
              <button type="button" className="pad-row" onClick={() => setPasting(true)}>
                <span>Paste a column …</span>
              </button>
            )}
            <FindUnit units={walk} onFound={pick} />
          </div>
        </div>
        {pasting && (
          <PasteDialog
            state={state}
            round={round}
            trait={trait}
            walk={walk}
            on={when?.date}
            onClose={() => setPasting(false)}
            onKeep={(bodies, when) => send({ bodies, ...(when && { when }) })}
          />
        )}
        {off && (
          <LogDialog
            unit={unit}
            sample={samplesAreAlike(plan) ? sample : null}
            sampleName={crop ?? `sample ${sample}`}
            onClose={() => setOff(false)}
            onKeep={(body) => send({ body, ...at })}
          />
        )}
      </aside>
    </div>
  );
}
