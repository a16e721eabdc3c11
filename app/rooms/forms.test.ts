import { describe, expect, it } from 'vitest';
import { demoBench } from '../demo/demoBench';
import { blankProduct } from '~core/model/blankProduct';
import type { ProductId } from '~core/model/ids';
import type { Plan } from '~core/model/plan';
import { faultsOf, keptBy } from '../testing/keptBy';
import { type ProductFormInput, productRecord } from '../library/productForm';
import { type ContendersFormInput, contendersRecord } from './contenders/contendersForm';
import { newTreatment, newUse } from './contenders/newContender';
import { newRound, newTrait } from './question/newRows';
import { type QuestionFormInput, questionRecord } from './question/questionForm';
import { protocolOf } from '~core/schedule/protocols';
import { applyProtocol } from '~core/schedule/protocols/applyProtocol';
import { UNFINISHED } from '../ui/day/whole';

const bench = demoBench(new Date('2026-05-04T10:00:00'));
const { plan } = bench.trials[0]!;

describe('a form opened and saved changes nothing', () => {
  it.each(bench.trials.map((t) => [t.plan.code, t.plan] as const))('Question of %s', (_, p) => {
    expect(keptBy(questionRecord, p, questionRecord.shown(p))).toEqual(p);
  });
  it.each(bench.trials.map((t) => [t.plan.code, t.plan] as const))('Contenders of %s', (_, p) => {
    expect(keptBy(contendersRecord, p, contendersRecord.shown(p), p.products)).toEqual(p);
  });
  it.each(bench.products.map((p) => [p.name, p] as const))('product %s', (_, p) => {
    expect(keptBy(productRecord, p, productRecord.shown(p))).toEqual(p);
  });
});

const asked = (f: QuestionFormInput, of: Plan = plan) => keptBy(questionRecord, of, f);
const askedWrong = (f: QuestionFormInput) => faultsOf(questionRecord, plan, f);
const contended = (f: ContendersFormInput, of: Plan = plan) => keptBy(contendersRecord, of, f, of.products);
const contendedWrong = (f: ContendersFormInput) => faultsOf(contendersRecord, plan, f, plan.products);
const unnamed = blankProduct('x' as ProductId, '');
const made = (f: ProductFormInput) => keptBy(productRecord, unnamed, f);
const madeWrong = (f: ProductFormInput) => faultsOf(productRecord, unnamed, f);

describe('the Question', () => {
  const form = () => questionRecord.shown(plan);
  it('takes decimal commas', () => {
    const f = form();
    f.smallestDifference.value = '7,5';
    f.traits[0]!.plausibleHigh = '250,5';
    const changed = asked(f);
    expect(changed.smallestDifference).toEqual({ kind: 'percent', value: 7.5 });
    expect(changed.traits[0]!.plausibleHigh).toBe(250.5);
  });
  it('says each fault at its field', () => {
    const f = form();
    f.question = ' ';
    f.code = 'Co';
    f.startDate = 'soon';
    f.rounds[0] = { ...f.rounds[0]!, day: '-1', traitIds: [] };
    f.traits[0] = { ...f.traits[0]!, samplesPerUnit: '0', unit: 'kg' };
    f.traits[1] = { ...f.traits[1]!, direction: 'band', bandLow: '9', bandHigh: '6' };
    expect(askedWrong(f)).toMatchObject({
      question: 'Write the question.',
      code: 'Three capital letters.',
      startDate: expect.stringContaining('A whole day'),
      'rounds.0.day': 'Not before the start.',
      'rounds.0.traitIds': 'Tick what is measured.',
      'traits.0.samplesPerUnit': 'At least 1.',
    });
  });
  it('minds what only shows when the fields themselves are right', () => {
    const f = form();
    f.traits[0] = { ...f.traits[0]!, unit: 'kg' };
    f.traits[1] = {
      ...f.traits[1]!,
      name: f.traits[0].name.toUpperCase(),
      direction: 'band',
      bandLow: '9',
      bandHigh: '6',
    };
    const errors = { ...askedWrong(f) };
    expect(errors['traits.0.unit']).toMatch(/kept in g/);
    expect(errors['traits.1.bandLow']).toMatch(/lower and a higher end/);
  });
  it('two traits can’t have one name', () => {
    const f = form();
    f.traits[1] = { ...f.traits[1]!, name: f.traits[0]!.name.toUpperCase() };
    expect(askedWrong(f)).toEqual({ 'traits.1.name': 'Another trait has this name.' });
  });
  it('a round whose only trait was removed says so at its ticks', () => {
    const f = form();
    f.traits = f.traits.filter((t) => t.id !== f.rounds[0]!.traitIds[0]);
    expect(askedWrong(f)).toEqual({
      'rounds.0.traitIds': 'Tick what is measured.',
      'rounds.1.traitIds': 'Tick what is measured.',
    });
  });
  it('a protocol’s rule for the end follows the last round; one’s own stays', () => {
    const shoots = applyProtocol({ ...plan, finishingRule: '' }, protocolOf('shoots-feed')!);
    const f = questionRecord.shown(shoots);
    f.rounds.at(-1)!.day = '14';
    const later = asked(f, shoots);
    expect(later.finishingRule).toBe(
      'All trays are cut on day 14, in the order they stand, before watering.',
    );
    const again = questionRecord.shown(later);
    again.rounds.at(-1)!.day = '12';
    expect(asked(again, later).finishingRule).toContain('on day 12,');
    // Another kind of trial takes its words with it, whatever day they had been given.
    expect(applyProtocol(later, protocolOf('shoots-sheets')!).finishingRule).toBe(
      'All trays are cut on day 8.',
    );
    const own = asked({ ...f, finishingRule: 'Cut when they touch.' }, shoots);
    expect(own.finishingRule).toBe('Cut when they touch.');
  });
  it('a removed trait leaves the rounds and the decision', () => {
    const f = form();
    f.traits = f.traits.filter((t) => t.id !== plan.primaryTraitId);
    const changed = asked(f);
    expect(changed.primaryTraitId).toBeNull();
    expect(changed.rounds.every((r) => !r.traitIds.includes(plan.primaryTraitId!))).toBe(true);
  });
  it('a new code renames the labels', () => {
    const f = { ...form(), code: 'NEW' };
    const changed = asked(f);
    expect(changed.units.map((u) => u.code.slice(0, 4))).toEqual(plan.units.map(() => 'NEW-'));
  });
  it('what the buttons add is valid', () => {
    const f = form();
    f.traits.push({ ...newTrait('count'), name: 'Side shoots' });
    f.rounds.push(newRound(9, 40, [f.traits[2]!.id]));
    expect(askedWrong(f)).toEqual({});
  });
});

describe('Contenders', () => {
  const form = () => contendersRecord.shown(plan);
  it('says each fault at its field', () => {
    const f = form();
    f.treatments[1]!.products[0] = {
      ...f.treatments[1]!.products[0]!,
      amount: '0',
      timesPerUnit: '1.5',
      solutionLPerUnit: 'x',
    };
    expect(contendedWrong(f)).toEqual({
      'treatments.1.products.0.amount': 'More than nothing.',
      'treatments.1.products.0.timesPerUnit': 'Whole times.',
      'treatments.1.products.0.solutionLPerUnit': '“x” isn’t a volume, such as 1 gal or 2.3 L, or 2 L/m².',
    });
  });
  it('a dose may be a rate; what can’t be worked out is said at its field', () => {
    const with_ = (over: object, conditions: object = {}) => {
      const f = form();
      f.treatments[1]!.products[0] = { ...f.treatments[1]!.products[0]!, ...over };
      f.treatments[1]!.conditions = { ...f.treatments[1]!.conditions, ...conditions };
      const errors = contendedWrong(f);
      return Object.keys(errors).length > 0 ? errors : contended(f).treatments[1]!.products[0]!;
    };
    const at = (field: string) => `treatments.1.products.0.${field}`;
    // 1 tsp/gal, US: 4.92892 mL in 3.785411784 L
    expect(with_({ amount: '1 tsp/gal' })).toMatchObject({
      amount: expect.closeTo(1.30208, 4),
      unit: 'mL',
      rateText: '1 tsp/gal',
    });
    expect(with_({ amount: '2 caps per tank' })).toMatchObject({ amount: 25, unit: 'mL' });
    expect(with_({ amount: '1 smidgen/gal' })).toEqual({
      [at('amount')]: '“smidgen” isn’t a measure known here.',
    });
    expect(with_({ amount: '5 mL/' })).toEqual({ [at('amount')]: expect.stringMatching(/After “\/”/) });
    expect(with_({ amount: '1–2 tsp/gal' })).toEqual({ [at('amount')]: expect.stringMatching(/one figure/) });
    expect(with_({ amount: '5 mL/L', solutionLPerUnit: '' })).toEqual({
      [at('solutionLPerUnit')]: expect.stringMatching(/per litre/),
    });
    expect(with_({ amount: '5 mL per pot' })).toEqual({ [at('amount')]: expect.stringMatching(/as it is/) });
    // a volume for each unit, also by its ground: 2 L on a square metre
    const ground = (areaPerUnitCm2: string, solutionLPerUnit: string) =>
      with_({ amount: '5 mL/L', solutionLPerUnit }, { areaPerUnitCm2 });
    expect(ground('', '1 gal')).toMatchObject({ solutionLPerUnit: 3.78541, amount: 5 });
    expect(ground('5000', '2 L/m²')).toMatchObject({ solutionLPerUnit: 1 });
    expect(ground('', '2 L/m²')).toEqual({ [at('solutionLPerUnit')]: expect.stringMatching(/How large/) });
    expect(with_({ amount: '2 pumps per tank' })).toEqual({
      [at('amount')]: expect.stringMatching(/pump stroke/),
    });
  });
  it('names are unique', () => {
    const f = form();
    f.treatments[1]!.name = 'water';
    expect(contendedWrong(f)).toEqual({ 'treatments.1.name': 'Another contender has this name.' });
  });
  it('a removed contender takes its units off the plan', () => {
    const f = form();
    const gone = f.treatments.pop()!;
    const changed = contended(f);
    expect(changed.units).toHaveLength(15);
    expect(changed.units.some((u) => u.treatmentId === gone.id)).toBe(false);
  });
  it('a new one stands in the same surroundings; its dose is counted as the product is sold', () => {
    const f = form();
    expect(newTreatment('test', f.treatments[0])).toMatchObject({
      medium: 'plain coir, one new bale',
      name: '',
    });
    const [duo, palestra] = ['demo-duo', 'demo-palestra'].map((id) =>
      bench.products.find((x) => x.id === id)!,
    );
    expect([newUse(duo!).unit, newUse(palestra!).unit]).toEqual(['g', 'mL']);
  });
});

describe('a volume typed in gallons', () => {
  it('comes back as it was typed, and is kept in litres', () => {
    const p = bench.trials.find((t) => t.plan.code === 'COR')!.plan;
    const f = contendersRecord.shown(p);
    const at = f.treatments.findIndex((t) => t.products.length > 0);
    f.treatments[at]!.products[0]!.solutionLPerUnit = '0.6 gal';
    const saved = contended(f, p);
    // a US gallon is 3.785411784 L: NIST SP 811
    expect(saved.treatments[at]!.products[0]!.solutionLPerUnit).toBeCloseTo(2.27125, 4);
    expect(contendersRecord.shown(saved).treatments[at]!.products[0]!.solutionLPerUnit).toBe('0.6 gal');
  });
});

describe('sizes in inches', () => {
  it('come back as they were typed; gallons are those of the trial', () => {
    const p = bench.trials.find((t) => t.plan.code === 'COR')!.plan;
    const f = { ...contendersRecord.shown(p), inches: true };
    f.mixing.measures.gallon = 'imperial';
    const first = f.treatments[0]!.conditions;
    Object.assign(first, { areaPerUnitCm2: '9 sq ft', seedWeightG: '2 oz', containerVolumeL: '5 gal' });
    const saved = contended(f, p);
    expect(saved.inches).toBe(true);
    // 5 × 4.54609 L, 9 × 929.0304 cm²: NIST SP 811
    expect(saved.treatments[0]!.conditions).toMatchObject({
      containerVolumeL: expect.closeTo(22.73045, 5),
      areaPerUnitCm2: expect.closeTo(8361.2736, 4),
    });
    expect(contendersRecord.shown(saved).treatments[0]!.conditions).toMatchObject({
      areaPerUnitCm2: '9 sq ft',
      seedWeightG: '2 oz',
      containerVolumeL: '5 gal',
    });
    const metric = contended({ ...f, inches: false }, p);
    expect('inches' in metric).toBe(false);
    expect(contendersRecord.shown(metric).treatments[0]!.conditions.areaPerUnitCm2).toBe('8361.2736');
  });
});

describe('a product', () => {
  const some = productRecord.shown(bench.products[0]!);
  const printed = (over: Partial<ProductFormInput['analysis']>, f = some) => ({
    ...f,
    analysis: { ...f.analysis, ...over },
  });
  const spooned = (volumeMl: string, massesG: string, labelRate = '1 tsp/gal') => ({
    ...some,
    ...{ spoon: { volumeMl, massesG }, labelRate },
  });
  const forms = { nitratePercent: '', ammoniumPercent: '', ureaPercent: '' };
  const blank = { ...forms, nPercent: '', p2o5Percent: '', k2oPercent: '' };
  it('the analysis is whole or absent, and not above 100 %', () => {
    expect(madeWrong(printed({ k2oPercent: '' }))).toEqual({
      'analysis.k2oPercent': expect.stringMatching(/all three/),
    });
    expect(madeWrong(printed({ nPercent: '60', k2oPercent: '60' }))).toEqual({
      'analysis.nPercent': expect.stringMatching(/122 %/),
    });
    expect(madeWrong(printed({ ...blank, ureaPercent: '2' }))['analysis.nPercent']).toMatch(/total nitrogen/);
    expect(madeWrong(printed({ nitratePercent: '3.9' }))['analysis.nitratePercent']).toMatch(
      /5.4 %, more than the 4 %/,
    );
    expect(madeWrong(printed({ ...blank, caPercent: '12' }))['analysis.nPercent']).toMatch(
      /0 where there is none/,
    );
    expect(made(printed(blank)).analysis).toBeNull();
  });
  it('faults of its parts are said at once: analysis, pack and spoon', () => {
    const f = { ...printed({ k2oPercent: '' }), packs: [{ ...some.packs[0]!, size: 'half' }] };
    expect(Object.keys(madeWrong(f)).toSorted()).toEqual(['analysis.k2oPercent', 'packs.0.size']);
  });
  it('one weighed spoon is too few, whoever says what the spoon holds', () => {
    const few = {
      'spoon.massesG': 'Weigh five level spoons (two at least): one says nothing about the spread.',
    };
    expect(madeWrong(spooned('', '4.9'))).toEqual(few);
    expect(madeWrong(spooned('5', '4.9'))).toEqual(few);
    expect(madeWrong(spooned('', '4.9 5.1'))).toEqual({});
  });
  it('an element of which the oxide would be more than all of it is said at its field', () => {
    const only = (k2oPercent: string, main: 'oxide' | 'element') =>
      printed({
        ...{
          ...blank,
          nPercent: '0',
          p2o5Percent: '0',
          k2oPercent,
          caPercent: '',
          mgPercent: '',
          sPercent: '',
        },
        printedAs: { main, secondary: 'element' },
      });
    expect(madeWrong(only('90', 'oxide'))).toEqual({});
    expect(madeWrong(only('90', 'element'))).toEqual({
      'analysis.k2oPercent': '90 % of K can’t be: its oxide alone would be more than 100 %.',
    });
    expect(madeWrong(only('83', 'element'))).toEqual({});
  });
  it('oxides and elements are kept alike, and shown again as they were printed', () => {
    const kept = made(
      printed({
        printedAs: { main: 'element', secondary: 'oxide' },
        ...{ p2o5Percent: '5', caPercent: '7' },
      }),
    );
    // P₂O₅ = P / 0.4364, Ca = 0.7147 × CaO (IUPAC weights)
    expect(kept.analysis!.p2o5Percent).toBeCloseTo(5 / 0.4364, 2);
    expect(kept.analysis!.caPercent).toBeCloseTo(7 * 0.7147, 2);
    expect(productRecord.shown(kept).analysis).toMatchObject({ p2o5Percent: '5', caPercent: '7' });
  });
  it('reads the small print, the spoons and the rate, or says what is wrong with them', () => {
    const kept = made(
      printed({ micros: 'Fe 0,1; Zn 0.02 %' }, spooned('5', '4,7 4,8 4,75', '2 caps per tank')),
    );
    expect(kept.analysis!.micros).toEqual({ Fe: 0.1, Zn: 0.02 });
    expect(kept.spoon).toEqual({ volumeMl: 5, massesG: [4.7, 4.8, 4.75] });
    expect(madeWrong(printed({ micros: 'Xx 3' }))['analysis.micros']).toMatch(/“Xx 3” isn’t an element/);
    expect(madeWrong(spooned('', '4.7 x'))['spoon.massesG']).toMatch(/spaces between/);
    // The label counts in US teaspoons: the spoon isn't asked for again (4.92892 mL, NIST SP 811).
    expect(made(spooned('', '4.7 4.8')).spoon!.volumeMl).toBeCloseTo(4.92892159375, 9);
    expect(madeWrong(spooned('', '4.7 4.8', '5 g/L'))['spoon.volumeMl']).toMatch(/What does the spoon hold/);
    // A rate that isn't understood is kept as the label has it.
    expect(made({ ...some, labelRate: '5 smidgens/L' }).labelRate).toBe('5 smidgens/L');
  });
  it('a day that isn’t typed to its end is said at its field, not kept', () => {
    const f = productRecord.shown(bench.products[0]!);
    const bought = (over: object) => ({ ...f, packs: [{ ...f.packs[0]!, ...over }] });
    expect(madeWrong(bought({ boughtOn: UNFINISHED }))).toEqual({
      'packs.0.boughtOn': 'A whole day, such as 2026-03-01.',
    });
    const kept = (over: object) => made(bought(over)).packs[0]!;
    expect(kept({ boughtOn: '', shop: '' })).toMatchObject({ boughtOn: null });
    expect(kept({ shop: 'market', country: 'Italy', boughtOn: '2026-03-01' })).toMatchObject({
      ...{ shop: 'market', country: 'Italy', boughtOn: '2026-03-01' },
    });
    expect('shop' in kept({ shop: '' })).toBe(false);
  });
  it('a price keeps its cents, whatever the currency’s digits', () => {
    const f = productRecord.shown(bench.products[0]!);
    const pack = { ...f.packs[0]!, price: '19,99', currency: 'eur' };
    expect(made({ ...f, packs: [pack] }).packs[0]).toMatchObject({
      priceMinor: 1999,
      currency: 'EUR',
    });
    const yen = { ...pack, price: '1290', currency: 'JPY' };
    expect(made({ ...f, packs: [yen] }).packs[0]!.priceMinor).toBe(1290);
  });
});
