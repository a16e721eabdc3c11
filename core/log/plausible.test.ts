// What is asked about on the pad: honest values hardly ever, slips of a decimal point or a doubled digit nearly always.
import { describe, expect, it } from 'vitest';
import type { RoundId, TraitId } from '../model/ids';
import { kindOf } from '../model/traitKinds';
import { seededRandom } from '../stats/random';
import { entry, height, heightTrait, plan, trait, unitId, weighing } from '../testing/trial';
import { untidyTrial } from '../testing/untidy';
import type { Entry } from './entry';
import { implausible } from './plausible';
import { deriveState } from './state';

const tall = heightTrait({ id: 'height' as TraitId });
const weekly = (days: number[], over: object = {}) => ({
  ...plan({ treatments: ['Water', 'A'], replicates: 4, traits: [{ ...tall, ...over }, trait()] }),
  rounds: days.map((day, i) => ({ id: `w${i}` as RoundId, name: `W ${i}`, day, traitIds: [tall.id] })),
});
const places = ['Water', 'A'].flatMap((t) => [0, 1, 2, 3].map((r) => unitId(t, r)));
const grown = (days: number[], values: number[][], over: object = {}) => {
  const p = weekly(days, over);
  const log = values.flatMap((round, w) => round.map((v, i) => entry(height(places[i]!, v, `w${w}`))));
  return { p, state: deriveState(p, log) };
};

describe('what is asked about', () => {
  it('plants that tripled in 25 days aren’t, the first of a round as little as the last', () => {
    const before = [4, 4.2, 3.8, 4.1, 4.4, 4, 3.9, 4.3];
    const first = grown([0, 25], [before, []]);
    expect(implausible(first.state, places[0]!, tall, 12.3, 'w1' as RoundId)).toBeNull();
    const last = grown([0, 25], [before, [12, 12.9, 11, 12.5, 13, 12.2, 11.8]]);
    expect(implausible(last.state, places[7]!, tall, 13.1, 'w1' as RoundId)).toBeNull();
    expect(implausible(last.state, places[7]!, tall, 131, 'w1' as RoundId)).toMatch(
      /^30 times the last value of 4.3 cm/,
    );
    expect(implausible(last.state, places[7]!, tall, 4.3, 'w1' as RoundId)).toMatch(/^Much less/);
  });
  it('145 among 14s is, where no value was before', () => {
    const { state } = grown([0], [[14, 13.5, 14.8, 15, 14.2]]);
    expect(implausible(state, places[6]!, tall, 145, 'w0' as RoundId)).toMatch(
      /^9.7 times the most of this round so far, 15 cm/,
    );
    expect(implausible(state, places[6]!, tall, 1.4, 'w0' as RoundId)).toMatch(/^Far below the least/);
    expect(implausible(state, places[6]!, tall, 18, 'w0' as RoundId)).toBeNull();
  });
  it('1880 among 200s of what is added up is; a nought isn’t', () => {
    const p = plan({ treatments: ['Water', 'A'], replicates: 4, traits: [trait()] });
    const state = deriveState(
      p,
      [190, 210, 202, 188].map((v, i) => entry(weighing(places[i]!, v, { roundId: 'r2' }))),
    );
    const summed = trait({ summary: 'sum' });
    expect(implausible(state, places[5]!, summed, 1880, 'r2' as RoundId)).toMatch(/times the most/);
    expect(implausible(state, places[5]!, summed, 0, 'r2' as RoundId)).toBeNull();
  });
  it('a sample is held against its own, and what hadn’t happened is no figure', () => {
    const p = weekly([0, 7], { samplesPerUnit: 2 });
    const log = [entry(height(places[0]!, 3, 'w0', 1)), entry(height(places[0]!, 30, 'w0', 2))];
    const state = deriveState(p, log);
    expect(implausible(state, places[0]!, tall, 33, 'w1' as RoundId, 2)).toBeNull();
    expect(implausible(state, places[0]!, tall, 33, 'w1' as RoundId, 1)).toMatch(/11 times/);
  });
});

/** The values a hand makes of one: a decimal point slipped either way, the first digit doubled. */
const slipsOf = (v: number): number[] => {
  const [first] = String(v);
  return [v * 10, v / 10, ...(/[1-9]/.test(first!) ? [Number(first + String(v))] : [])].map((x) =>
    Number(x.toPrecision(6)),
  );
};

it('whole trials typed in: not one honest value in twenty, and of slips nineteen of twenty', () => {
  const random = seededRandom(4);
  let [honest, asked, slips, caught] = [0, 0, 0, 0];
  const replay = (p: Parameters<typeof deriveState>[0], log: readonly Entry[]) => {
    const all = deriveState(p, log);
    const typed = all.observations.filter((o) => {
      const t = p.traits.find((x) => x.id === o.traitId)!;
      return (
        kindOf(t).jumpsAreOdd && o.roundId !== null && !o.notYet && o.value > 0 && random.uniform() < 0.5
      );
    });
    for (const o of typed) {
      const t = p.traits.find((x) => x.id === o.traitId)!;
      // As it was when this was typed.
      const state = deriveState(
        p,
        all.log.slice(
          0,
          all.log.findIndex((e) => e.id === o.standsFrom),
        ),
      );
      const doubted = (v: number) => implausible(state, o.unitId, t, v, o.roundId, o.sample) !== null;
      honest += 1;
      if (doubted(o.value)) asked += 1;
      const others = state.observations.filter((x) => x.traitId === o.traitId && x.roundId === o.roundId);
      if (others.length < 5) continue;
      for (const s of slipsOf(o.value)) {
        slips += 1;
        if (doubted(s)) caught += 1;
      }
    }
  };
  for (let seed = 1; seed <= 120; seed++) replay(untidyTrial(seed).trial.plan, untidyTrial(seed).trial.log);
  // Plants that differ a lot and grow unevenly, two samples of each.
  for (let i = 0; i < 8; i++) {
    const p = weekly([0, 9, 21, 40]);
    const size = places.map(() => 3 * Math.exp(0.35 * random.normal()));
    const log = p.rounds.flatMap((r, w) =>
      places.map((id, at) => {
        const v = size[at]! * Math.exp(0.06 * r.day * (1 + 0.25 * random.normal()) + 0.08 * random.normal());
        return entry(height(id, Number(v.toFixed(1)), `w${w}`));
      }),
    );
    replay(p, log);
  }
  expect(honest).toBeGreaterThan(1000);
  expect(asked / honest).toBeLessThan(1 / 20);
  expect(slips).toBeGreaterThan(1000);
  expect(caught / slips).toBeGreaterThan(19 / 20);
}, 60_000);
