import { wantedSamples } from '~core/log/asked';
import { type PastedColumn, readCountOf, readFigure, readYesNo } from '~core/log/pasted';
import { implausible } from '~core/log/plausible';
import { cropOfSample, cropsTaken, numberInCrop, samplesIn } from '~core/log/response';
import { sayValue } from '~core/log/sayValue';
import type { TrialState } from '~core/log/state';
import { type Round, type Trait, kindOf } from '~core/model/plan';
import { standingAt } from '../../walk/stops';
import type { Paste } from '../../walk/PasteDialog';

/** How a figure of a trait may be written. */
const readerOf = ({ kind, outOf }: Trait): PastedColumn['read'] =>
  kind === 'yesno' ? readYesNo : outOf === null ? readFigure : readCountOf(outOf);

/** What a plant or a crop within a unit is called, and what else a heading may call it. */
function namesOf({ plan }: TrialState, trait: Trait, sample: number | null): [string, ...string[]] {
  if (sample === null) return [trait.name];
  const k = numberInCrop(trait, sample);
  if (cropsTaken(plan, trait) === 1) return [`sample ${k}`, String(k), `plant ${k}`];
  const crop = plan.cropsWithin[cropOfSample(trait, sample)]!;
  return trait.samplesPerUnit > 1 ? [`${crop} ${k}`] : [crop];
}

/** A trait of a round as a column, or as a table of unit × plant or crop. */
export function pasteOfRound(state: TrialState, round: Round, trait: Trait): Paste {
  const n = samplesIn(state.plan, trait);
  const samples = n === 1 ? [null] : Array.from({ length: n }, (_, i) => i + 1);
  const kind = kindOf(trait);
  return {
    title: `${trait.name}, ${round.name}`,
    columns: samples.map((sample) => ({
      names: namesOf(state, trait, sample),
      read: readerOf(trait),
      fault: (value, unit) =>
        wantedSamples(state, unit.id, trait).includes(sample) ? kind.fault(value, trait) : 'it died',
    })),
    say: (value) => sayValue({ value, outOf: trait.outOf }, trait),
    doubt(unit, column, value) {
      const sample = samples[column] ?? null;
      const standing = standingAt(state, trait, round)({ unit, sample });
      if (standing && standing.value !== value) return `replaces ${sayValue(standing, trait)}`;
      return implausible(state, unit.id, trait, value, round.id, sample);
    },
    bodies: (unit, values) =>
      [...values].map(([column, value]) => ({
        ...({ kind: 'measurement', unitId: unit.id, traitId: trait.id, roundId: round.id } as const),
        ...{ sample: samples[column] ?? null, value },
      })),
  };
}
