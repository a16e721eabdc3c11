import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Product } from '../model/product';
import { analysis, product } from '../testing/trial';
import { type Part, contentsOf, mixingConflicts, mixingSteps } from './order';

const part = (name: string, over: Partial<Product>): Part => ({
  id: name,
  name,
  amount: '5 g',
  contents: contentsOf(product(over)),
});
const silicate = part('silicate', { analysis: analysis({ micros: { Si: 5 } }), character: ['alkali'] });
const phosphate = part('phosphate', { form: 'powder', analysis: analysis({ p2o5Percent: 20, sPercent: 3 }) });
const calcium = part('calcium', { form: 'powder', analysis: analysis({ nPercent: 15, caPercent: 18 }) });
const allInOne = part('all in one', {
  form: 'powder',
  analysis: analysis({ nPercent: 12, p2o5Percent: 6, caPercent: 4 }),
});
const plain = part('plain', { analysis: null });
const peroxide = part('peroxide', { character: ['oxidiser'] });
const microbes = part('microbes', { character: ['living'] });
const acid = part('acid', { character: ['acid'] });
const alkali = part('alkali', { character: ['alkali'] });
const everything = [acid, microbes, peroxide, plain, calcium, phosphate, silicate];
const options = { volume: '10 L', measure: true, batch: 'TST-A' };
const order = (parts: Part[]) => mixingSteps(parts, options).flatMap((s) => s.partId ?? []);

describe('the order of mixing', () => {
  it('silicate first, phosphate and sulfate before calcium, acid last', () => {
    expect(order(everything)).toEqual([
      'silicate',
      'phosphate',
      'calcium',
      'plain',
      'peroxide',
      'microbes',
      'acid',
    ]);
  });
  it('doesn’t depend on the order they are listed in', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(everything, { minLength: 7 }), (parts) => {
        expect(order(parts)).toEqual(order(everything));
      }),
    );
  });
  it('is read off the contents, not off the name', () => {
    const disguised = { ...calcium, name: 'phosphate', id: 'x' };
    expect(order([disguised, { ...phosphate, name: 'calcium', id: 'y' }])).toEqual(['y', 'x']);
  });
  it('water comes before anything else, the reading at the end; every rule gives its reason', () => {
    const steps = mixingSteps(everything, options);
    const first = steps.findIndex((s) => s.partId !== null);
    expect(steps.slice(0, first).map((s) => s.id)).toEqual(['label first', 'water']);
    expect(steps.at(-1)!.id).toBe('read');
    const why = (id: string) => steps.find((s) => s.partId === id)!.why;
    expect(why('calcium')).toMatch(/gypsum/);
    expect(why('silicate')).toMatch(/gels/);
    expect(why('acid')).toMatch(/acid into water, never water into acid/);
    expect(steps.find((s) => s.partId === 'acid')!.caution).toMatch(/eye protection/);
    expect(steps.find((s) => s.id === 'water')!.caution).toMatch(/Never mix concentrates/);
  });
  it('a powder with calcium and phosphate in one isn’t dissolved in a cup', () => {
    expect(mixingSteps([allInOne], options).find((s) => s.partId)!.text).toMatch(/whole water/);
    expect(mixingSteps([phosphate], options).find((s) => s.partId)!.text).toMatch(/apart in a cup/);
    const stock = mixingSteps([{ ...phosphate, dissolved: true }], options).find((s) => s.partId)!;
    expect(stock.text).toMatch(/^Measure/);
    expect(stock.caution).toBeNull();
  });
  it('plain water has two steps; who follows the chart isn’t told to measure', () => {
    expect(mixingSteps([], options)).toHaveLength(2);
    expect(mixingSteps([plain], { ...options, measure: false }).at(-1)!.id).toBe('look');
  });
});

it('what never goes together', () => {
  expect(mixingConflicts([acid, alkali, plain])).toEqual([expect.stringMatching(/undo each other/)]);
  expect(mixingConflicts([peroxide, microbes])).toEqual([expect.stringMatching(/kills/)]);
  expect(mixingConflicts([peroxide, acid])).toEqual([expect.stringMatching(/fumes/)]);
  expect(mixingConflicts([silicate, phosphate, calcium])).toEqual([]);
  expect(mixingConflicts([silicate, acid])).toEqual([expect.stringMatching(/undo each other/)]);
});

describe('feed added to water that stays', () => {
  const steps = mixingSteps([acid, calcium, phosphate], { ...options, adding: true });
  it('is dissolved in a jug of it, never as concentrates together, and poured back before the mark and the acid', () => {
    expect(steps.map((s) => s.id)).toEqual([
      'before',
      'jug',
      'part phosphate',
      'part calcium',
      'back',
      'fill',
      'part acid',
      'read',
    ]);
    expect(steps[1]!.caution).toMatch(/Never mix concentrates/);
    expect(steps.map((s) => s.text).join(' ')).not.toMatch(/Water first|Label the vessel/);
  });
  it('is read before, since salts pile up', () => {
    expect(steps[0]!.text).toMatch(/stronger than this feed is meant to be: change the water instead/);
  });
});
