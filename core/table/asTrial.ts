import type { Entry } from '../log/entry';
import { type Trial, emptyReview } from '../log/trial';
import { blankPlan, blankTreatment } from '../model/blankPlan';
import type { AreaId, EntryId, RoundId, TraitId, TreatmentId, TrialId, UnitId } from '../model/ids';
import type { Plan, Trait, Unit } from '../model/plan';
import { traitKinds } from '../model/traitKinds';
import type { Reading, ResponseKind, TableTrait, Understood } from './understood';

/** What a trial made of a table is called, and when its first day was. */
export interface TableTrialMeta {
  id: TrialId;
  question: string;
  code: string;
  crop: string;
  /** YYYY-MM-DD */
  startDate: string;
  unitNoun: string;
  currency: string;
}

const SIDE = 40;
const kinds: Record<ResponseKind, Trait['kind']> = {
  number: 'number',
  count: 'count',
  ratio: 'ratio',
  score: 'score',
  days: 'time',
};

const decimalsOf = (values: readonly number[]) =>
  Math.min(4, Math.max(0, ...values.map((v) => (String(v).split('.')[1] ?? '').length)));

function traitOf(t: TableTrait, i: number, readings: readonly Reading[]): Trait {
  const own = readings.filter((r) => r.trait === i);
  const values = own.flatMap((r) => (r.value === null ? [] : [r.value]));
  const observed = traitKinds[kinds[t.kind]].observes;
  return {
    id: `trait-${i + 1}` as TraitId,
    name: t.name,
    unit: t.unit,
    kind: kinds[t.kind],
    // Days until something are the better the fewer; of all else more is taken for better until somebody says so.
    direction: observed === 'event' ? 'lower' : 'higher',
    ...{ bandLow: null, bandHigh: null, plausibleLow: null, plausibleHigh: null },
    decimals: decimalsOf(values),
    samplesPerUnit: 1,
    summary: 'last',
    outOf: t.kind === 'ratio' ? Math.max(1, ...own.map((r) => r.n ?? 1)) : null,
    scale:
      t.kind === 'score'
        ? Array.from({ length: Math.ceil(Math.max(...values)) + 1 }, (_, value) => ({ value, text: '' }))
        : [],
  };
}

/** Which unit a line is of: the one that is named, within its treatment and block; else one of its own. */
function unitKeys(readings: readonly Reading[]): string[] {
  const named = (r: Reading) => JSON.stringify([r.treatment, r.block, r.column, r.unit]);
  const seen = new Map<string, number>();
  return readings.map((r) => {
    if (r.unit !== null) return named(r);
    // Without a unit's name the lines of a treatment are counted, anew for each day and trait.
    const within = JSON.stringify([r.treatment, r.block, r.column, r.day, r.trait]);
    const n = (seen.get(within) ?? 0) + 1;
    seen.set(within, n);
    return JSON.stringify([r.treatment, r.block, r.column, n]);
  });
}

/**
 * The trial a table tells of: no plan was sealed, nothing is known of where units stood.
 *
 * @param readings those of the table, or of one crop of it
 */
export function trialOfTable(
  { traits, treatments, control }: Understood,
  readings: readonly Reading[],
  meta: TableTrialMeta,
): Trial {
  const numbered = (values: readonly (string | null)[]) =>
    new Map([...new Set(values.filter((v): v is string => v !== null))].map((v, i) => [v, i + 1]));
  const [blocks, columns] = [numbered(readings.map((r) => r.block)), numbered(readings.map((r) => r.column))];
  const keys = unitKeys(readings);
  const days = [...new Set(readings.map((r) => r.day ?? 0))].sort((a, b) => a - b);
  const ids = new Map(treatments.map((name, i) => [name, `treatment-${i + 1}` as TreatmentId]));
  const units = new Map<string, Unit>();
  readings.forEach((r, i) => {
    if (units.has(keys[i]!)) return;
    const at = units.size;
    const grid = Math.floor(at / (SIDE * SIDE));
    units.set(keys[i]!, {
      id: `unit-${at + 1}` as UnitId,
      code: `${meta.code}-${String(at + 1).padStart(2, '0')}`,
      treatmentId: ids.get(r.treatment)!,
      block: r.block === null ? null : blocks.get(r.block)!,
      columnBlock: r.column === null ? null : columns.get(r.column)!,
      ...{ setting: null, startSize: null },
      position: {
        areaId: `area-${grid + 1}` as AreaId,
        row: Math.floor((at % (SIDE * SIDE)) / SIDE),
        column: at % SIDE,
      },
    });
  });
  const made = traits.map((t, i) => traitOf(t, i, readings));
  const measuredOn = (day: number) => made.filter((_, i) => readings.some((r) => r.trait === i && (r.day ?? 0) === day)); // prettier-ignore
  // Several lines of a unit on a day are its samples; a unit measured once is measured as a whole.
  const places = readings.map((r, i) => JSON.stringify([keys[i], r.trait, r.day]));
  const most = new Map<number, number>();
  const samples = new Map<string, number>();
  const counted = readings.map((r, i) => {
    const n = (samples.get(places[i]!) ?? 0) + 1;
    samples.set(places[i]!, n);
    most.set(r.trait, Math.max(n, most.get(r.trait) ?? 1));
    return n;
  });
  const log = readings.flatMap((r, i): Entry[] => {
    if (r.value === null) return [];
    const at = `${dateOf(meta.startDate, r.day ?? 0)}T12:00:00.000Z`;
    return [
      {
        ...{ id: `line-${String(i + 1).padStart(6, '0')}` as EntryId, at, recordedAt: at, offsetMin: 0 },
        ...{ by: '', device: 'table', counter: i + 1, kind: 'measurement' as const },
        ...{ unitId: units.get(keys[i]!)!.id, traitId: made[r.trait]!.id },
        roundId: `day-${r.day ?? 0}` as RoundId,
        sample: most.get(r.trait)! > 1 ? counted[i]! : null,
        value: r.value,
        ...(r.n !== undefined && { outOf: r.n }),
      },
    ];
  });
  const replicates = Math.max(1, ...treatments.map((t) => [...units.values()].filter((u) => u.treatmentId === ids.get(t)).length)); // prettier-ignore
  const plan: Plan = {
    ...blankPlan(meta),
    primaryTraitId: made[0]!.id,
    ...(control === null && { peers: true as const }),
    traits: made.map((t, i) => ({ ...t, samplesPerUnit: most.get(i) ?? 1 })),
    rounds: days.map((day) => ({
      ...{ id: `day-${day}` as RoundId, name: days.length === 1 ? 'The table' : `Day ${day}`, day },
      traitIds: measuredOn(day).map((t) => t.id),
    })),
    treatments: treatments.map((name) =>
      blankTreatment(name, name === control ? 'untreated' : 'test', ids.get(name)),
    ),
    areas: Array.from({ length: Math.ceil(units.size / (SIDE * SIDE)) }, (_, i) => ({
      ...{ id: `area-${i + 1}` as AreaId, name: 'not said where', kind: 'shelf' as const },
      ...{ rows: SIDE, columns: SIDE, widthCm: null, depthCm: null, reserved: [] },
    })),
    // Whether chance placed them a table can't say: until somebody does, they stand as by hand.
    design: { kind: 'hand', replicates, seed: 1, settings: [], balance: null },
    units: [...units.values()],
  };
  return { plan, log, review: emptyReview, key: null, sealedAs: null, conflicts: [] };
}

const dateOf = (start: string, day: number): string =>
  new Date(Date.parse(`${start}T00:00:00Z`) + day * 86_400_000).toISOString().slice(0, 10);
