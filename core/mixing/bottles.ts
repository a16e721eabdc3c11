import { amountWords } from '../quantity/format';
import { letterOf } from '../plan/letters';
import { type TrialState, ofKind } from '../log/state';
import { planIndex } from '../plan/planIndex';
import { entryKinds } from '../log/kinds';
import { codesByProduct, productCodeKey, productCodesOf } from './productCodes';
import { type DueMix, batchVolume, dueMixes } from './dueMixes';
import { givenPlan } from './givenPlan';
import { type Leftover, feedsOf, hasLeft, leftOf, leftoverFor, servedBy } from './mixesInLog';
import type { EntryId } from '../model/ids';
import { type Plan, type Treatment, wayWords } from '../model/plan';
import { livingUnits } from '../log/asked';
import type { BlindKey } from '../log/trial';

/** A batch in the log that a day was served from. */
export interface MixedBatch {
  id: EntryId;
  /** lines that are taken back together: the batch with its readings and feedings; of what was left, the day’s feeding */
  lines: EntryId[];
  /** it was mixed for another day, and this one fed from what was left */
  wasLeft: boolean;
  batch: string;
  at: string;
  volumeL: number;
  said: string;
  fed: boolean;
  /** what no feeding has taken from it yet, L */
  leftL: number;
}

/** One card of the mixing day: a vessel for one treatment, under its name or its code. */
export interface Bottle extends DueMix {
  key: string;
  /** of the tile */
  index: number;
  letter: string;
  name: string;
  /** what the units need with the spare, L */
  volumeL: number | null;
  /** name for the next batch */
  batch: string;
  mixed: MixedBatch[];
  /** what is left of the batch before, and would do */
  leftover: Leftover | null;
}

/** A trial as far as mixing goes: the true plan, and what is shown of it. */
interface MixedTrial {
  row: { plan: Plan };
  state: TrialState;
  /** under codes while the trial is blind */
  shown: { plan: Plan };
  key: BlindKey | null;
  blind: boolean;
}

/** What products are called on screen: by name, or by the code of their jar while the trial is blind. */
export function partNames(trial: Pick<MixedTrial, 'row' | 'key' | 'blind'>): Record<string, string> {
  const { plan } = trial.row;
  const codes = codesByProduct(productCodesOf(plan, trial.key));
  return Object.fromEntries(
    plan.treatments.flatMap((t) =>
      t.products.map((u) => {
        const key = productCodeKey(t.id, u.productId);
        const name = planIndex(plan).product(u.productId)?.name ?? '?';
        return [key, trial.blind ? `jar ${codes.get(key)}` : name];
      }),
    ),
  );
}

function mixedBatches(
  state: TrialState,
  due: DueMix,
  day: number,
  names: Record<string, string>,
): MixedBatch[] {
  return ofKind(state, 'mix').flatMap(({ id, body, at }) => {
    const by = servedBy(state, body, due, day);
    if (by === null) return [];
    const fed = feedsOf(state, body).filter((e) => e.body.day === undefined || e.body.day === day);
    return [
      {
        id,
        lines:
          by === 'left'
            ? fed.map((e) => e.standsFrom)
            : [id, ...entryKinds.mix.goesWith(body, state.entries)],
        wasLeft: by === 'left',
        batch: body.batch,
        at,
        volumeL: body.volumeL,
        said: body.amounts
          .map((a) => {
            const name = names[productCodeKey(body.treatmentId, a.productId)] ?? '';
            const from = a.fromStock === undefined ? name : `stock ${a.fromStock} (${name})`;
            return `${amountWords(a.amount, a.unit)} ${from}`;
          })
          .join(', '),
        fed: fed.length > 0,
        leftL: hasLeft(state, body) ? leftOf(state, body) : 0,
      },
    ];
  });
}

function freeName(state: TrialState, wanted: string): string {
  const usedBatches = new Set(state.entries.flatMap((e) => ('batch' in e.body ? [e.body.batch] : [])));
  if (!usedBatches.has(wanted)) return wanted;
  for (let n = 2; ; n++) if (!usedBatches.has(`${wanted}-${n}`)) return `${wanted}-${n}`;
}

/** A bottle's letter and name, apart, and how it is given: “B · Tab A”, “B · Tab A, sprayed on”. */
export const bottleTitle = (
  { letter, name, way }: Pick<Bottle, 'letter' | 'name' | 'way'>,
  blind: boolean,
): string => `${blind ? letter : `${letter} · ${name}`}${way ? `, ${wayWords[way]}` : ''}`;

/** The name of the next stock solution. */
export const stockName = (state: TrialState, plan: Plan): string => freeName(state, `${plan.code}-stock`);

/**
 * What is mixed on a day, in the order of the tiles.
 * @param anyDay with the products that have no fixed days
 */
export function bottlesOn(trial: MixedTrial, day: number, anyDay: boolean): Bottle[] {
  const { state, shown } = trial;
  const plan = givenPlan(state);
  const names = partNames(trial);
  const tile = (id: Treatment['id']) => planIndex(shown.plan).treatmentOrder(id);
  return dueMixes(plan, day, livingUnits(state), anyDay)
    .map((due): Bottle => {
      const index = tile(due.treatmentId);
      const letter = letterOf(index);
      return {
        ...due,
        key: `${due.treatmentId}/${due.perUnitL ?? 'direct'}${due.way ? `/${due.way}` : ''}`,
        index,
        letter,
        name: shown.plan.treatments[index]?.name ?? '',
        volumeL: batchVolume(due, plan.mixing.sparePercent),
        batch: freeName(state, `${plan.code}-${letter}-d${day}`),
        mixed: mixedBatches(state, due, day, names),
        leftover: leftoverFor(state, due, day),
      };
    })
    .sort((a, b) => a.index - b.index);
}
