import type { EntryBody } from '~core/log/entry';
import type { Observation } from '~core/log/observation';
import { farFromRound, implausible } from '~core/log/plausible';
import type { TrialState } from '~core/log/state';
import type { Round, Trait, Unit } from '~core/model/plan';
import { formatFigure } from '~core/quantity/format';
import { replacing } from '../../walk/stops';
import type { Weighed } from './scaleFigure';

/** What the scale or somebody says a unit weighs, and what is taken off. */
export interface Weight {
  grossG: number;
  /** of the container; 0: nothing is taken off */
  tareG: number;
  /** null where it was typed */
  reading: Weighed | null;
}

/** Without the dust of a subtraction. */
export const netOf = ({ grossG, tareG }: Pick<Weight, 'grossG' | 'tareG'>): number =>
  Number((grossG - tareG).toFixed(4));

/** Why a weight can't be: it isn't kept. */
export const faultOfWeight = (w: Pick<Weight, 'grossG' | 'tareG'>): string | null =>
  netOf(w) < 0
    ? `${formatFigure(w.grossG, 1)} g is less than the tare of ${formatFigure(w.tareG, 1)} g: the wrong container?`
    : null;

interface Asked {
  unit: Unit;
  trait: Trait;
  round: Round;
  sample?: number | null;
  /** what the log has of it in this round */
  standing: Observation | undefined;
  /** null where a weight for another day than the round's was confirmed already */
  today: string | null;
  /** weighed right on the pan, or weighing without a tare was confirmed already */
  withoutTare: boolean;
}

/** What is odd about a weight: it is kept when it is said once more. */
export function doubtOfWeight(
  state: TrialState,
  weight: Weight,
  { unit, trait, round, sample = null, standing, today, withoutTare }: Asked,
): string | null {
  const net = netOf(weight);
  const doubts = [
    net < 0 ? null : implausible(state, unit.id, trait, net, round.id, sample),
    today === null ? null : farFromRound(state.plan, round, today),
    weight.reading && !weight.reading.steady ? 'The scale wasn’t steady.' : null,
    weight.tareG === 0 && !withoutTare ? 'No tare is taken off.' : null,
    standing && standing.value !== net ? replacing(standing, trait) : null,
  ].filter((d) => d !== null);
  return doubts.length > 0 ? doubts.join(' ') : null;
}

/**
 * What adding another load to a weighing comes to, and what is odd about it: said before it is pressed.
 * @param before what stands of the unit in this round
 */
export function loadAdded(
  state: TrialState,
  before: Pick<Weight, 'grossG' | 'tareG'>,
  load: Weight,
  asked: Pick<Asked, 'unit' | 'trait' | 'round' | 'sample'>,
): { netG: number; doubt: string | null } {
  const both = { ...load, grossG: before.grossG + load.grossG, tareG: before.tareG + load.tareG };
  const doubt = doubtOfWeight(state, both, { ...asked, standing: undefined, today: null, withoutTare: true });
  return { netG: netOf(both), doubt };
}

/** The line of the log. */
export const weighingOf = (
  unit: Unit,
  trait: Trait,
  round: Round,
  { sample, container }: { sample: number | null; container: string },
  { grossG, tareG, reading }: Weight,
): Extract<EntryBody, { kind: 'weighing' }> => ({
  ...{ kind: 'weighing', unitId: unit.id, traitId: trait.id, roundId: round.id, sample },
  ...{ grossG, tareG, container },
  instrument: reading?.instrument ?? 'typed',
  stepG: reading?.stepG ?? null,
  steady: reading?.steady ?? null,
});
