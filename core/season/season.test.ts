// References: R's matrices (webR) for what is known after trials; the network of the standings (itself against R) for its
// contrasts; every subset looked at for the exchange; closed forms for two products.
import normalCdf from '@stdlib/stats-base-dists-normal-cdf';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type TrialArm, networkMeta } from '../stats/networkMeta';
import { startR } from '../testing/r';
import { saySeason, seasonRegret } from './bench';
import { afterTrial, knowledgeOf, nothingKnown, telling, topTwo, varianceOf } from './knowledge';
import { type Slot, type Wishes, bestArms, foreseen, proposeSeason, sureness } from './propose';

const r = await startR();
const arm = (trial: string, treatment: string, mean: number, sd: number, n: number): TrialArm => ({
  ...{ trial, treatment, mean, sd, n },
});
const arms = [
  arm('one', 'W', 50, 5, 6),
  arm('one', 'A', 58, 6, 6),
  arm('one', 'B', 61, 5, 5),
  arm('two', 'W', 40, 4, 5),
  arm('two', 'B', 44, 5, 5),
  arm('three', 'A', 70, 9, 4),
  arm('three', 'C', 66, 7, 6),
];
const names = ['W', 'A', 'B', 'C'];

describe('what is known', () => {
  it('is the standings’ network where nothing was believed before', () => {
    const made = networkMeta(arms, 'W');
    if (!made.ok) throw new Error(made.error.tag);
    const known = knowledgeOf(names, arms, { prior: 300, tau2: made.value.tau2 });
    for (const p of made.value.products) {
      if (p.name === 'W') continue;
      const i = names.indexOf(p.name);
      expect(known.mean[i]! - known.mean[0]!).toBeCloseTo(Math.log1p(p.percent / 100), 5);
      const se = (Math.log1p(p.high / 100) - Math.log1p(p.low / 100)) / (2 * 1.959963984540054);
      expect(Math.sqrt(varianceOf(known, i, 0))).toBeCloseTo(se, 5);
    }
  });

  it('is what R’s matrices give: belief before, and each trial with its own level taken out', async () => {
    const [prior, tau2] = [0.12, 0.004];
    const known = knowledgeOf(names, arms, { prior, tau2 });
    const rows = arms.map((a) => `c(${names.map((n) => Number(n === a.treatment)).join(',')})`).join(',');
    const out = await r.numbers(`
      X <- rbind(${rows}); trial <- factor(c(${arms.map((a) => `"${a.trial}"`).join(',')}))
      y <- log(c(${arms.map((a) => a.mean).join(',')}))
      v <- ${tau2} / 2 + c(${arms.map((a) => a.sd ** 2 / (a.n * a.mean ** 2)).join(',')})
      Z <- model.matrix(~ trial - 1); W <- diag(1 / v)
      M <- W - W %*% Z %*% solve(t(Z) %*% W %*% Z) %*% t(Z) %*% W
      S <- solve(diag(4) / ${prior ** 2} + t(X) %*% M %*% X)
      c(S %*% t(X) %*% M %*% y, S)`);
    known.mean.forEach((m, i) => expect(m).toBeCloseTo(out[i]!, 9));
    known.covariance.flat().forEach((c, i) => expect(c).toBeCloseTo(out[4 + i]!, 9));
  });

  it('goes by trials in which two of them stood side by side, and by no other', () => {
    expect(telling(['A', 'B'], arms).map((own) => own[0]!.trial)).toEqual(['one']);
    expect(telling(['C', 'B'], arms)).toEqual([]);
    expect(knowledgeOf(['C', 'B'], arms, { prior: 0.1, tau2: 0 })).toEqual(
      nothingKnown(['C', 'B'], { prior: 0.1 }),
    );
  });

  it('of two products: the variances add as their inverses do', () => {
    const before = nothingKnown(['A', 'B'], { prior: 0.1 });
    const after = afterTrial(before, { arms: [0, 1], variances: [0.01, 0.03], values: null });
    expect(varianceOf(before, 0, 1)).toBeCloseTo(0.02, 12);
    expect(varianceOf(after, 0, 1)).toBeCloseTo(1 / (1 / 0.02 + 1 / 0.04), 12);
    expect(topTwo(after, [0, 1], 3)[0]![1]).toBeCloseTo(1, 9);
  });
});

const slot: Slot = { area: 'shelf', places: 24, startDate: '2026-03-02', endDate: '2026-04-06' };
const wishes: Wishes = {
  ...{ goal: { kind: 'rank' }, among: ['A', 'B', 'C', 'D', 'E'], reference: 'W', cv: 0.12, tau2: 0.0025 },
  ...{ leastEach: 3, mostArms: 8 },
};
const six = ['W', 'A', 'B', 'C', 'D', 'E'];

describe('the arms of a trial', () => {
  it('are within a fiftieth of the best of all there are, whatever is known', () => {
    const one = fc.record({
      trial: fc.constantFrom('x', 'y', 'z'),
      treatment: fc.constantFrom(...six),
      mean: fc.integer({ min: 40, max: 60 }),
      n: fc.integer({ min: 3, max: 8 }),
    });
    fc.assert(
      fc.property(fc.uniqueArray(one, { maxLength: 9, selector: (a) => a.trial + a.treatment }), (seen) => {
        const known = knowledgeOf(
          six,
          seen.map((a) => ({ ...a, sd: 6 })),
          { prior: 0.12, tau2: 0.0025 },
        );
        const left = (own: number[]) => {
          const k = foreseen(known, own, slot, wishes);
          let sum = 0;
          for (let i = 1; i < 6; i++) for (let j = i + 1; j < 6; j++) sum += varianceOf(k, i, j);
          return sum;
        };
        const all = Array.from({ length: 64 }, (_, bits) =>
          [0, 1, 2, 3, 4, 5].filter((i) => bits & (1 << i)),
        );
        const least = Math.min(...all.filter((a) => a.length >= 2).map(left));
        expect(left(bestArms(known, slot, wishes, 1))).toBeLessThanOrEqual(least * 1.02);
      }),
      { numRuns: 40 },
    );
  });
  it('never more than there is room or hands for; none where not even two fit', () => {
    const known = nothingKnown(six, { prior: 0.12 });
    expect(bestArms(known, { ...slot, places: 9 }, wishes, 1).length).toBeLessThanOrEqual(3);
    expect(bestArms(known, slot, { ...wishes, mostArms: 2 }, 1)).toHaveLength(2);
    expect(bestArms(known, { ...slot, places: 5 }, wishes, 1)).toEqual([]);
  });
  it('of a pair are that pair, unless others join them better', () => {
    const known = nothingKnown(six, { prior: 0.12 });
    expect(bestArms(known, slot, { ...wishes, goal: { kind: 'pair', a: 'B', b: 'D' } }, 1)).toEqual([2, 4]);
  });
});

describe('how sure it will be', () => {
  it('of two unknown ones: a coin, and after a trial the angle between truth and estimate', () => {
    const two: Wishes = { ...wishes, among: ['A', 'B'], goal: { kind: 'best' } };
    const known = nothingKnown(['A', 'B'], { prior: 0.12 });
    expect(sureness(known, [], two, 2, 3000)).toBeCloseTo(0.5, 1.3);
    // P(sign of estimate = sign of truth) = 1/2 + asin(ρ)/π (Sheppard 1898), ρ² = prior variance / (prior + noise).
    const noise = 2 * (two.tau2 / 2 + two.cv ** 2 / 12);
    const rho = Math.sqrt((2 * 0.12 ** 2) / (2 * 0.12 ** 2 + noise));
    expect(sureness(known, [{ arms: [0, 1], slot }], two, 2, 3000)).toBeCloseTo(
      0.5 + Math.asin(rho) / Math.PI,
      1.6,
    );
    expect(normalCdf(0, 0, 1)).toBe(0.5);
  });
});

describe('the season', () => {
  const slots = [slot, { ...slot, startDate: '2026-04-13', endDate: '2026-05-18' }];
  const best: Wishes = { ...wishes, goal: { kind: 'best' } };
  const known = knowledgeOf(six, [...arms.slice(0, 5)], { prior: 0.12, tau2: 0.0025 });

  it('goes on from what it will know, gets surer, and says why with its own figures', () => {
    const made = proposeSeason(known, slots, best, new Set(['W', 'A', 'B']), 5);
    expect(made).toHaveLength(2);
    expect(made[1]!.sure.before).toBe(made[0]!.sure.after);
    expect(made.at(-1)!.sure.after).toBeGreaterThan(made[0]!.sure.before);
    const said = (x: number) => (x < 10 ? x.toFixed(1) : String(Math.round(x)));
    for (const p of made) {
      expect(p.each * p.arms.length).toBeLessThanOrEqual(p.slot.places);
      expect(p.pair.after).toBeLessThan(p.pair.before);
      expect(p.arms).toEqual(expect.arrayContaining([p.pair.a, p.pair.b]));
      expect(p.why).toContain(`±${said(p.pair.before)} %, after it by ±${said(p.pair.after)} %.`);
      expect(p.why).toMatch(new RegExp(`^${p.pair.a} and ${p.pair.b} are the pair the best turns on`));
      const before = new Set(made.slice(0, made.indexOf(p)).flatMap((q) => q.arms));
      const fresh = p.arms.filter((n) => ['C', 'D', 'E'].includes(n) && !before.has(n));
      expect(/No finished trial has .* of these yet/.test(p.why)).toBe(fresh.length > 0);
    }
    expect(proposeSeason(known, slots, best, new Set(), 5)).toEqual(
      proposeSeason(known, slots, best, new Set(), 5),
    );
  });
  it('on an empty bench says that nothing is known, and claims nothing of what is', () => {
    const [first] = proposeSeason(nothingKnown(six, { prior: 0.12 }), [slot], best, new Set(), 5);
    expect(first!.why).toMatch(
      /^Nothing is known of any of them yet: . against . would be uncertain by ±[\d.]+ % after it\.$/,
    );
  });
  it('says that nothing is known of the first trial alone: the second goes by what the first will tell', () => {
    const made = proposeSeason(nothingKnown(six, { prior: 0.12 }), slots, best, new Set(), 5);
    expect(made.map((p) => /^Nothing is known/.test(p.why))).toEqual([true, false]);
    const told = new Set(made[0]!.arms);
    const fresh = made[1]!.arms.some((n) => n !== 'W' && !told.has(n));
    expect(/No finished trial has/.test(made[1]!.why)).toBe(fresh);
  });
  it('puts the reference first where it stands in', () => {
    const all: Wishes = { ...wishes, among: six.slice(1), goal: { kind: 'pair', a: 'W', b: 'A' } };
    expect(proposeSeason(known, [slot], all, new Set(six), 1)[0]!.arms[0]).toBe('W');
  });
  it('recommends better than the plain rules on benches whose truth is known, the same for a seed', () => {
    const regret = seasonRegret(24, 4);
    expect(regret.palazzo).toBeLessThan(regret.control);
    expect(regret.palazzo).toBeLessThan(regret.favourites);
    expect(seasonRegret(24, 4)).toEqual(regret);
    expect(saySeason(200, { palazzo: 0.84, control: 1.2, favourites: 1.96 })).toBe(
      'season: benches 200, regret palazzo 0.8, control 1.2, favourites 2.0',
    );
  });
});
