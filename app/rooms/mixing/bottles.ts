import { letterOf } from '~core/design/blinding';
import type { TrialState } from '~core/log/state';
import { jarCodes, jarKey, jarsOf } from '~core/mixing/jars';
import { type DueMix, batchVolume, dueMixes } from '~core/mixing/dueMixes';
import { isMixOf } from '~core/mixing/mixesInLog';
import type { EntryId } from '~core/model/ids';
import type { Plan, Treatment } from '~core/model/plan';
import { livingUnits } from '~core/schedule/rounds';
import type { LoadedTrial } from '../../store/trials';

/** A batch in the log. */
export interface MixedBatch {
  id: EntryId;
  /** its readings' lines, taken back together with it */
  readingIds: EntryId[];
  batch: string;
  at: string;
  volumeL: number;
  said: string;
  fed: boolean;
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
}

type Trial = Pick<LoadedTrial, 'row' | 'state' | 'shown' | 'key' | 'blind'>;

/** What products are called on screen: by name, or by the code of their jar while the trial is blind. */
export function partNames(trial: Pick<LoadedTrial, 'row' | 'key' | 'blind'>): Record<string, string> {
  const { plan } = trial.row;
  const codes = jarCodes(jarsOf(plan, trial.key));
  return Object.fromEntries(
    plan.treatments.flatMap((t) =>
      t.products.map((u) => {
        const key = jarKey(t.id, u.productId);
        const name = plan.products.find((p) => p.id === u.productId)?.name ?? '?';
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
  return state.entries.flatMap(({ id, body, at }) => {
    if (body.kind !== 'mix' || !isMixOf(body, due, day)) return [];
    return [
      {
        id,
        readingIds: state.entries.flatMap((e) =>
          e.body.kind === 'reading' && e.body.batch === body.batch ? [e.id] : [],
        ),
        batch: body.batch,
        at,
        volumeL: body.volumeL,
        said: body.amounts
          .map((a) => {
            const name = names[jarKey(body.treatmentId, a.productId)] ?? '';
            const from = a.fromStock === undefined ? name : `stock ${a.fromStock} (${name})`;
            return `${Number(a.amount.toPrecision(6))} ${a.unit} ${from}`;
          })
          .join(', '),
        fed: state.entries.some((e) => e.body.kind === 'feed' && e.body.batch === body.batch),
      },
    ];
  });
}

function freeName(state: TrialState, wanted: string): string {
  const taken = new Set(state.entries.flatMap((e) => ('batch' in e.body ? [e.body.batch] : [])));
  if (!taken.has(wanted)) return wanted;
  for (let n = 2; ; n++) if (!taken.has(`${wanted}-${n}`)) return `${wanted}-${n}`;
}

/** The name of the next stock solution. */
export const stockName = (state: TrialState, plan: Plan): string => freeName(state, `${plan.code}-stock`);

/**
 * What is mixed on a day, in the order of the tiles.
 * @param anyDay with the products that have no fixed days
 */
export function bottlesOn(trial: Trial, day: number, anyDay: boolean): Bottle[] {
  const { row, state, shown } = trial;
  const { plan } = row;
  const names = partNames(trial);
  const tile = (id: Treatment['id']) => shown.plan.treatments.findIndex((t) => t.id === id);
  return dueMixes(plan, day, livingUnits(state), anyDay)
    .map((due): Bottle => {
      const index = tile(due.treatmentId);
      const letter = letterOf(index);
      return {
        ...due,
        key: `${due.treatmentId}/${due.perUnitL ?? 'direct'}`,
        index,
        letter,
        name: shown.plan.treatments[index]?.name ?? '',
        volumeL: batchVolume(due, plan.mixing.sparePercent),
        batch: freeName(state, `${plan.code}-${letter}-d${day}`),
        mixed: mixedBatches(state, due, day, names),
      };
    })
    .sort((a, b) => a.index - b.index);
}
