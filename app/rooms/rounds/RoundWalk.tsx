import TextField from '@mui/material/TextField';
import { type ReactNode, useMemo } from 'react';
import { answeredIn, firstOpenSample } from '~core/log/asked';
import type { EntryBody } from '~core/log/entry';
import { lastValueBefore } from '~core/log/plausible';
import { cropOfSample, cropsTaken, numberInCrop, samplesIn } from '~core/log/response';
import { sayValue } from '~core/log/sayValue';
import { type TrialState, observationsOf } from '~core/log/state';
import type { TraitId, UnitId } from '~core/model/ids';
import { type Round, type Trait, type Unit, kindOf } from '~core/model/plan';
import { countOf, formatSigned } from '~core/quantity/format';
import { relativeDay, todayDate } from '../../ui/clock';
import { EntryPad } from '../../ui/EntryPad';
import { Legend } from '../../ui/Legend';
import { backToPad } from '../../ui/keys';
import { MeasurePlan } from '../../walk/MeasurePlan';
import { type InHand, Walk } from '../../walk/Walk';
import type { Onwards } from '../../walk/WhatIsNext';
import type { Capture, Stop } from '../../walk/capture';
import { remarkOf, standingAt, stopsOfRound, walkOf } from '../../walk/stops';
import { useSitting } from '../../walk/useSitting';
import { pasteOfRound } from './pasteOfRound';
import { CountsApart } from './CountedApart';
import { TraitRows } from './TraitRows';
import { WordsPad } from './WordsPad';
import { PadDraft, blankPad, doubtOnPad, faultOnPad, inEighths, isBlankPad, valueOn } from './padChecks';

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

/** How a trait of a round is taken: as a figure, a choice, a count of so many, or in words. */
function captureOf(
  state: TrialState,
  round: Round,
  trait: Trait,
  remarks: readonly Trait[],
): Capture<PadDraft> {
  const kind = kindOf(trait);
  const unit = kind.padUnit(trait);
  const inWords = kind.takenBy === 'words';
  const standing = standingAt(state, trait, round);
  return {
    schema: PadDraft,
    blank: blankPad,
    isBlank: isBlankPad,
    resumes: false,
    textOf: ({ text }) => text,
    said: ({ text }) => (text === '' ? 'words' : `${text} ${unit}`.trim()),
    fault(draft) {
      if (inWords) return draft.words[trait.id]?.trim() ? null : 'Write a few words first.';
      const value = valueOn(draft);
      if (value === null) return /[ /]/.test(draft.text) ? `“${draft.text}” isn’t a number yet.` : null;
      return faultOnPad(trait, value, draft);
    },
    doubt(draft, at, today) {
      const value = inWords ? null : valueOn(draft);
      return value === null
        ? null
        : doubtOnPad(state, { ...at, trait, round, value, standing: standing(at), today });
    },
    bodies(draft, { unit, sample }) {
      const value = inWords ? null : valueOn(draft);
      const at = { unitId: unit.id, traitId: trait.id, roundId: round.id };
      const { borderline, offType } = draft;
      const apart = { ...(borderline > 0 && { borderline }), ...(offType > 0 && { offType }) };
      const measured: EntryBody[] =
        value === null ? [] : [{ kind: 'measurement', ...at, sample, value, ...apart }];
      const written = (inWords ? [trait] : remarks).flatMap((t): EntryBody[] => {
        const text = draft.words[t.id]?.trim() ?? '';
        return text === '' ? [] : [{ kind: 'note', ...at, traitId: t.id, text }];
      });
      return [...measured, ...written];
    },
  };
}

/** How far a trait of a round is; what is a yes is counted by itself: “2 of 2” isn’t in flower. */
function progressOf(state: TrialState, round: Round, t: Trait) {
  const units = walkOf(state, t);
  const isDone = (u: Unit) => firstOpenSample(state, u.id, t, round.id) === undefined;
  const isYes = (u: Unit) => observationsOf(state, u.id, t.id, round.id).at(-1)?.value === 1;
  return {
    done: units.filter(isDone).length,
    of: units.length,
    part: answeredIn(state, t, round).inPart.length,
    yes: t.kind === 'yesno' && samplesIn(state.plan, t) === 1 ? units.filter(isYes).length : null,
  };
}

/** One trait of one round: the plan walked with the pad at hand. */
export function RoundWalk(p: Props) {
  const { state, round, trait, traits, onTrait, byUnit } = p;
  const { plan } = state;
  const sitting = useSitting(plan, round);
  const kind = kindOf(trait);
  const inWords = kind.takenBy === 'words';
  const stops = useMemo(() => stopsOfRound(state, trait, round), [state, trait, round]);
  const paste = useMemo(
    () => (inWords ? undefined : pasteOfRound(state, round, trait)),
    [state, round, trait, inWords],
  );
  const remarks = inWords ? [] : traits.filter((t) => kindOf(t).takenBy === 'words');
  const capture = captureOf(state, round, trait, remarks);
  const doneOf = useMemo(
    () => new Map(traits.map((t) => [t.id, progressOf(state, round, t)])),
    [state, round, traits],
  );
  const { yes, done, of } = doneOf.get(trait.id)!;
  const nextTrait =
    done === of ? traits.find((t) => doneOf.get(t.id)!.done < doneOf.get(t.id)!.of) : undefined;
  const next: Onwards | null = nextTrait
    ? { name: nextTrait.name, go: () => onTrait(nextTrait.id) }
    : p.nextRound;
  const traitAt = (by: 1 | -1) => (byUnit ? traits[traits.indexOf(trait) + by] : undefined);
  const cropOf = ({ sample }: Stop) =>
    cropsTaken(plan, trait) > 1 ? plan.cropsWithin[cropOfSample(trait, sample)] : undefined;
  return (
    <Walk
      {...{ state, stops, capture, sitting, paste }}
      scope={`${plan.id}/${round.id}/${trait.id}`}
      startAt={p.startAt}
      label="Entry pad"
      main={({ unit, draft }, pick) => (
        <>
          {p.head}
          <MeasurePlan {...{ state, round, trait }} current={unit.id} typed={draft.text} onPick={pick} />
          <Legend plan={plan} />
        </>
      )}
      pad={(at) => (
        <>
          <p className="quiet small">{whereIs(state, trait, at, cropOf(at))}</p>
          {inWords ? (
            <WordsPad
              key={at.unit.id}
              standing={remarkOf(state, at.unit.id, trait, round.id)}
              label={trait.name}
              words={at.draft.words[trait.id] ?? ''}
              onWords={(words) => at.put({ words: { ...at.draft.words, [trait.id]: words } })}
              fault={at.fault}
              onKeep={at.enter}
            />
          ) : (
            <FigurePad
              {...{ state, trait, round, at }}
              keepLabel={
                valueOn(at.draft) === null
                  ? nextTrait
                    ? `Next: ${nextTrait.name}`
                    : 'Go on without a value'
                  : stops.several
                    ? 'Keep and go on'
                    : `Keep and go to ${traitAt(1)?.name.toLowerCase() ?? at.nextName ?? 'the next'}`
              }
            />
          )}
          {trait.countsAs && <p className="note small">Counts: {trait.countsAs}</p>}
          {trait.kind === 'ratio' && (
            <CountsApart
              borderline={at.draft.borderline}
              offType={at.draft.offType}
              most={trait.outOf ?? 0}
              onBorderline={(borderline) => at.put({ borderline })}
              onOffType={(offType) => at.put({ offType })}
            />
          )}
          {remarks.map((t) => (
            <TextField
              key={`${at.unit.id}/${t.id}`}
              label={t.name}
              size="small"
              fullWidth
              sx={{ mt: 1.2 }}
              value={at.draft.words[t.id] ?? ''}
              placeholder={remarkOf(state, at.unit.id, t, round.id) ?? 'in words, kept with the value'}
              onChange={(e) => at.put({ words: { ...at.draft.words, [t.id]: e.target.value } })}
              onKeyDown={(e) => {
                if (e.key !== 'Enter') return;
                e.preventDefault();
                at.enter();
              }}
              slotProps={{ inputLabel: { shrink: true } }}
            />
          ))}
        </>
      )}
      rows={(at) =>
        kind.observes === 'event' && (
          <button
            type="button"
            className="pad-row"
            onClick={() => {
              const of = { unitId: at.unit.id, traitId: trait.id, roundId: round.id, sample: at.sample };
              at.write({ body: { kind: 'measurement', ...of, value: round.day, notYet: true } }, 'next');
            }}
          >
            <span>Not yet, on day {round.day}</span>
          </button>
        )
      }
      standing={{ trait, of: standingAt(state, trait, round) }}
      sampleName={(at) => cropOf(at) ?? `sample ${at.sample}`}
      onwards={({ unit }, to, by) => {
        if (!byUnit || traits.length < 2 || to === unit.id) return false;
        const other = traitAt(by);
        onTrait((other ?? (by === 1 ? traits[0]! : traits.at(-1)!)).id, other ? unit.id : to);
        return true;
      }}
      onPass={nextTrait && next!.go}
      done={
        done === of
          ? {
              said: `${trait.name}: written down of all ${countOf(of, plan.unitNoun)} in this round${
                yes === null ? '' : `, ${yes} yes and ${of - yes} no`
              }.`,
              // A pad has it on its button.
              next: nextTrait && !inWords ? null : next,
            }
          : null
      }
      more={
        <>
          <TraitRows
            {...{ traits, byUnit, doneOf }}
            chosen={trait}
            onTrait={(t) => onTrait(t.id)}
            unitNoun={plan.unitNoun}
            onByUnit={(all) => {
              p.onByUnit(all);
              backToPad();
            }}
          />
        </>
      }
    />
  );
}

/** The trait, and where its next value is taken. */
function whereIs(
  { plan, positions }: TrialState,
  trait: Trait,
  { unit, sample }: Stop,
  crop: string | undefined,
) {
  const position = positions.get(unit.id) ?? unit.position;
  const area = plan.areas.find((a) => a.id === position.areaId);
  return (
    <>
      <strong>{trait.name}</strong> · {area?.name}, row {position.row + 1}, position {position.column + 1}
      {crop && ` · ${crop}`}
      {sample !== null &&
        trait.samplesPerUnit > 1 &&
        ` · sample ${numberInCrop(trait, sample)} of ${trait.samplesPerUnit}`}
    </>
  );
}

interface FigureProps {
  state: TrialState;
  trait: Trait;
  round: Round;
  at: InHand<PadDraft>;
  keepLabel: string;
}

/** The pad of a figure, beside the last one of the unit. */
function FigurePad({ state, trait, round, at, keepLabel }: FigureProps) {
  const kind = kindOf(trait);
  const { text } = at.draft;
  const value = valueOn(at.draft);
  const last = lastValueBefore(state, at.unit.id, trait, round.id);
  return (
    <EntryPad
      text={text}
      onText={(text, corrected) => at.put({ text }, corrected ? 'corrected' : 'typed')}
      unit={kind.padUnit(trait)}
      fractions={trait.kind === 'number' && inEighths(trait)}
      choices={kind.choices(trait)}
      onChoice={(v) => at.put({ text: String(v) })}
      left={
        last ? `last ${sayValue(last, trait)}, ${relativeDay(last.date, todayDate())}` : 'no value before'
      }
      right={
        value !== null && last && !last.notYet && kind.jumpsAreOdd
          ? formatSigned(value - last.value, trait.decimals)
          : ''
      }
      warning={at.warning}
      error={at.fault}
      keepLabel={keepLabel}
      onKeep={at.enter}
      onSomethingOff={at.somethingOff}
    />
  );
}
