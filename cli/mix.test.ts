// Gallon and teaspoon: NIST SP 811. Oxide factors from IUPAC weights.
import { describe, expect, it } from 'vitest';
import { mix } from './mix';
import { main } from './main';

const json = (...args: string[]) => JSON.parse(mix([...args, '--json']));
const feed = ['--analysis', '12-6-18,4,1.5', '--rate', '12 g / 5 gal', '--volume', '1 gal'];

describe('palazzo mix', () => {
  it('prints exactly the promised JSON: 2.4 g on a whole-gram scale is −16.7 %', () => {
    const run = main(['mix', ...feed, '--scale-step', '1', '--json']);
    expect(run.status).toBe(0);
    const out = JSON.parse(run.stdout);
    expect(Object.keys(out)).toEqual(['massG', 'roundedG', 'errorPercent', 'elementsMgPerL']);
    expect(Object.keys(out.elementsMgPerL)).toEqual(['N', 'P', 'K', 'Ca', 'Mg', 'S']);
    expect(out).toMatchObject({ massG: 2.4, roundedG: 2 });
    expect(out.errorPercent).toBeCloseTo(-100 / 6, 8);
    // 2 g in 3.785411784 L, 12 % N; P₂O₅ × 0.4364, K₂O × 0.8301
    const gPerL = 2 / 3.785411784;
    expect(out.elementsMgPerL.N).toBeCloseTo(gPerL * 120, 6);
    expect(out.elementsMgPerL.P).toBeCloseTo(gPerL * 60 * 0.4364, 2);
    expect(out.elementsMgPerL.K).toBeCloseTo(gPerL * 180 * 0.8301, 1);
    expect(out.elementsMgPerL.Ca).toBeCloseTo(gPerL * 40, 6);
    expect(out.elementsMgPerL.S).toBe(0);
  });
  it('rounds nothing without a scale', () => {
    expect(json(...feed)).toMatchObject({ massG: 2.4, roundedG: 2.4, errorPercent: 0 });
  });
  it('weighs spoons through the density, US or metric', () => {
    const spoon = ['--analysis', '10-0-0', '--rate', '1 tsp/gal', '--volume', '2 gal', '--density', '0.95'];
    expect(json(...spoon).massG).toBeCloseTo(2 * 4.92892159375 * 0.95, 8);
    expect(json(...spoon, '--teaspoon', 'metric').massG).toBeCloseTo(9.5, 9);
    expect(json(...spoon, '--gallon', 'imperial').massG).toBeCloseTo(2 * 4.92892159375 * 0.95, 8);
  });
  it('adds several products up', () => {
    const out = json(
      ...['--analysis', '10-0-0', '--rate', '1 g/L', '--analysis', '0-0-20', '--rate', '2,5 g/L'],
      ...['--volume', '2.3 L', '--scale-step', '1'],
    );
    expect(out.products).toMatchObject([
      { massG: 2.3, roundedG: 2 },
      { massG: 5.75, roundedG: 6 },
    ]);
    expect(out.elementsMgPerL.N).toBeCloseTo(200 / 2.3, 6);
    expect(out.elementsMgPerL.K).toBeCloseTo((6 * 200 * 0.83015) / 2.3, 1);
  });
  it('says it in words', () => {
    expect(mix([...feed, '--scale-step', '1'])).toMatch(/2.4 g for 3.785 L, weighed 2 g \(-16.7 %\)\nN 63.4/);
  });
  it.each([
    [['--rate', '1 g/L', '--volume', '1 L'], /--analysis is missing/],
    [['--analysis', '10-5', '--rate', '1 g/L', '--volume', '1 L'], /three figures/],
    [['--analysis', '10-5-x', '--rate', '1 g/L', '--volume', '1 L'], /“x” isn’t a per cent/],
    [['--analysis', '10-5-5,1,1,1,1', '--rate', '1 g/L', '--volume', '1 L'], /Ca, Mg and S, and no more/],
    [['--analysis', '10-5-5', '--volume', '1 L'], /1 --analysis and 0 --rate/],
    [['--analysis', '10-5-5', '--rate', '1 g/L'], /--volume is missing/],
    [['--analysis', '10-5-5', '--rate', '1 g/L', '--volume', '3 g'], /isn’t a volume/],
    [['--analysis', '10-5-5', '--rate', '1 smidgen/L', '--volume', '3 L'], /“smidgen” isn’t a measure/],
    [['--analysis', '10-5-5', '--rate', '1-2 g/L', '--volume', '3 L'], /is a range/],
    [['--analysis', '10-5-5', '--rate', '1 tsp/gal', '--volume', '3 L'], /give --density/],
    [['--analysis', '10-5-5', '--rate', '2 tablets/gal', '--volume', '3 L'], /can’t be weighed/],
    [
      ['--analysis', '10-5-5', '--rate', '1 g/L', '--volume', '3 L', '--teaspoon', 'dutch'],
      /--teaspoon must be us/,
    ],
    [
      ['--analysis', '10-5-5', '--rate', '1 g/L', '--volume', '3 L', '--scale-step', '0'],
      /--scale-step must be/,
    ],
  ])('%#: plain errors', (args, said) => expect(() => mix(args)).toThrow(said));
});
