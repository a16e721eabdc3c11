import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import { figureOfVisits } from '../analysis/number';
import { responseOf } from '../log/response';
import { Entry } from '../log/entry';
import type { TraitId } from '../model/ids';
import { heightTrait, plan, trait } from '../testing/trial';
import { type SimulatedTrial, simulateEntries } from './simulate';

const p = plan({
  treatments: ['Water', 'A'],
  replicates: 40,
  traits: [trait(), heightTrait({ samplesPerUnit: 3 })],
});
const setup = (over: Partial<SimulatedTrial> = {}): SimulatedTrial => ({
  plan: p,
  seed: 5,
  traits: [
    {
      traitId: 'weight' as TraitId,
      means: { Water: 50, A: 60 } as never,
      cvPercent: 10,
      blockCvPercent: 0,
      growth: () => 1,
    },
    {
      traitId: 'height' as TraitId,
      means: { Water: 8, A: 8 } as never,
      cvPercent: 5,
      blockCvPercent: 0,
      growth: (d) => d / 10,
    },
  ],
  untilDay: 10,
  by: 'Test',
  tareG: 12.5,
  ...over,
});

describe('the simulator', () => {
  const log = simulateEntries(setup());
  const state = deriveState(p, log);
  const values = (name: string, traitIndex: number, round?: 'r1' | 'r2') =>
    p.units
      .filter((u) => u.treatmentId === name)
      .map((u) => {
        const trait = p.traits[traitIndex]!;
        const { visits } = responseOf(state, u.id, trait);
        return figureOfVisits(round ? visits.filter((v) => v.roundId === round) : visits, trait)!;
      });
  const mean = (x: number[]) => x.reduce((s, v) => s + v, 0) / x.length;

  it('gives a whole, valid log: every unit, every sample, every round', () => {
    expect(log.every((e) => Entry.safeParse(e).success)).toBe(true);
    // 80 weighings and two rounds of three heights on 80 units
    expect(log).toHaveLength(80 + 2 * 3 * 80);
    expect(new Set(log.map((e) => e.id)).size).toBe(log.length);
  });
  it('has the true means and spread, within four standard errors', () => {
    for (const [name, m] of [
      ['Water', 50],
      ['A', 60],
    ] as const) {
      const x = values(name, 0);
      expect(Math.abs(mean(x) - m)).toBeLessThan((4 * 0.1 * m) / Math.sqrt(x.length));
      const sd = Math.sqrt(x.reduce((s, v) => s + (v - mean(x)) ** 2, 0) / (x.length - 1));
      expect(Math.abs(sd / (0.1 * m) - 1)).toBeLessThan(4 / Math.sqrt(2 * x.length));
    }
  });
  it('grows, and a large unit stays large', () => {
    const [early, late] = [values('Water', 1, 'r1'), values('Water', 1, 'r2')];
    expect(mean(late) / mean(early)).toBeCloseTo(10 / 3, 0);
    const rank = (x: number[]) => x.map((v) => x.filter((o) => o < v).length);
    const [a, b] = [rank(early), rank(late)];
    expect(a.filter((v, i) => Math.abs(v - b[i]!) > 12)).toHaveLength(0);
  });
  it('is the same for the same seed only', () => {
    expect(simulateEntries(setup())).toEqual(log);
    expect(simulateEntries(setup({ seed: 6 }))).not.toEqual(log);
  });
  it('stops at a day, and begins the next round where asked', () => {
    expect(simulateEntries(setup({ untilDay: 3 }))).toHaveLength(3 * 80);
    expect(simulateEntries(setup({ untilDay: 3, partialUnits: 7 }))).toHaveLength(3 * 80 + 7 * 4);
    expect(simulateEntries(setup({ untilDay: 0 }))).toEqual([]);
  });
});
