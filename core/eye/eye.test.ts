// Cases of the trainer: what they say is true is worked out again from their own texts and figures.
// References: the staircase's balance (Kaernbach 1991); the normal distribution for a gap of two means; NIST SP 811 for measures.
import normalCdf from '@stdlib/stats-base-dists-normal-cdf';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../stats/random';
import { byChance, callCase, letters, tellCall, testCalls, wouldTell } from './callIt';
import { doseCase, isRight } from './doseIt';
import { faultCase, markFaults } from './findFault';
import { claimCase, stamps } from './judgeClaim';
import { type EyeAnswer, byWeek, callRecord, levelOf, rightOf } from './record';
import { agreement, coverScale, sayAgreement, scoringSeries, trueStep } from './scoreTwice';
import { FIRST_LEVEL, levelAfter, nextLevel } from './staircase';

describe('the staircase', () => {
  it('settles where three of four are right, whoever answers', () => {
    for (const slope of [4, 9, 20]) {
      const random = seededRandom(slope);
      let [level, right, counted] = [FIRST_LEVEL, 0, 0];
      for (let i = 0; i < 6000; i++) {
        const is = random.uniform() < 1 / (1 + Math.exp(slope * (level - 0.5)));
        if (i > 500) [right, counted] = [right + Number(is), counted + 1];
        level = nextLevel(level, is);
      }
      expect(right / counted).toBeCloseTo(0.75, 1.6);
    }
  });
  it('never leaves 0 … 1, and goes by the answers alone', () => {
    fc.assert(
      fc.property(fc.array(fc.boolean()), (all) => {
        const level = levelAfter(all.map((right) => ({ right })));
        expect(level).toBeGreaterThanOrEqual(0);
        expect(level).toBeLessThanOrEqual(1);
      }),
    );
    expect(levelAfter([])).toBe(FIRST_LEVEL);
  });
});

const mean = (xs: readonly number[]) => xs.reduce((s, x) => s + x, 0) / xs.length;

describe('call it', () => {
  const cases = Array.from({ length: 400 }, (_, seed) => callCase(seed, (seed % 10) / 10));

  it('is the same for a seed; in half of the cases nothing differs', () => {
    expect(callCase(7, 0.4)).toEqual(callCase(7, 0.4));
    const none = cases.filter((c) => c.best === null).length;
    expect(none).toBeGreaterThan(160);
    expect(none).toBeLessThan(240);
  });

  it('the test names somebody in no more than one of twenty where nothing differs, and mostly the best where one does', () => {
    const none = cases.filter((c) => c.best === null);
    const wrong = none.filter((c) => testCalls(c) !== null).length;
    // 5 % of about 200, and three standard errors
    expect(wrong / none.length).toBeLessThan(0.05 + 3 * Math.sqrt((0.05 * 0.95) / none.length));
    const some = cases.filter((c) => c.best !== null && c.made.units[0]! >= 6);
    expect(some.filter((c) => testCalls(c) === c.best).length / some.length).toBeGreaterThan(0.5);
  });

  it('“by chance alone” of two is the tail of a normal distribution', () => {
    const two = cases.filter((c) => c.values.length === 2).slice(0, 12);
    expect(two.length).toBeGreaterThan(5);
    for (const c of two) {
      const gap = Math.abs(mean(c.values[0]!) - mean(c.values[1]!));
      const se = c.made.scatter * Math.sqrt(2 / c.made.units[0]!);
      expect(byChance(c)).toBeCloseTo(2 * (1 - normalCdf(gap / se, 0, 1)), 1.5);
    }
  });

  it('says what was true and who was right: the figures come from the dots', () => {
    for (const c of cases.slice(0, 16)) {
      const test = testCalls(c);
      for (const called of [null, 0, 1]) {
        const told = tellCall(c, called, test);
        expect(told.right).toBe(called === c.best);
        expect(told.text.includes('points of cover')).toBe(c.unit === '%');
        expect(
          told.title.startsWith(
            called === null ? 'You called it too close.' : `You called ${letters[called]}.`,
          ),
        ).toBe(true);
        expect(/Nothing was different/.test(told.title)).toBe(c.best === null);
        expect(/drawn from one heap/.test(told.text)).toBe(new Set(c.made.levels).size === 1);
        expect(told.text).toContain(
          test === null ? 'The test: too close to call.' : `The test: ${letters[test]} leads.`,
        );
      }
    }
  });

  it('more of each tell what fewer don’t', () => {
    const hard = cases.find((c) => c.best !== null && c.made.units[0]! <= 4 && (wouldTell(c) ?? 99) > 6)!;
    expect(tellCall(hard, null, testCalls(hard)).text).toMatch(
      /of each would name it in eight of ten|Sixteen of each wouldn’t/,
    );
  });
});

describe('find the fault', () => {
  const cases = Array.from({ length: 120 }, (_, seed) => faultCase(seed, (seed % 11) / 10));

  it('what a line says decides: the same for all, by lot, written down', () => {
    const kinds = new Set<string>();
    let clean = 0;
    for (const c of cases) {
      clean += Number(c.lines.every((l) => l.faults.length === 0));
      for (const { id, text, faults } of c.lines) {
        if (faults.length > 0) kinds.add(id);
        const bad = {
          question: (text.match(/[?]|, and which/g) ?? []).length > 1,
          contenders: !text.includes('Water'),
          dose: /4 g\/L/.test(text),
          scale: /steps of 5 g/.test(text),
          water: !text.endsWith('for all.'),
          light: !text.endsWith('for all.'),
          plants: !text.endsWith('for all.'),
          room: !text.endsWith('for all.'),
          units: !text.endsWith('in blocks, drawn by lot.'),
          prediction: /we shall see/.test(text),
          difference: /any that shows/.test(text),
          end: /when it looks good/.test(text),
          bought: /came free/.test(text),
          watering: /got nothing/.test(text),
          mixing: /20 g|gets more/.test(text),
          harvest: /day 15/.test(text),
        }[id];
        expect([id, text, faults.length > 0]).toEqual([id, text, bad]);
      }
    }
    // Every line is spoiled somewhere, and a plan without a fault comes too.
    expect(kinds.size).toBe(cases[0]!.lines.length);
    expect(clean).toBeGreaterThan(0);
  });

  it('right is all of them and no other', () => {
    for (const c of cases.slice(0, 20)) {
      const there = c.lines.filter((l) => l.faults.length > 0).map((l) => l.id);
      expect(markFaults(c, new Set(there)).right).toBe(true);
      expect(markFaults(c, new Set(c.lines.map((l) => l.id))).right).toBe(there.length === c.lines.length);
      if (there.length > 0)
        expect(markFaults(c, new Set(there.slice(1)))).toMatchObject({ right: false, hit: there.length - 1 });
    }
  });
});

describe('dose it', () => {
  // NIST SP 811, appendix B; imperial spoons and ounces by the gallon of 4.54609 L; metric spoon 15 mL (practice).
  const worth: Record<string, number> = {
    'US tsp': 4.92892,
    'US tbsp': 14.78676,
    'US fl oz': 29.57353,
    'US gal': 3785.412,
    'imperial tsp': 5.91939,
    'imperial fl oz': 28.41306,
    'imperial gal': 4546.09,
    'imperial tbsp': 15,
    mL: 1,
    g: 1,
    L: 1000,
  };
  it('each step is what the label and the bucket come to, by a table of measures of its own', () => {
    for (let seed = 0; seed < 200; seed++) {
      const c = doseCase(seed, (seed % 11) / 10);
      const [label, bucket] = c.given as [string, string];
      const [, amount, unit, per = '1', base, system = ''] =
        /^The label: ([\d.]+) (mL|g|tsp|tbsp|fl oz) per (?:([\d.]+) )?(L|gal)(?: \((US|imperial) measures\))?\.$/.exec(
          label,
        )!;
      const of = (name: string) => worth[name!] ?? worth[`${system} ${name}`]!;
      const perL = ((Number(amount) * of(unit!)) / (Number(per) * of(base!))) * 1000;
      const [, held, what] = /^The bucket: ([\d.]+) (L|US gal|imperial gal) of water\.$/.exec(bucket)!;
      const litres = (Number(held) * worth[what!]!) / 1000;
      const [first, second, third] = c.steps;
      for (const [step, value] of [
        [first, perL],
        [second, perL * litres],
      ] as const) {
        if (step?.kind !== 'figure') throw new Error('a figure is asked for');
        expect(step.answer / value).toBeCloseTo(1, 3);
        expect(isRight(step, value)).toBe(true);
        expect(isRight(step, value * 1.06 + 0.01)).toBe(false);
      }
      if (third?.kind !== 'figure') throw new Error('a figure is asked for');
      expect(Math.abs(third.answer - perL * litres)).toBeLessThanOrEqual(0.501);
      expect(isRight(third, third.answer + 1)).toBe(false);
    }
  });
  it('parts are dissolved apart, wherever that option stands', () => {
    let asked = 0;
    for (let seed = 0; seed < 120; seed++)
      for (const s of doseCase(seed, 0.9).steps)
        if (s.kind === 'choice') {
          asked += 1;
          expect(s.options[s.answer]).toMatch(/on its own/);
          expect([0, 1, 2].filter((i) => isRight(s, i))).toEqual([s.answer]);
        }
    expect(asked).toBeGreaterThan(10);
  });
});

describe('judge the claim', () => {
  it('the word follows from the interval that is shown, each as often', () => {
    const counts = new Map<string, number>();
    for (let seed = 0; seed < 80; seed++) {
      const c = claimCase(seed, (seed % 11) / 10);
      counts.set(c.truth, (counts.get(c.truth) ?? 0) + 1);
      const figures = [...c.found.replaceAll('−', '-').matchAll(/(?<![\d%])([+-]?\d+)(?= %| to)/g)].map((m) =>
        Number(m[1]),
      );
      const [estimate, , low, high] = /water: ([+-]?\d+) % \((95) % interval ([+-]?\d+) to ([+-]?\d+) %/
        .exec(c.found.replaceAll('−', '-'))!
        .slice(1)
        .map(Number) as [number, number, number, number];
      expect(figures.length).toBeGreaterThan(2);
      const percent = /(\d+) %/.exec(c.claim)?.[1];
      const word =
        high < 0
          ? 'contradicted'
          : low <= 0
            ? 'notShown'
            : !percent || estimate >= Number(percent)
              ? 'borneOut'
              : 'inPart';
      expect([c.claim, c.found, c.truth]).toEqual([c.claim, c.found, word]);
    }
    for (const s of stamps) expect(counts.get(s)).toBe(20);
  });
});

describe('score it twice', () => {
  it('so many come again, turned, at least three later where there is room', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1e6 }), fc.integer({ min: 4, max: 15 }), (seed, things) => {
        const again = Math.floor(things / 2);
        const series = scoringSeries(seed, things, again);
        expect(series).toHaveLength(things + again);
        for (let t = 0; t < things; t++) {
          const at = series.flatMap((s, i) => (s.thing === t ? [i] : []));
          expect(at.length === 1 || at.length === 2).toBe(true);
          if (at.length === 2) {
            expect(series[at[1]!]!.turned).toBe(true);
            expect(series[at[0]!]).toEqual({ ...series[at[1]!]!, turned: false });
            if (at[1]! < series.length - 1) expect(at[1]! - at[0]!).toBeGreaterThanOrEqual(1);
          }
        }
      }),
      { numRuns: 60 },
    );
  });
  it('the written scale has a step for every share', () => {
    expect([0, 0.09, 0.1, 0.3, 0.5, 0.74, 0.75, 1].map(trueStep)).toEqual([1, 1, 2, 3, 4, 4, 5, 5]);
    expect(coverScale.map((s) => s.value)).toEqual([1, 2, 3, 4, 5]);
  });
  it('says agreement, drift and the step that is least steady; nothing where there is nothing', () => {
    const steps = [1, 2, 3, 4, 5];
    expect(sayAgreement(agreement([], steps))).toBe('Nothing was scored twice yet.');
    expect(
      sayAgreement(
        agreement(
          [
            [2, 2],
            [2, 2],
          ],
          steps,
        ),
      ),
    ).toBe(
      '2 of 2 pictures got the same step twice; all got one step, so agreement beyond chance can’t be said.',
    );
    expect(
      sayAgreement(
        agreement(
          [
            [1, 1],
            [2, 3],
            [3, 4],
            [5, 5],
          ],
          steps,
        ),
      ),
    ).toMatch(
      /^2 of 4 pictures got the same step twice; weighted kappa 0\.71\. The second time they were scored 0\.5 steps higher on average\. Step [23] is the least steady: 1 of 1 differed\.$/,
    );
    expect(
      sayAgreement(
        agreement(
          [
            [1, 1],
            [5, 5],
          ],
          steps,
        ),
      ),
    ).toBe('2 of 2 pictures got the same step twice; weighted kappa 1.00.');
  });
});

it('of two people it says from both, and who scored higher', () => {
  const both = agreement(
    [
      [1, 2],
      [5, 5],
    ],
    [1, 2, 3, 4, 5],
  );
  expect(sayAgreement(both, 'both')).toMatch(
    /^1 of 2 pictures got the same step from both; .* The second person scored them 0\.5 steps higher on average\./,
  );
});

describe('the record', () => {
  const answer = (over: Partial<EyeAnswer>): EyeAnswer => ({
    ...{
      id: 'a',
      at: '2026-03-04T10:00:00.000Z',
      day: '2026-03-04',
      by: '',
      game: 'call',
      seed: 1,
      level: 0.2,
      right: true,
    },
    ...over,
  });
  const call = (differs: boolean, eye: 'none' | 'best' | 'other', test: 'none' | 'best' | 'other') =>
    answer({ call: { differs, eye, test }, right: eye === (differs ? 'best' : 'none') });

  it('counts winners that weren’t, and the better ones that were named, beside the test’s', () => {
    const [false_, named] = callRecord([
      call(false, 'other', 'none'),
      call(false, 'none', 'none'),
      call(false, 'other', 'other'),
      call(true, 'best', 'none'),
      call(true, 'other', 'best'),
    ]);
    expect(false_).toMatchObject({ eye: { k: 2, n: 3 }, test: { k: 1, n: 3 } });
    expect(named).toMatchObject({ eye: { k: 1, n: 2 }, test: { k: 1, n: 2 } });
    expect(callRecord([])[0]!.eye.proportion).toBeNull();
  });
  it('goes by weeks from Monday, and each game has a level of its own', () => {
    const all = [
      answer({ day: '2026-03-01', right: false }),
      answer({ day: '2026-03-02' }),
      answer({ day: '2026-03-08', at: '2026-03-09T03:00:00.000Z', game: 'dose' }),
    ];
    expect(byWeek(all)).toMatchObject([
      { week: '2026-02-23', right: { k: 0, n: 1 } },
      { week: '2026-03-02', right: { k: 2, n: 2 } },
    ]);
    expect(levelOf(all, 'dose')).toBeCloseTo(FIRST_LEVEL + 0.04, 12);
    expect(levelOf(all, 'claim')).toBe(FIRST_LEVEL);
    expect(rightOf(all)).toMatchObject({ k: 2, n: 3 });
  });
});
