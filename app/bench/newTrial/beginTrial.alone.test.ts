import '../../testing/browserGlobals';
import { describe, expect, it } from 'vitest';
import { Plan } from '~core/model/plan';
import { treatmentCost } from '~core/cost/treatmentCost';
import { missingForSeal } from '~core/plan/seal';
import { NOTHING_WRITTEN } from '~core/plan/nothingWritten';
import { protocols } from '~core/schedule/protocols';
import { err, ok } from '~core/model/result';
import { audit } from '~core/fairness/audit';
import { auditInput } from '~core/fairness/auditInput';
import { deriveState } from '~core/log/state';
import { product, trialOf } from '~core/testing/trial';
import { type BeginInput, beginTrial, ratesIn } from './beginTrial';
import { kitsOf } from '~core/cost/kits';
import { readNamed } from './namedProducts';
import { usMeasures } from '~core/quantity/units';

const around = { library: [product({ name: 'Duo Lume', labelRate: '2 mL/L' })], taken: ['CRE'], units: { inches: false, measures: usMeasures } }; // prettier-ignore
const asked = (over: Partial<BeginInput> = {}): BeginInput => ({
  ...{ protocolId: '', names: ['Duo Lume'], withWater: true, base: '', each: 2, crop: 'cress' },
  ...{ question: '', prediction: '', solution: '0.5', unitNoun: '', code: '', next: 'seal' },
  ...{ startDate: '2026-03-01', currency: 'EUR', areaCm2: null, differencePercent: 10 },
  ...{ rates: [100], share: null, inEach: 1 },
  ...over,
});
const made = (over: Partial<BeginInput> = {}) => {
  const quick = beginTrial(asked(over), around);
  if (!quick.ok) throw new Error(JSON.stringify(quick.error));
  return quick.value;
};

describe('a name with its price', () => {
  it.each([
    ['Foglia 12.90', 'Foglia', 12.9],
    ['Foglia Chiara 12,5', 'Foglia Chiara', 12.5],
    ['Foglia', 'Foglia', null],
    ['Trittico 3', 'Trittico', 3],
    ['Foglia 24 €', 'Foglia', 24],
    ['Foglia €24', 'Foglia', 24],
    ['Foglia 1,250.50 EUR', 'Foglia', 1250.5],
    ['NPK 3-1-2', 'NPK 3-1-2', null],
    ['  Duo  Lume  8 ', 'Duo  Lume', 8],
  ])('%s', (text, name, price) =>
    expect(readNamed(text, 'EUR')).toEqual(
      ok({
        name,
        price: price === null ? null : { minor: Math.round(price * 100), currency: 'EUR' },
        labelRate: '',
      }),
    ),
  );
  it.each([
    ['Foglia 12.90, 5 mL/L', 'Foglia', 1290, '5 mL/L'],
    ['Foglia, 1 tsp/gal', 'Foglia', null, '1 tsp/gal'],
    ['Foglia 12,90, 15 g per plant', 'Foglia', 1290, '15 g per plant'],
    ['Foglia, Verde 8', 'Foglia, Verde', 800, ''],
  ])('“%s” with its label’s rate', (text, name, minor, labelRate) => {
    const read = readNamed(text, 'EUR');
    expect(read.ok && [read.value.name, read.value.price?.minor ?? null, read.value.labelRate]).toEqual([
      name,
      minor,
      labelRate,
    ]);
  });
  it('another currency by its sign; a price alone, or one with two readings, is said', () => {
    expect(readNamed('Foglia $7', 'EUR')).toEqual(
      ok({ name: 'Foglia', price: { minor: 700, currency: 'USD' }, labelRate: '' }),
    );
    expect(readNamed('Foglia $7', 'CAD')).toEqual(
      ok({ name: 'Foglia', price: { minor: 700, currency: 'CAD' }, labelRate: '' }),
    );
    expect(readNamed('12.90', 'EUR')).toEqual(
      err('“12.90” is a price: write it behind the name of its product.'),
    );
    expect(readNamed('Foglia 1,250', 'EUR').ok).toBe(false);
  });
});

describe('a plan in one go', () => {
  it('two trays each of water and the product, in blocks, with a code nobody has, ready for the seal', () => {
    const { plan, added, undosed } = made();
    expect(plan.units).toHaveLength(4);
    expect(plan.units.map((u) => u.block).sort()).toEqual([1, 1, 2, 2]);
    expect(plan.question).toBe('Which does best on cress: water or Duo Lume?');
    expect(plan.code).not.toBe('CRE');
    expect(plan.prediction).toBe(NOTHING_WRITTEN);
    expect(missingForSeal(plan)).toEqual([]);
    expect(added).toEqual([]);
    expect(undosed).toEqual([]);
    expect(() => Plan.parse(plan)).not.toThrow();
  });
  it('doses by the label where it is said how much solution each gets', () => {
    const { plan, undosed } = made({ solution: '0.5' });
    expect(plan.treatments[1]!.products[0]).toMatchObject({ amount: 2, unit: 'mL', solutionLPerUnit: 0.5 });
    expect(undosed).toEqual([]);
  });
  it('what difference matters is never made up: it is asked before the seal, and left open in planning', () => {
    expect(beginTrial(asked({ differencePercent: null }), around)).toEqual({
      ok: false,
      error: { differencePercent: 'How much would a reader pay or change for?' },
    });
    expect(made({ differencePercent: null, next: 'plan' }).plan.smallestDifference).toBeNull();
    expect(made({ differencePercent: 15 }).plan.smallestDifference).toEqual({ kind: 'percent', value: 15 });
  });
  it('asks how much feed each gets where a product is given by the litre', () => {
    expect(beginTrial(asked({ solution: '' }), around)).toEqual({
      ok: false,
      error: {
        solution: 'How much feed does each tray get at a time? Duo Lume is given by the litre.',
      },
    });
    const gallon = made({ solution: '1 gal' });
    expect(gallon.plan.treatments[1]!.products[0]!.solutionLPerUnit).toBeCloseTo(3.785, 3);
  });
  it('a rate by the plant is taken for all plants of a unit, as the kind of trial has them', () => {
    const rows = made({ protocolId: 'soil-rows', names: ['Ghiaia 9, 15 g per plant'], solution: '' });
    expect(rows.plan.treatments[1]!.products[0]).toMatchObject({ amount: 60, unit: 'g' });
    expect(rows.plan.treatments.map((t) => t.conditions.plantsPerUnit)).toEqual([4, 4]);
    // Nobody said how many are in a tray: never one.
    const tray = made({ names: ['Ghiaia 9, 15 g per plant'], solution: '' });
    expect(tray.plan.treatments[1]!.products).toEqual([]);
    expect(tray.open).toBe(
      'Ghiaia isn’t dosed yet: How many plants are in a tray? The rate is by the plant.',
    );
  });
  it('asks for the ground where something is given by it, and takes the rate for it', () => {
    const lawn = { protocolId: 'lawn', names: ['Prato 25, 30 g/m²'], solution: '' };
    expect(beginTrial(asked(lawn), around)).toEqual({
      ok: false,
      error: { areaCm2: 'How much ground has each strip? Prato is given by the ground.' },
    });
    const { plan, undosed } = made({ ...lawn, areaCm2: 200_000 });
    expect(plan.treatments[1]!.products[0]).toMatchObject({ amount: 600, unit: 'g' });
    expect(plan.treatments.map((t) => t.conditions.areaPerUnitCm2)).toEqual([200_000, 200_000]);
    expect(undosed).toEqual([]);
    const cost = treatmentCost(plan.treatments[1]!, plan.products, 'EUR');
    // 600 g of a kilo at 25.00.
    expect(cost.ok && cost.value.perUnit.minor).toBeCloseTo(1500, 9);
  });
  it('a kit is one contender with all its bottles, in the order it was chosen', () => {
    const bottle = (name: string, id: string, labelRate: string) =>
      product({
        ...{ name, id: id as never, labelRate },
        packs: [
          {
            ...product().packs[0]!,
            id: `${id}-pack` as never,
            kit: { id: 'kit', name: 'Trittico', priceMinor: 4500 },
          },
        ],
      });
    const library = [...around.library, bottle('Uno', 'uno', '1 mL/L'), bottle('Due', 'due', '2 mL/L')];
    expect(kitsOf(library).map((k) => [k.name, k.products.length])).toEqual([['Trittico', 2]]);
    const kit = beginTrial(asked({ names: ['Trittico', 'Duo Lume'] }), { ...around, library });
    if (!kit.ok) throw new Error(JSON.stringify(kit.error));
    expect(kit.value.plan.treatments.map((t) => [t.name, t.products.map((u) => u.amount)])).toEqual([
      ['Water', []],
      ['Trittico', [1, 2]],
      ['Duo Lume', [2]],
    ]);
    expect(kit.value.added).toEqual([]);
  });
  it('parts of one feed are one contender, each with its price and rate', () => {
    const { plan, added } = made({ names: ['Uno 12, 1 mL/L + Due 14, 2 mL/L + Duo Lume', 'Duo Lume'] });
    expect(added.map((p) => [p.name, p.packs[0]!.priceMinor, p.labelRate])).toEqual([
      ['Uno', 1200, '1 mL/L'],
      ['Due', 1400, '2 mL/L'],
    ]);
    expect(plan.treatments.map((t) => [t.name, t.products.map((u) => u.amount)])).toEqual([
      ['Water', []],
      ['Uno + Due + Duo Lume', [1, 2, 2]],
      ['Duo Lume', [2]],
    ]);
  });
  it('a new label’s spoons are those of the bench: at its own rate nothing is above the label', () => {
    const metric = { spoon: 'metric', gallon: 'us' } as const;
    const spoons = beginTrial(asked({ names: ['Tre 7, 1 tsp/gal'] }), {
      ...around,
      units: { inches: false, measures: metric },
    });
    if (!spoons.ok) throw new Error(JSON.stringify(spoons.error));
    const { plan } = spoons.value;
    expect(plan.products[0]!.labelMeasures).toEqual(metric);
    expect(plan.treatments[1]!.products[0]!.amount).toBeCloseTo(5 / 3.785411784, 6);
    expect(audit(auditInput(trialOf(plan), deriveState(plan, []))).map((f) => f.ruleId)).not.toContain(
      'above-label',
    );
  });
  it('what is dosed by weight is bought by the kilo, what is counted by the piece', () => {
    const { added } = made({
      names: ['Polvere 20, 1 g/L', 'Pastiglia 0.40, 2 pieces per tray', 'Foglia 12, 1 oz/gal'],
    });
    expect(added.map((p) => [p.form, p.packs[0]!.unit])).toEqual([
      ['powder', 'kg'],
      ['solid', 'piece'],
      ['liquid', 'L'],
    ]);
  });
  it('with nothing to compare yet the plan begins without contenders, to be gone on with', () => {
    const { plan } = made({ names: [], next: 'plan', question: 'Which?', protocolId: 'blank' });
    expect([plan.treatments, plan.units, plan.areas, plan.traits, plan.rounds]).toEqual([[], [], [], [], []]);
    expect([plan.question, plan.prediction, plan.unitNoun]).toEqual(['Which?', '', 'tray']);
    expect(made({ names: [], next: 'plan', question: 'Which?', protocolId: 'lawn' }).plan.unitNoun).toBe(
      'strip',
    );
  });
  it('says which doses it couldn’t take over, and what goes with them', () => {
    expect(made({ solution: '4' }).open).toBeNull();
    expect(made({ names: ['Foglia'], solution: '' }).open).toBe(
      'How much of Foglia each gets isn’t in the plan: no label in the library says it.',
    );
    expect(made({ names: ['Foglia', 'Bosco'], solution: '4' }).open).toBe(
      'How much of Foglia and Bosco each gets isn’t in the plan, nor is the feed of 4 L: no label in the library says it.',
    );
    // Litres that were typed before lamps were chosen aren't given to them.
    const lamps = made({ protocolId: 'lamps', names: ['Duo Lume', 'Barra Nove'], solution: '4' });
    expect(lamps.plan.treatments.flatMap((t) => t.products.map((u) => u.solutionLPerUnit))).toEqual([null]);
    expect(lamps.open).toBe(
      'Duo Lume isn’t dosed yet: How much solution does each unit get? The dose is per litre.',
    );
  });
  it('new names become products, with a price where one was written; the same name twice is one', () => {
    const { plan, added } = made({ names: ['Foglia 12.90', 'duo lume', 'Bosco', 'Bosco'] });
    expect(added.map((p) => [p.name, p.packs[0]?.priceMinor ?? null])).toEqual([
      ['Foglia', 1290],
      ['Bosco', null],
    ]);
    expect(plan.treatments.map((t) => t.name)).toEqual(['Water', 'Foglia', 'Duo Lume', 'Bosco']);
  });
  it('each product at each rate is a grid of two factors beside the water', () => {
    const { plan } = made({ names: ['Uno 12, 2 mL/L', 'Due 9, 4 mL/L'], rates: [50, 100, 150] });
    expect(
      plan.treatments.map((t) => [t.name, t.products.map((u) => [u.amount, u.strengthPercent])]),
    ).toEqual([
      ['Water', []],
      ['Uno 50 %', [[2, 50]]],
      ['Uno 100 %', [[2, 100]]],
      ['Uno 150 %', [[2, 150]]],
      ['Due 50 %', [[4, 50]]],
      ['Due 100 %', [[4, 100]]],
      ['Due 150 %', [[4, 150]]],
    ]);
    expect(plan.factors).toEqual([
      { name: 'Product', levels: ['Uno', 'Due'] },
      { name: 'Rate', levels: ['50 %', '100 %', '150 %'] },
    ]);
    expect(plan.treatments.map((t) => t.levels)[0]).toEqual({});
    expect(plan.treatments.map((t) => t.levels)[5]).toEqual({ Product: 'Due', Rate: '100 %' });
    // One product at several rates is a plain comparison.
    expect(made({ rates: [50, 100] }).plan.factors).toEqual([]);
    const many = Array.from({ length: 9 }, (_, i) => `P${i}`);
    expect(beginTrial(asked({ names: many, rates: [50, 100, 150] }), around)).toMatchObject({
      error: { names: '27 contenders are more than a trial can carry; 24 at most.' },
    });
  });
  it.each([
    ['50, 100, 150', [50, 100, 150]],
    ['50;100 150 %', [50, 100, 150]],
    ['100', [100]],
    ['50, 50', [50]],
    ['half', null],
    ['0, 50', null],
    ['', null],
  ])('shares of a rate: “%s”', (text, rates) => expect(ratesIn(text)).toEqual(rates));
  it('several crops in each unit are listed one by one, where the kind of trial has them', () => {
    const { plan } = made({ protocolId: 'machines-crops', crop: 'cress, basil ; dill', solution: '4' });
    expect(plan.cropsWithin).toEqual(['cress', 'basil', 'dill']);
    expect(made({ protocolId: 'machines-crops', crop: 'cress' }).plan.cropsWithin).toEqual([]);
    expect(made({ protocolId: 'shoots-feed', crop: 'cress, basil' }).plan.cropsWithin).toEqual([]);
  });
  it('systems with a feed that all get, a tent of plants each: the tent is the repeat', () => {
    const { plan, added } = made({
      ...{ protocolId: 'systems', names: ['Pompa 189', 'Vaso 24'], base: 'Uno 12, 2 mL/L + Due 9, 1 mL/L' },
      ...{ solution: '5', share: 'tent', each: 2, inEach: 3 },
    });
    expect(plan.treatments.map((t) => [t.name, t.role, t.products.map((u) => [u.amount, u.unit])])).toEqual([
      ['Pompa', 'test', [[2, 'mL'], [1, 'mL'], [1 / 3, 'piece']]],
      ['Vaso', 'test', [[2, 'mL'], [1, 'mL'], [1 / 3, 'piece']]],
    ]); // prettier-ignore
    expect(added.map((p) => p.category)).toEqual(['fertilizer', 'fertilizer', 'system', 'system']);
    expect(plan.areas.map((a) => a.name)).toEqual(['Tent 1', 'Tent 2', 'Tent 3', 'Tent 4']);
    expect([plan.units.length, plan.unitsShare, plan.peers]).toEqual([12, 'place', true]);
    expect(() => Plan.parse(plan)).not.toThrow();
    // One system for the three plants of a tent: the feeds are priced beside a third of it.
    expect(plan.treatments[0]!.products[2]!.rateText).toBe('1 piece per 3 plants');
    const cost = treatmentCost(plan.treatments[0]!, plan.products, 'EUR');
    expect(cost.ok && cost.value.perUnit.minor).toBeCloseTo(18900 / 3 + 0.01 * 1200 + 0.005 * 900, 6);
    // Litres typed without a feed are given to nobody.
    const bare = made({ protocolId: 'systems', names: ['Pompa 189', 'Vaso 24'], solution: '5' });
    expect(bare.plan.treatments.map((t) => t.products.length)).toEqual([1, 1]);
  });
  it('without water equals are compared, and one alone is refused', () => {
    expect(made({ names: ['A', 'B'], withWater: false }).plan.peers).toBe(true);
    expect(beginTrial(asked({ names: ['A'], withWater: false }), around)).toEqual({
      ok: false,
      error: { names: 'Two at least are compared.' },
    });
    expect(beginTrial(asked({ names: ['  '] }), around)).toMatchObject({ error: { names: /Choose/ } });
  });
  it('lamps are bought by the piece and put in place: no water beside them, nothing given', () => {
    const lamps = { protocolId: 'lamps', names: ['Barra Nove 89', 'Luce Piana 34.50'] };
    const { plan, added, undosed } = made({ ...lamps, solution: '2' });
    expect(plan.treatments.map((t) => t.name)).toEqual(['Barra Nove', 'Luce Piana']);
    expect(plan.peers).toBe(true);
    expect(added.map((p) => [p.category, p.form, p.packs[0]!.unit, p.packs[0]!.priceMinor])).toEqual([
      ['light', 'device', 'piece', 8900],
      ['light', 'device', 'piece', 3450],
    ]);
    expect(undosed).toEqual([]);
    const costs = plan.treatments.map((t) => treatmentCost(t, plan.products, 'EUR'));
    expect(costs.map((c) => c.ok && c.value.perUnit.minor)).toEqual([8900, 3450]);
    // One lamp alone is compared with nothing.
    expect(beginTrial(asked({ ...lamps, names: ['Barra Nove 89'] }), around)).toMatchObject({
      error: { names: 'Two at least are compared.' },
    });
  });
  it('what is strewn is bought by the kilo, stands beside nothing, and on what its area is', () => {
    const lawn = { protocolId: 'lawn', names: ['Prato 25', 'Verde 19.50'], crop: '', solution: '4' };
    const { plan, added, open } = made(lawn);
    expect(plan.treatments.map((t) => [t.name, t.role])).toEqual([
      ['Untreated', 'untreated'],
      ['Prato', 'test'],
      ['Verde', 'test'],
    ]);
    expect(plan.question).toBe('Which does best: nothing, Prato or Verde?');
    expect(plan.areas.map((a) => [a.name, a.kind])).toEqual([['Lawn', 'lawn']]);
    expect(added.map((p) => [p.form, p.packs[0]!.unit])).toEqual([
      ['granules', 'kg'],
      ['granules', 'kg'],
    ]);
    // The litres were typed before the kind was chosen.
    expect(open).toMatch(/^How much of Prato and Verde each gets isn’t in the plan: no label/);
    expect(made().plan.areas[0]!.name).toBe('Shelf');
  });
  it('additives come on top of a base that all get, and that stands alone as the control', () => {
    const additives = { protocolId: 'additives', base: 'Duo Lume', names: ['Gemma 8', 'duo lume'] };
    const { plan, added, undosed } = made({ ...additives, solution: '0.5' });
    expect(plan.treatments.map((t) => [t.name, t.role, t.products.length])).toEqual([
      ['Duo Lume alone', 'base', 1],
      // Nobody said how much of it each gets.
      ['Duo Lume + Gemma', 'test', 1],
    ]);
    expect(plan.question).toBe('Is Duo Lume on cress better with Gemma than alone?');
    expect(plan.peers).toBeUndefined();
    expect(added.map((p) => [p.name, p.packs[0]!.unit])).toEqual([['Gemma', 'L']]);
    expect(undosed).toEqual(['Gemma']);
    const extra = product({ name: 'Extra', id: 'extra' as never, labelRate: '1 mL/L' });
    const both = beginTrial(asked({ ...additives, names: ['Extra'], solution: '0.5' }), {
      ...around,
      library: [...around.library, extra],
    });
    if (!both.ok) throw new Error();
    expect(both.value.plan.treatments[1]!.products.map((u) => u.amount)).toEqual([2, 1]);
    expect(both.value.plan.products.map((p) => p.name)).toEqual(['Duo Lume', 'Extra']);
  });
  it('without its base an additive isn’t planned, nor a base without an additive', () => {
    expect(beginTrial(asked({ protocolId: 'additives', names: ['Gemma'] }), around)).toMatchObject({
      error: { base: /Name the base feed/ },
    });
    expect(
      beginTrial(asked({ protocolId: 'additives', base: 'Duo Lume', names: ['Duo Lume'] }), around),
    ).toMatchObject({ error: { names: /Choose a product/ } });
    // Typed before another kind was chosen, it isn’t meant any more.
    expect(made({ base: 'Gemma' }).plan.treatments.map((t) => t.name)).toEqual(['Water', 'Duo Lume']);
  });
  it('how much of a bag of seed or of soil each gets isn’t known', () => {
    const { added, undosed } = made({ protocolId: 'seed-lots', names: ['Lotto Uno 3', 'Lotto Due 4'] });
    expect(added.map((p) => [p.category, p.packs[0]!.unit])).toEqual([
      ['seed', 'piece'],
      ['seed', 'piece'],
    ]);
    expect(undosed).toEqual(['Lotto Uno', 'Lotto Due']);
  });
  it.each(protocols.map((p) => [p.name, p.id]))('%s can be sealed', (_, protocolId) => {
    const { plan } = made({ protocolId, names: ['A', 'B'], base: 'Base', each: 3 });
    expect(missingForSeal(plan).filter((m) => !/plants in|how large/.test(m.what))).toEqual([]);
    expect(() => Plan.parse(plan)).not.toThrow();
  });
});
