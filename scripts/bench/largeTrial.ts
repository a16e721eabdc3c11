import { seededRandom } from '~core/stats/random';
import type { Entry } from '~core/log/entry';
import type { RoundId, TraitId } from '~core/model/ids';
import { planSha256 } from '~core/plan/seal';
import { entry, heightTrait, plan as smallPlan } from '~core/testing/trial';

/** A trial of 200 units, five treatments, 12 number traits; `rounds` rounds of all of them. */
export function largeTrial(rounds: number) {
  const traits = Array.from({ length: 12 }, (_, i) =>
    heightTrait({ id: `t${i}` as TraitId, name: `Trait ${i + 1}` }),
  );
  const base = smallPlan({
    treatments: ['Water', 'A', 'B', 'C', 'D'],
    replicates: 40,
    blocked: true,
    traits,
  });
  const plan = {
    ...base,
    // The last round is today's: a value typed for another day would be asked about.
    startDate: new Date(Date.now() - (rounds - 1) * 86_400_000).toISOString().slice(0, 10),
    rounds: Array.from({ length: rounds }, (_, i) => ({
      id: `r${i}` as RoundId,
      name: `Round ${i + 1}`,
      day: i,
      traitIds: traits.map((t) => t.id),
    })),
  };
  const random = seededRandom(1);
  const log: Entry[] = [entry({ kind: 'seal', planSha256: planSha256(plan) })];
  for (const round of plan.rounds) {
    for (const t of traits) {
      for (const u of plan.units) {
        const arm = plan.treatments.findIndex((x) => x.id === u.treatmentId);
        const value = Number((10 + arm + random.normal() * 2).toFixed(2));
        log.push(
          entry({ kind: 'measurement', unitId: u.id, traitId: t.id, roundId: round.id, sample: null, value }),
        );
      }
    }
  }
  return { plan, log };
}
