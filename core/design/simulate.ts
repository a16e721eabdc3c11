import { type Entry, type EntryBody, lineOf } from '../log/entry';
import type { EntryId, TraitId, TreatmentId } from '../model/ids';
import type { Plan } from '../model/plan';
import { kindOf } from '../model/traitKinds';
import { dateOfDay } from '../plan/days';
import { seededRandom } from '../stats/random';

/** What is true in a simulated trial for one trait. */
export interface SimulatedTrait {
  traitId: TraitId;
  /** true mean of each treatment at the last round, in the trait's unit */
  means: Record<TreatmentId, number>;
  /** unit-to-unit spread, per cent of the mean */
  cvPercent: number;
  /** spread between blocks (or rows), per cent of the mean */
  blockCvPercent: number;
  /** share of the final value reached at a day of the trial, 0 … 1; constant 1 for a harvest */
  growth: (day: number) => number;
}

export interface SimulatedTrial {
  plan: Plan;
  seed: number;
  traits: readonly SimulatedTrait[];
  /** rounds up to this day are measured in full */
  untilDay: number;
  /** of the round after that, so many units are done already */
  partialUnits?: number;
  by: string;
  /** tare of the bowl harvests are weighed in, g */
  tareG: number;
  /** minutes local time is ahead of UTC; default 0 */
  offsetMin?: number;
  /** counter of the first line; default 1 */
  firstCounter?: number;
}

/**
 * Log entries that a trial with these true values would give: seeded, so the same every time.
 * A unit that is large stays large: its own deviation is kept over all rounds.
 *
 * @returns entries in order of time, without seal
 */
export function simulateEntries(trial: SimulatedTrial): Entry[] {
  const { plan } = trial;
  const random = seededRandom(trial.seed);
  const entries: Entry[] = [];
  const log = (body: EntryBody, at: string) => {
    const n = String(entries.length + 1).padStart(6, '0');
    const id = `demo-${plan.code}-${n}` as EntryId;
    entries.push(
      lineOf(body, {
        id,
        at,
        recordedAt: at,
        offsetMin: trial.offsetMin ?? 0,
        by: trial.by,
        device: 'demo',
        counter: (trial.firstCounter ?? 1) + entries.length,
      }),
    );
  };
  const deviation = new Map<string, number>();
  for (const t of trial.traits) {
    const blocks = new Map<number | null, number>();
    for (const u of plan.units) {
      if (!blocks.has(u.block)) blocks.set(u.block, random.normal() * t.blockCvPercent);
      deviation.set(`${t.traitId}/${u.id}`, (blocks.get(u.block)! + random.normal() * t.cvPercent) / 100);
    }
  }
  const rounds = [...plan.rounds].sort((a, b) => a.day - b.day);
  const wanted = rounds.filter((r) => r.day <= trial.untilDay);
  const partial = trial.partialUnits ? rounds.find((r) => r.day > trial.untilDay) : undefined;
  for (const round of partial ? [...wanted, partial] : wanted) {
    const units = round === partial ? plan.units.slice(0, trial.partialUnits) : plan.units;
    const date = dateOfDay(plan.startDate, round.day);
    units.forEach((u, i) => {
      const at = `${date}T09:${String(Math.floor(i / 2) % 60).padStart(2, '0')}:${i % 2 ? '30' : '00'}.000Z`;
      for (const traitId of round.traitIds) {
        const trait = plan.traits.find((t) => t.id === traitId)!;
        const truth = trial.traits.find((t) => t.traitId === traitId);
        if (!truth) continue;
        const own =
          truth.means[u.treatmentId]! * (1 + deviation.get(`${traitId}/${u.id}`)!) * truth.growth(round.day);
        if (kindOf(trait).takenBy === 'scale') {
          const net = Math.max(0, Number(own.toFixed(trait.decimals)));
          const grossG = Number((net + trial.tareG).toFixed(trait.decimals));
          log(
            {
              kind: 'weighing',
              unitId: u.id,
              traitId,
              roundId: round.id,
              sample: null,
              grossG,
              tareG: trial.tareG,
              container: 'Bowl 1',
              instrument: 'kitchen scale',
              stepG: 10 ** -trait.decimals,
              steady: true,
            },
            at,
          );
          continue;
        }
        for (let s = 1; s <= trait.samplesPerUnit; s++) {
          const drawn = Math.max(0, own * (1 + (random.normal() * truth.cvPercent) / 400));
          const value = kindOf(trait).takenAs(drawn, trait);
          const sample = trait.samplesPerUnit > 1 ? s : null;
          log({ kind: 'measurement', unitId: u.id, traitId, roundId: round.id, sample, value }, at);
        }
      }
    });
  }
  return entries;
}
