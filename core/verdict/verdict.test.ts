import { describe, expect, it } from 'vitest';
import type { Entry } from '../log/entry';
import type { ProductId } from '../model/ids';
import type { Plan } from '../model/plan';
import {
  entry,
  harvest,
  height,
  heightTrait,
  plan,
  product,
  trait,
  unitId,
  use,
  weighing,
} from '../testing/trial';
import { layOut } from '../design/layOut';
import { deriveState } from '../log/state';
import type { Finding } from '../account/finding';
import { findingOf } from '../account/findingInput';
import { pairOutcome } from '../account/rank';
import { makeVerdict } from './verdict';
import { blindHeadline, headline, measureLabel, methodText, notes, warningsOf } from '../say/words';

const nameOf = (id: string) => id;

function finding(p: Plan, log: Entry[], over = {}): Finding {
  const made = findingOf(deriveState(p, log), p.traits[0]!, over);
  if (!made.ok) throw new Error(made.error.tag);
  return made.value;
}

const four = plan({ treatments: ['Water', 'A', 'B', 'C'], replicates: 4 });
const spread = (m: number) => [m - 1.5, m - 0.5, m + 0.5, m + 1.5];

describe('reading a pair’s interval', () => {
  const pair = (low: number, high: number) => ({
    a: 'a',
    b: 'b',
    scale: 'difference' as const,
    estimate: (low + high) / 2,
    low,
    high,
    p: 0.5,
    percent: null,
  });
  it.each([
    [[2, 8], 5, { verdict: 'better', ahead: 'a', matters: false }],
    [[6, 8], 5, { verdict: 'better', ahead: 'a', matters: true }],
    [[-8, -2], 5, { verdict: 'better', ahead: 'b' }],
    [[-2, 3], 5, { verdict: 'alike', ahead: null }],
    [[-6, 7], 5, { verdict: 'tooClose', ahead: null }],
    [[-5, 5], 5, { verdict: 'tooClose', ahead: null }],
    [[-2, 9], 5, { verdict: 'leaning', ahead: 'a' }],
    [[-9, 2], 5, { verdict: 'leaning', ahead: 'b' }],
    [[-1, 1], null, { verdict: 'tooClose' }],
  ] as const)('%j against %s', ([low, high], smallest, expected) => {
    expect(pairOutcome(pair(low, high), smallest, true)).toMatchObject(expected);
  });
  it('turns round when lower is better', () => {
    expect(pairOutcome(pair(2, 8), 5, false)).toMatchObject({ verdict: 'better', ahead: 'b' });
    expect(pairOutcome(pair(-2, 9), 5, false)).toMatchObject({ verdict: 'leaning', ahead: 'b' });
  });
  it('says nothing without an interval', () => {
    expect(pairOutcome({ ...pair(0, 0), low: null, high: null }, 5, true).verdict).toBe('untested');
  });
});

describe('the sentence and the ranks', () => {
  it.each([
    [
      { Water: 50, A: 51, B: 70, C: 71 },
      'Two of three contenders beat Water; nothing separates the two.',
      [1, 1, 3, 3],
    ],
    [{ Water: 50, A: 60, B: 70, C: 80 }, 'All three contenders beat Water; C came first.', [1, 2, 3, 4]],
    [{ Water: 50, A: 49, B: 50, C: 70 }, 'Only C beat Water.', [1, 2, 2, 2]],
    [
      { Water: 50, A: 30, B: 50, C: 51 },
      'A did worse than Water; none was shown to be better.',
      [1, 1, 1, 4],
    ],
    [{ Water: 50, A: 30, B: 70, C: 90 }, 'Two of three contenders beat Water; A did worse.', [1, 2, 3, 4]],
    [
      { Water: 50, A: 50.2, B: 50.1, C: 49.9 },
      'None of the three contenders made a difference that matters.',
      [1, 1, 1, 1],
    ],
  ])('%j: %s', (means, sentence, ranks) => {
    const log = harvest(Object.fromEntries(Object.entries(means).map(([k, m]) => [k, spread(m)])));
    const f = finding(four, log);
    expect(headline(f, nameOf).text).toBe(sentence);
    expect(f.ranking.map((r) => r.rank)).toEqual(ranks);
    expect(f.ranking.map((r) => r.tied)).toEqual(ranks.map((r) => ranks.filter((x) => x === r).length > 1));
  });
  it('too close to call when the spread swallows everything', () => {
    const wide = (m: number) => [m - 12, m - 4, m + 4, m + 12];
    const f = finding(four, harvest({ Water: wide(50), A: wide(52), B: wide(54), C: wide(48) }));
    expect(headline(f, nameOf).text).toMatch(/^Too close to call/);
    expect(notes(f, nameOf, 'tray').map((n) => n.title)).toEqual([
      'A, B and C against Water: too close to call.',
    ]);
    expect(f.replicatesToSee).toBeGreaterThan(4);
  });
  it('lower is better where the plan says so', () => {
    const p = { ...four, traits: [trait({ direction: 'lower' }), four.traits[1]!] };
    const f = finding(p, harvest({ Water: spread(50), A: spread(30), B: spread(50), C: spread(70) }));
    expect(headline(f, nameOf).text).toBe('Only A beat Water; C did worse.');
    expect(f.ranking[0]!.name).toBe('A');
  });
  it('one unit each: numbers, no winner', () => {
    const p = plan({ treatments: ['Water', 'A'], replicates: 1 });
    const f = finding(p, harvest({ Water: [50], A: [90] }));
    expect(headline(f, nameOf).text).toBe('One unit each: numbers, no winner.');
    expect(f.ranking.every((r) => r.rank === null)).toBe(true);
    expect(notes(f, nameOf, 'tray')[0]!.text).toMatch(/two single trays/);
    expect(makeVerdict(p, f, nameOf).bestValue.treatmentId).toBeNull();
  });
});

describe('which units are in', () => {
  const log = harvest({ Water: spread(50), A: spread(60), B: spread(70), C: [80, 81, 82] });
  it('excluded, dead and unmeasured ones are named with their reason', () => {
    const state = deriveState(four, [
      ...log,
      entry({ kind: 'exclusion', unitId: unitId('A', 0), traitId: null, reason: 'spilt' }),
      entry({ kind: 'death', unitId: unitId('C', 3), sample: null, cause: 'mould' }),
    ]);
    const made = findingOf(state, four.traits[0]!);
    if (!made.ok) throw new Error();
    expect(made.value.units).toHaveLength(14);
    expect(made.value.leftOut.map((u) => u.reason)).toEqual(['spilt', 'died: mould']);
    expect(methodText(made.value, 'tray')).toContain('(spilt)');
    const withThem = findingOf(state, four.traits[0]!, { withExcluded: true });
    expect(withThem.ok && withThem.value.units).toHaveLength(15);
  });
  it('a spare in a unit is said once its values count, and not of values from before it', () => {
    const p = plan({ replicates: 2 });
    const at = (day: number) =>
      new Date(Date.parse(`${p.startDate}T12:00:00Z`) + day * 86_400_000).toISOString();
    const units = ['Water-0', 'Water-1', 'A-0', 'A-1'];
    const round = (r: string, first: number) => units.map((u, i) => entry(height(u as never, first + i, r)));
    const spare = {
      ...entry({ kind: 'replacement', unitId: unitId('A', 0), sample: null, reason: '' }),
      at: at(6),
    };
    const said = (log: Parameters<typeof deriveState>[1]) => {
      const made = findingOf(deriveState(p, log), heightTrait());
      if (!made.ok) throw new Error(made.error.tag);
      return warningsOf(made.value, 'tray').join(' ');
    };
    const spareLine = 'TST-02 since day 6: a spare in place of what died, treated for fewer days.';
    expect(said([...round('r1', 5), spare])).not.toContain('spare');
    expect(said([...round('r1', 5), ...round('r2', 9), spare])).toContain(spareLine);
    expect(said([...round('r1', 5), ...round('r2', 9)])).not.toContain('spare');
  });
  it('a trait without values has no finding', () => {
    expect(findingOf(deriveState(four, log), heightTrait())).toEqual({
      ok: false,
      error: { tag: 'noValues' },
    });
  });
  it('a round that is half done isn’t mixed with the one before: it is named, and what is missing in it', () => {
    const p = plan({ replicates: 2 });
    const heights = [
      ...['Water-0', 'Water-1', 'A-0', 'A-1'].map((u, i) => entry(height(u as never, 5 + i))),
      entry(height(unitId('A', 0), 90, 'r2')),
    ];
    const made = findingOf(deriveState(p, heights), heightTrait());
    if (!made.ok) throw new Error(made.error.tag);
    expect(made.value.units.map((u) => u.value)).toEqual([5, 7, 6, 8]);
    expect(warningsOf(made.value, 'tray')[0]).toBe(
      'Not counted yet: Harvest (day 10) has 1 of 4 trays; TST-01, TST-03 and TST-04 are missing.',
    );
    expect(headline(made.value, nameOf).text).toMatch(/^So far: /);
  });
  it('blocks are taken off only when every unit has one', () => {
    const blocked = plan({ treatments: ['Water', 'A', 'B', 'C'], replicates: 4, blocked: true });
    expect(finding(blocked, log).analysis.smallPrint).toContain('4 blocks taken off first');
    expect(finding(four, log).analysis.smallPrint).not.toContain('block');
  });
});

describe('the verdict with money', () => {
  const feed = (id: string, priceMinor: number, currency = 'EUR') =>
    product({ id: id as ProductId, name: id, packs: [{ ...product().packs[0]!, priceMinor, currency }] });
  const priced: Plan = {
    ...four,
    products: [feed('cheap', 1000), feed('dear', 9000)],
    treatments: four.treatments.map((t) =>
      t.name === 'B'
        ? { ...t, products: [use({ productId: 'cheap' as ProductId, timesPerUnit: 5 })] }
        : t.name === 'C'
          ? { ...t, products: [use({ productId: 'dear' as ProductId, timesPerUnit: 5 })] }
          : t,
    ),
  };
  const log = harvest({ Water: spread(50), A: spread(50), B: spread(70), C: spread(75) });
  it('best value is the cheapest extra gram among those that beat the control', () => {
    const v = makeVerdict(priced, finding(priced, log), nameOf);
    // B: 5 × 10 mL of 1 L at 10.00 = 0.50 for 20 g more: 0.025 a gram
    expect(v.bestValue).toMatchObject({ treatmentId: 'B' });
    expect(v.bestValue.text).toMatch(/^B: 2\.5 ct \(2\.\d ct to [23]\.\d ct\) for each g more than Water\.$/);
    const b = v.lines.find((l) => l.treatment.id === 'B')!;
    expect(b.perResult!.minor).toBeCloseTo(50 / 70, 9);
    expect(b.perExtra!.perExtra.minor).toBeCloseTo(50 / 20, 9);
  });
  it('ahead by ranks alone there is no price of a gram more: the cheapest of those that beat', () => {
    const ranked = finding(priced, log, { method: 'scores' });
    expect(ranked.analysis.method).toBe('scores');
    expect(makeVerdict(priced, ranked, nameOf).bestValue).toMatchObject({
      treatmentId: 'B',
      text: expect.stringMatching(/^B: the cheapest of those that beat Water, €0\.500 a tray\./),
    });
  });
  it('nothing earns its price when nothing beat the control', () => {
    const flat = finding(priced, harvest({ Water: spread(50), A: spread(50), B: spread(50), C: spread(51) }));
    expect(makeVerdict(priced, flat, nameOf).bestValue.treatmentId).toBe('Water');
  });
  it('whether anything earns its price can’t be told where the intervals leave room for it', () => {
    const two = {
      ...priced,
      units: priced.units.filter((u) => /-[01]$/.test(u.id)),
    };
    const wide = finding(two, harvest({ Water: [40, 60], A: [45, 62], B: [42, 66], C: [41, 59] }));
    const { bestValue } = makeVerdict(two, wide, nameOf);
    expect(bestValue.treatmentId).toBeNull();
    expect(bestValue.text).toBe(
      'Can’t be told: nothing was shown to be better than Water, and too little was seen to say that nothing earns its price.',
    );
  });
  it('what breaks the comparison is the first sentence, and is left open; accepted, it is told below', () => {
    const fault = {
      ruleId: 'unequal-room',
      severity: 'breaks' as const,
      title: 'Unequal plants, volume or area',
      why: '',
      found: 'volume, L: 2 (Water); 3 (A).',
      cure: '',
      room: 'contenders' as const,
      fixLabel: null,
      curesItself: false,
      accepted: null,
    };
    const f = finding(priced, log);
    const unfair = makeVerdict(priced, f, nameOf, { audit: [fault] });
    expect(unfair.headline.text).toMatch(/^Not a fair comparison: unequal plants, volume or area\. /);
    expect(unfair.cannotTell[0]!.text).toMatch(/^Whether the product did it\. Unequal plants.*3 \(A\)/);
    const accepted = makeVerdict(priced, f, nameOf, { audit: [{ ...fault, accepted: 'pots as sold' }] });
    expect(accepted.headline.text).toBe(makeVerdict(priced, f, nameOf).headline.text);
    expect(accepted.cannotTell[0]!.text).toContain('Accepted: pots as sold');
    const note = makeVerdict(priced, f, nameOf, { audit: [{ ...fault, severity: 'note' }] });
    expect(note.cannotTell.map((c) => c.text).join()).not.toContain('Whether the product did it');
  });
  it('stays open when a winner can’t be priced or currencies differ', () => {
    const noPack = { ...priced, products: [{ ...feed('cheap', 0), packs: [] }, feed('dear', 9000)] };
    const v = makeVerdict(noPack, finding(noPack, log), nameOf);
    expect(v.bestValue.text).toMatch(/until B can be priced\./);
    // Nor is one counted as free of which no product is written down.
    const unnamed = {
      ...priced,
      treatments: priced.treatments.map((t) => (t.name === 'B' ? { ...t, products: [] } : t)),
    };
    const w = makeVerdict(unnamed, finding(unnamed, log), nameOf);
    expect(w.bestValue.text).toMatch(/until B can be priced\./);
    expect(w.lines.find((l) => l.treatment.name === 'B')).toMatchObject({ perResult: null, perExtra: null });
    expect(w.cannotTell.map((c) => c.text)).toContain(
      'What B costs: No product and dose is written down for it.',
    );
    expect(v.cannotTell.map((c) => c.text).join()).toMatch(/cheap has no pack/);
    const mixed = { ...priced, products: [feed('cheap', 1000, 'USD'), feed('dear', 9000)] };
    expect(makeVerdict(mixed, finding(mixed, log), nameOf).bestValue.text).toMatch(
      /Open until B and C can be priced in the same currency/,
    );
  });
  it('names pairs that can’t be told apart, and what one trial can’t say', () => {
    const strict = { ...priced, smallestDifference: { kind: 'absolute' as const, value: 1 } };
    const v = makeVerdict(
      strict,
      finding(strict, harvest({ Water: spread(50), A: spread(50), B: spread(70), C: spread(72) })),
      nameOf,
    );
    expect(
      v.cannotTell
        .map((c) => c.text)
        .some((t) => /^Which is better, B against C: −\d\.\d to \+\d\.\d g/.test(t)),
    ).toBe(true);
    expect(v.cannotTell.map((c) => c.text).at(-1)).toMatch(/this was cress, once/);
  });
});

describe('a wanted band', () => {
  const height = trait({
    kind: 'number',
    unit: 'cm',
    name: 'Height',
    summary: 'last',
    direction: 'band',
    bandLow: 9,
    bandHigh: 12,
  });
  const p: Plan = {
    ...four,
    traits: [height],
    rounds: four.rounds.map((r) => ({ ...r, traitIds: [height.id] })),
  };
  const log = harvest({
    Water: [7, 8, 7.5, 8.5],
    A: [10, 11, 10, 11],
    B: [20, 21, 19, 20],
    C: [9, 12, 10, 11],
  });
  const f = finding(p, log);
  const v = makeVerdict(p, f, nameOf);
  it('ranks by the distance outside it and says that the figures are distances', () => {
    expect(headline(f, nameOf).text).toBe('Two of three contenders beat Water; B did worse.');
    expect(measureLabel(f)).toBe('Height: cm outside 9–12');
    expect(v.lines.find((l) => l.treatment.id === 'B')!.mean).toBeCloseTo(8, 9);
    expect(v.lines.find((l) => l.treatment.id === 'A')!.mean).toBe(0);
  });
  it('never gives a distance in per cent, nor a price for it', () => {
    // How many are inside is a share, and said as one.
    const text = notes(f, nameOf, 'tray')
      .filter((n) => n.title !== 'Inside the wanted band.')
      .map((n) => n.text)
      .join(' ');
    expect(text).not.toContain('%');
    expect(text).toContain('cm');
    expect(v.lines.every((l) => l.perResult === null && l.perExtra === null)).toBe(true);
    expect(v.bestValue.treatmentId).toBeNull();
  });
});

it('one unit each: the verdict says what can’t be told', () => {
  const p = plan({ treatments: ['Water', 'A'], replicates: 1 });
  const v = makeVerdict(p, finding(p, harvest({ Water: [50], A: [90] })), nameOf);
  expect(v.cannotTell[0]!.text).toBe('Which is better: one unit each: numbers, no winner.');
});

describe('designs and blinding in a finding', () => {
  const names = ['Water', 'A', 'B'];
  const square = () => {
    const base = plan({ treatments: names, replicates: 3 });
    const units = layOut(base, { kind: 'latin', replicates: 3, seed: 4, settings: [], balance: null });
    if (!units.ok) throw new Error(units.error.tag);
    return { ...base, units: units.value };
  };
  it('rows and columns of a Latin square are both taken off', () => {
    const p = square();
    // A strong gradient along both sides; A is 10 more, whatever its place.
    const log = p.units.map((u, i) =>
      entry(
        weighing(
          u.id,
          50 + 20 * u.position.row + 9 * u.position.column + (u.treatmentId === 'A' ? 10 : 0) + (i % 2) * 0.1,
        ),
        `w${i}`,
      ),
    );
    const found = findingOf(deriveState(p, log), p.traits[0]!);
    if (!found.ok) throw new Error(found.error.tag);
    const { analysis } = found.value;
    expect(analysis.smallPrint).toContain('F(2, 2)');
    expect(analysis.versusControl[0]!.estimate).toBeCloseTo(10, 0);
    expect(methodText(found.value, 'tray')).toMatch(/3 rows and 3 columns of the square/);
  });
  it('by code it says how many pairs are apart and nothing of the control', () => {
    const p = plan({ treatments: names, replicates: 3 });
    const of = (values: Record<string, number[]>) => {
      const f = findingOf(deriveState(p, harvest(values)), p.traits[0]!);
      if (!f.ok) throw new Error(f.error.tag);
      return blindHeadline(f.value);
    };
    expect(of({ Water: [50, 51, 52], A: [80, 81, 82], B: [81, 82, 83] })).toBe(
      'By code: two of three pairs can be told apart.',
    );
    expect(of({ Water: [50, 60, 70], A: [51, 60, 71], B: [49, 62, 70] })).toBe(
      'By code: nothing can be told apart.',
    );
    expect(of({ Water: [1, 2, 3], A: [50, 51, 52], B: [80, 81, 82] })).toMatch(/every code/);
    expect(of({ Water: [1], A: [2], B: [3] })).toMatch(/One unit each/);
  });
  it('says what is lost where scores are compared by means, and not where ranks are', () => {
    const score = trait({ kind: 'score', summary: 'last', scale: [] });
    const p = plan({ treatments: names, replicates: 6, traits: [score] });
    const log = p.units.map((u, i) =>
      entry(
        {
          kind: 'measurement',
          unitId: u.id,
          traitId: score.id,
          roundId: null,
          sample: null,
          value: (i % 5) + 1,
          notYet: i === 0,
        },
        `s${i}`,
      ),
    );
    const said = (method: string | null) => {
      const found = findingOf(deriveState(p, log), score, { method });
      return found.ok ? warningsOf(found.value, 'tray').join(' ') : found.error.tag;
    };
    expect(said('linear')).toMatch(/Scores are compared as figures/);
    expect(said(null)).not.toMatch(/as figures/);
    const words = findingOf(deriveState(p, log), trait({ kind: 'text' }));
    expect(words).toEqual({ ok: false, error: { tag: 'words' } });
  });
});
