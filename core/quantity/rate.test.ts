// Units: NIST SP 811, appendix B. Spoons and cups in cookery and label use: common practice.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { areaUnits, type MeasureUnit, measureWorth, systemsOf, units, usMeasures } from './units';
import { type Rate, type RateBase, describeRateError, parseRate, printRate } from './rate';

const measures = (Object.keys(units) as (keyof typeof units)[]).filter((u): u is MeasureUnit =>
  ['mass', 'volume', 'count'].includes(units[u].dimension),
);
const printed = (text: string, own?: string[]) => {
  const r = parseRate(text, own);
  return r.ok ? printRate(r.value) : describeRateError(r.error);
};

describe('rates as people write them', () => {
  it.each([
    ['1 tsp/gal', '1 tsp/gal'],
    ['1–2 tsp per gallon', '1–2 tsp/gal'],
    ['1 to 2 teaspoons per US gallon', '1–2 tsp/US gal'],
    ['12 g / 5 gal', '12 g/5 gal'],
    ['5 mL/4 L', '5 mL/4 L'],
    ['5 ml in 4 litres of water', '5 mL/4 L'],
    ['2 caps per tank', '2 cap/tank'],
    ['1:250', '1:250'],
    ['0.2 %', '0.2 %'],
    ['0,2%', '0.2 %'],
    ['0.1-0.2 % w/v', '0.1–0.2 % w/v'],
    ['1 tbsp', '1 tbsp'],
    ['¼ tsp per quart', '0.25 tsp/qt'],
    ['1 ½ tsp/gal', '1.5 tsp/gal'],
    ['1 1/2 tsp / gal', '1.5 tsp/gal'],
    ['1/2 tsp/gal', '0.5 tsp/gal'],
    ['10 L per 1000 sq ft', '10 L/1000 sq ft'],
    ['10 L per 1,000 sq ft', '10 L/1000 sq ft'],
    ['3 lb per 1,000 square feet', '3 lb/1000 sq ft'],
    ['50 g/m²', '50 g/m²'],
    ['2,5 g/l', '2.5 g/L'],
    ['1 fl oz per imperial gallon', '1 fl oz/imperial gal'],
    ['1 metric tsp each litre', '1 metric tsp/L'],
    ['3 tablets per pot', '3 piece/pot'],
    ['2 pump strokes per tank', '2 pump stroke/tank'],
    ['4 mL per plant', '4 mL/plant'],
    ['1 tablespoon for 2 gallons', '1 tbsp/2 gal'],
    ['500 mg/L', '500 mg/L'],
    ['2 teaspoons (10 mL) per gallon (3.8 L) of water', '2 tsp/gal'],
    ['10ml per litre', '10 mL/L'],
    ['2 lbs. / 100 sq. ft.', '2 lb/100 sq ft'],
    ['5 mL a litre', '5 mL/L'],
    ['2 drops for each litre', '2 drop/L'],
    ['a teaspoon per gallon', '1 tsp/gal'],
    ['half a teaspoon per gallon', '0.5 tsp/gal'],
    ['one to two caps per tank', '1–2 cap/tank'],
    ['A quarter of a teaspoon a quart', '0.25 tsp/qt'],
    ['one and a half tablespoons per 5 gallons', '1.5 tbsp/5 gal'],
    ['three tablets per pot', '3 piece/pot'],
    ['Use 5 mL per litre of water', '5 mL/L'],
    ['Dissolve half a gram in a litre', '0.5 g/L'],
    ['1 in 250', '1:250'],
    ['1 part to 250 parts water', '1:250'],
    ['1 part per 250 parts of water', '1:250'],
  ])('%s', (text, expected) => {
    expect(printed(text)).toBe(expected);
  });
  it('knows measures of one’s own by name, in the plural too', () => {
    expect(printed('3 blue spoons per tank', ['blue spoon'])).toBe('3 blue spoon/tank');
    expect(printed('3 blue spoons per tank')).toBe('“blue” isn’t a measure known here.');
  });
});

describe('what isn’t understood is named', () => {
  it.each([
    ['', /Write a rate/],
    ['tsp/gal', /“tsp \/ gal” doesn’t begin with a number/],
    ['1 smidgen/gal', /“smidgen” isn’t a measure/],
    ['a pinch per bath', /“pinch” isn’t a measure/],
    ['a heaped teaspoon per gallon', /“heaped” isn’t a measure/],
    ['up to 5 mL/L', /doesn’t begin with a number/],
    ['5 in 4 L', /5 of what/],
    ['5', /5 of what/],
    ['5 mL/', /After “\/”/],
    ['5 mL per bathtub', /“bathtub” isn’t a measure/],
    ['0 g/L', /“0” isn’t more than nothing/],
    ['2-1 tsp/gal', /goes down, from 2 to 1/],
    ['5 mL/L twice', /“twice” wasn’t understood/],
    ['1,250 g/L', /1.250 or as 1250/],
    ['1:', /doesn’t begin with a number/],
    ['5 mL/2 g', /After “\/”/],
    ['-', /doesn’t begin with a number/],
  ])('%s', (text, said) => expect(printed(text)).toMatch(said));
  it('any text gives a rate or an error, never a throw', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 30 }), (text) => {
        const r = parseRate(text);
        expect(r.ok ? 'rate' : describeRateError(r.error)).toMatch(/./);
      }),
    );
  });
});

const measure = fc
  .constantFrom(...measures)
  .chain((unit) => fc.record({ unit: fc.constant(unit), system: fc.constantFrom(null, ...systemsOf(unit)) }));
const amount = fc.oneof(
  fc.integer({ min: 1, max: 9999 }),
  fc.double({ min: 1e-4, max: 9999, noNaN: true }).map((x) => Number(x.toPrecision(8))),
);
const range = fc.tuple(amount, fc.option(amount)).map(([a, b]) => ({
  low: b === null ? a : Math.min(a, b),
  high: b === null ? a : Math.max(a, b),
}));
const base: fc.Arbitrary<RateBase> = fc.oneof(
  fc.record({
    kind: fc.constant('volume' as const),
    amount,
    measure: measure.filter((m) => measureWorth(m, usMeasures).dimension === 'volume'),
  }),
  fc.record({
    kind: fc.constant('area' as const),
    amount,
    unit: fc.constantFrom(...(Object.keys(areaUnits) as (keyof typeof areaUnits)[])),
  }),
  fc.constant({ kind: 'tank' as const }),
  fc.record({ kind: fc.constant('unit' as const), noun: fc.constantFrom('pot', 'plant', 'tray'), amount }),
);
const rate: fc.Arbitrary<Rate> = fc.oneof(
  fc
    .tuple(
      range,
      fc.oneof(
        measure.map((m) => ({ kind: 'measure' as const, measure: m })),
        fc.constantFrom('cap', 'pump stroke', 'drop').map((name) => ({ kind: 'own' as const, name })),
      ),
      fc.option(base),
    )
    .map(([r, of, per]) => ({ kind: 'amount' as const, ...r, of, per })),
  fc.record({ kind: fc.constant('ratio' as const), parts: amount, inParts: amount }),
  fc
    .tuple(range, fc.constantFrom(null, 'w/v' as const, 'v/v' as const))
    .map(([r, basis]) => ({ kind: 'percent' as const, ...r, basis })),
);

it('what is printed reads back as the same rate', () => {
  fc.assert(
    fc.property(rate, (r) => {
      const text = printRate(r);
      const back = parseRate(text);
      expect(back, text).toEqual({ ok: true, value: r });
      expect(printRate((back as { value: Rate }).value)).toBe(text);
    }),
    { numRuns: 1000 },
  );
});

describe('spoons and gallons', () => {
  const ml = (unit: MeasureUnit, system: 'us' | 'metric' | 'imperial') =>
    measureWorth({ unit, system }, usMeasures).base;
  it.each([
    ['tsp', 'us', 4.92892],
    ['tbsp', 'us', 14.7868],
    ['cup', 'us', 236.588],
    ['gal', 'us', 3785.411784],
    ['tsp', 'metric', 5],
    ['gal', 'imperial', 4546.09],
    ['fl oz', 'imperial', 28.4130625],
  ] as const)('1 %s, %s, is %d mL', (unit, system, expected) =>
    expect(ml(unit, system)).toBeCloseTo(expected, 3),
  );
  it('three teaspoons are a tablespoon everywhere; a gallon is four quarts or eight pints', () => {
    for (const s of ['us', 'metric', 'imperial'] as const)
      expect(ml('tsp', s) * 3).toBeCloseTo(ml('tbsp', s), 9);
    for (const s of ['us', 'imperial'] as const) {
      expect(ml('qt', s) * 4).toBeCloseTo(ml('gal', s), 9);
      expect(ml('pt', s) * 8).toBeCloseTo(ml('gal', s), 9);
    }
  });
  it('the reader’s own system counts where the measure doesn’t say', () => {
    const imperial = { spoon: 'metric', gallon: 'imperial' } as const;
    expect(measureWorth({ unit: 'tsp', system: null }, imperial).base).toBe(5);
    expect(measureWorth({ unit: 'gal', system: null }, imperial).base).toBe(4546.09);
    expect(measureWorth({ unit: 'gal', system: 'us' }, imperial).base).toBe(3785.411784);
    // NIST SP 811: 1000 ft² = 92.90304 m²
    expect(1000 * areaUnits['sq ft']).toBeCloseTo(92.90304, 10);
  });
  it('there is no metric gallon', () => {
    expect(() => measureWorth({ unit: 'gal', system: 'metric' }, usMeasures)).toThrow(/no metric gal/);
  });
});

describe('distances, halves and rounded spoons', () => {
  const read = (text: string) => {
    const rate = parseRate(text);
    if (!rate.ok) throw new Error(describeRateError(rate.error));
    return rate.value;
  };
  it.each([
    // 1 in is 25.4 mm (NIST SP 811): a square of 6 in is 0.02322576 m²
    ['1 tablet every 6 inches', 1, 0.02322576],
    ['3 tabs each 5 in', 3, 0.016129],
    ['2 sticks per 10 cm', 2, 0.01],
  ])('%s is so many to each square of it', (text, low, squareM2) => {
    const rate = read(text);
    expect(rate).toMatchObject({ kind: 'amount', low, per: { kind: 'area', unit: 'm²' } });
    if (rate.kind !== 'amount' || rate.per?.kind !== 'area') throw new Error('no area');
    expect(rate.per.amount).toBeCloseTo(squareM2, 10);
  });
  it('a half after “per” is a number', () => {
    expect(read('1/4 tsp per half quart')).toMatchObject({
      low: 0.25,
      per: { kind: 'volume', amount: 0.5, measure: { unit: 'qt' } },
    });
  });
  it('“in” before a volume stays what the dose is given to', () => {
    expect(read('12 g in 5 gal')).toMatchObject({ low: 12, per: { kind: 'volume', amount: 5 } });
  });
  it('a slightly rounded spoon is read as a level one; a heaped one can’t be measured', () => {
    expect(read('1 slightly rounded tsp per gallon')).toEqual(read('1 tsp per gallon'));
    expect(parseRate('1 heaped tsp per gallon').ok).toBe(false);
  });
});
