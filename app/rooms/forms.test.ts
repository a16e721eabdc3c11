import { describe, expect, it } from 'vitest';
import type { z } from 'zod';
import { fieldErrors } from '../form/schemaFields';
import { demoBench } from '../demo/demoBench';
import { ProductForm, fromForm, productRecord, toForm } from '../library/productForm';
import { ContendersForm, applyContenders, doseErrors, toContendersForm } from './contenders/contendersForm';
import { newTreatment, newUse } from './contenders/newContender';
import { newRound, newTrait } from './question/newRows';
import { QuestionForm, applyQuestion, toQuestionForm } from './question/questionForm';
import { protocolOf } from '~core/schedule/protocols';
import { applyProtocol } from '~core/schedule/protocols/applyProtocol';
import { UNFINISHED } from '../ui/day/whole';

const bench = demoBench(new Date('2026-05-04T10:00:00'));
const { plan } = bench.trials[0]!;

const errorsOf = (schema: z.ZodType, input: unknown) => {
  const read = schema.safeParse(input);
  return read.success ? {} : fieldErrors(read.error);
};

describe('a form opened and saved changes nothing', () => {
  it.each(bench.trials.map((t) => [t.plan.code, t.plan] as const))('Question of %s', (_, p) => {
    expect(applyQuestion(p, QuestionForm.parse(toQuestionForm(p)))).toEqual(p);
  });
  it.each(bench.trials.map((t) => [t.plan.code, t.plan] as const))('Contenders of %s', (_, p) => {
    expect(applyContenders(p, ContendersForm.parse(toContendersForm(p)), p.products)).toEqual(p);
  });
  it.each(bench.products.map((p) => [p.name, p] as const))('product %s', (_, p) => {
    expect(productRecord.apply(p, ProductForm.parse(productRecord.shown(p)), [])).toEqual(p);
  });
});

describe('the Question', () => {
  const form = () => toQuestionForm(plan);
  it('takes decimal commas', () => {
    const f = form();
    f.differenceValue = '7,5';
    f.traits[0]!.plausibleHigh = '250,5';
    const changed = applyQuestion(plan, QuestionForm.parse(f));
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
    expect(errorsOf(QuestionForm, f)).toMatchObject({
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
    const errors = { ...errorsOf(QuestionForm, f) };
    expect(errors['traits.0.unit']).toMatch(/kept in g/);
    expect(errors['traits.1.bandLow']).toMatch(/lower and a higher end/);
  });
  it('two traits can’t have one name', () => {
    const f = form();
    f.traits[1] = { ...f.traits[1]!, name: f.traits[0]!.name.toUpperCase() };
    expect(errorsOf(QuestionForm, f)).toEqual({ 'traits.1.name': 'Another trait has this name.' });
  });
  it('a round whose only trait was removed says so at its ticks', () => {
    const f = form();
    f.traits = f.traits.filter((t) => t.id !== f.rounds[0]!.traitIds[0]);
    expect(errorsOf(QuestionForm, f)).toEqual({
      'rounds.0.traitIds': 'Tick what is measured.',
      'rounds.1.traitIds': 'Tick what is measured.',
    });
  });
  it('a protocol’s rule for the end follows the last round; one’s own stays', () => {
    const shoots = applyProtocol({ ...plan, finishingRule: '' }, protocolOf('shoots-feed')!);
    const f = toQuestionForm(shoots);
    f.rounds.at(-1)!.day = '14';
    const later = applyQuestion(shoots, QuestionForm.parse(f));
    expect(later.finishingRule).toBe(
      'All trays are cut on day 14, in the order they stand, before watering.',
    );
    const again = toQuestionForm(later);
    again.rounds.at(-1)!.day = '12';
    expect(applyQuestion(later, QuestionForm.parse(again)).finishingRule).toContain('on day 12,');
    // Another kind of trial takes its words with it, whatever day they had been given.
    expect(applyProtocol(later, protocolOf('shoots-sheets')!).finishingRule).toBe(
      'All trays are cut on day 8.',
    );
    const own = applyQuestion(shoots, QuestionForm.parse({ ...f, finishingRule: 'Cut when they touch.' }));
    expect(own.finishingRule).toBe('Cut when they touch.');
  });
  it('a removed trait leaves the rounds and the decision', () => {
    const f = form();
    f.traits = f.traits.filter((t) => t.id !== plan.primaryTraitId);
    const changed = applyQuestion(plan, QuestionForm.parse(f));
    expect(changed.primaryTraitId).toBeNull();
    expect(changed.rounds.every((r) => !r.traitIds.includes(plan.primaryTraitId!))).toBe(true);
  });
  it('a new code renames the labels', () => {
    const f = { ...form(), code: 'NEW' };
    const changed = applyQuestion(plan, QuestionForm.parse(f));
    expect(changed.units.map((u) => u.code.slice(0, 4))).toEqual(plan.units.map(() => 'NEW-'));
  });
  it('what the buttons add is valid', () => {
    const f = form();
    f.traits.push({ ...newTrait('count'), name: 'Side shoots' });
    f.rounds.push(newRound(9, 40, [f.traits[2]!.id]));
    expect(errorsOf(QuestionForm, f)).toEqual({});
  });
});

describe('Contenders', () => {
  const form = () => toContendersForm(plan);
  it('says each fault at its field', () => {
    const f = form();
    f.treatments[1]!.products[0] = {
      ...f.treatments[1]!.products[0]!,
      amount: '0',
      timesPerUnit: '1.5',
      solutionLPerUnit: 'x',
    };
    expect(errorsOf(ContendersForm, f)).toEqual({
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
      const parsed = ContendersForm.safeParse(f);
      if (!parsed.success) return fieldErrors(parsed.error);
      const errors = doseErrors(parsed.data, plan.products, plan.unitNoun);
      return Object.keys(errors).length > 0
        ? errors
        : applyContenders(plan, parsed.data, plan.products).treatments[1]!.products[0]!;
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
    expect(errorsOf(ContendersForm, f)).toEqual({ 'treatments.1.name': 'Another contender has this name.' });
  });
  it('a removed contender takes its units off the plan', () => {
    const f = form();
    const gone = f.treatments.pop()!;
    const changed = applyContenders(plan, ContendersForm.parse(f), plan.products);
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
    const f = toContendersForm(p);
    const at = f.treatments.findIndex((t) => t.products.length > 0);
    f.treatments[at]!.products[0]!.solutionLPerUnit = '0.6 gal';
    const saved = applyContenders(p, ContendersForm.parse(f), p.products);
    // a US gallon is 3.785411784 L: NIST SP 811
    expect(saved.treatments[at]!.products[0]!.solutionLPerUnit).toBeCloseTo(2.27125, 4);
    expect(toContendersForm(saved).treatments[at]!.products[0]!.solutionLPerUnit).toBe('0.6 gal');
  });
});

describe('sizes in inches', () => {
  it('come back as they were typed; gallons are those of the trial', () => {
    const p = bench.trials.find((t) => t.plan.code === 'COR')!.plan;
    const f = { ...toContendersForm(p), inches: true, gallonSystem: 'imperial' as const };
    const first = f.treatments[0]!.conditions;
    Object.assign(first, { areaPerUnitCm2: '9 sq ft', seedWeightG: '2 oz', containerVolumeL: '5 gal' });
    const saved = applyContenders(p, ContendersForm.parse(f), p.products);
    expect(saved.inches).toBe(true);
    // 5 × 4.54609 L, 9 × 929.0304 cm²: NIST SP 811
    expect(saved.treatments[0]!.conditions).toMatchObject({
      containerVolumeL: expect.closeTo(22.73045, 5),
      areaPerUnitCm2: expect.closeTo(8361.2736, 4),
    });
    expect(toContendersForm(saved).treatments[0]!.conditions).toMatchObject({
      areaPerUnitCm2: '9 sq ft',
      seedWeightG: '2 oz',
      containerVolumeL: '5 gal',
    });
    const metric = applyContenders(p, ContendersForm.parse({ ...f, inches: false }), p.products);
    expect('inches' in metric).toBe(false);
    expect(toContendersForm(metric).treatments[0]!.conditions.areaPerUnitCm2).toBe('8361.2736');
  });
});

describe('a product', () => {
  it('the analysis is whole or absent, and not above 100 %', () => {
    const f = toForm(bench.products[0]!);
    expect(errorsOf(ProductForm, { ...f, k2oPercent: '' }).k2oPercent).toMatch(/all three/);
    expect(errorsOf(ProductForm, { ...f, nPercent: '60', k2oPercent: '60' }).nPercent).toMatch(/122 %/);
    const forms = { nitratePercent: '', ammoniumPercent: '', ureaPercent: '' };
    const none = { ...f, ...forms, nPercent: '', p2o5Percent: '', k2oPercent: '' };
    expect(errorsOf(ProductForm, { ...none, ureaPercent: '2' }).nPercent).toMatch(/total nitrogen/);
    expect(errorsOf(ProductForm, { ...f, nitratePercent: '3.9' }).nitratePercent).toMatch(
      /5.4 %, more than the 4 %/,
    );
    expect(fromForm('x', ProductForm.parse(none)).analysis).toBeNull();
  });
  it('one weighed spoon is too few, whoever says what the spoon holds', () => {
    const f = { ...toForm(null), name: 'Polvere', labelRate: '1 tsp/gal', spoonMassesG: '4.9' };
    const few = {
      spoonMassesG: 'Weigh five level spoons (two at least): one says nothing about the spread.',
    };
    expect(errorsOf(ProductForm, f)).toEqual(few);
    expect(errorsOf(ProductForm, { ...f, spoonVolumeMl: '5' })).toEqual(few);
    expect(errorsOf(ProductForm, { ...f, spoonMassesG: '4.9 5.1' })).toEqual({});
  });
  it('an element of which the oxide would be more than all of it is said at its field', () => {
    const f = toForm(bench.products.find((p) => p.analysis)!);
    Object.assign(f, { nPercent: '0', nitratePercent: '', ammoniumPercent: '', ureaPercent: '' });
    Object.assign(f, { p2o5Percent: '0', k2oPercent: '90', caPercent: '', mgPercent: '', sPercent: '' });
    expect(errorsOf(ProductForm, { ...f, mainAs: 'oxide' })).toEqual({});
    expect(errorsOf(ProductForm, { ...f, mainAs: 'element' })).toEqual({
      k2oPercent: '90 % of K can’t be: its oxide alone would be more than 100 %.',
    });
    expect(errorsOf(ProductForm, { ...f, mainAs: 'element', k2oPercent: '83' })).toEqual({});
  });
  it('oxides and elements are kept alike, and shown again as they were printed', () => {
    const f = toForm(bench.products[0]!);
    const typed = {
      ...f,
      mainAs: 'element' as const,
      secondaryAs: 'oxide' as const,
      p2o5Percent: '5',
      caPercent: '7',
    };
    const kept = fromForm('x', ProductForm.parse(typed));
    // P₂O₅ = P / 0.4364, Ca = 0.7147 × CaO (IUPAC weights)
    expect(kept.analysis!.p2o5Percent).toBeCloseTo(5 / 0.4364, 2);
    expect(kept.analysis!.caPercent).toBeCloseTo(7 * 0.7147, 2);
    expect(toForm(kept)).toMatchObject({ p2o5Percent: '5', caPercent: '7' });
  });
  it('reads the small print, the spoons and the rate, or says what is wrong with them', () => {
    const f = toForm(bench.products[0]!);
    const right = { ...f, micros: 'Fe 0,1; Zn 0.02 %', spoonVolumeMl: '5', spoonMassesG: '4,7 4,8 4,75' };
    const kept = fromForm('x', ProductForm.parse({ ...right, labelRate: '2 caps per tank' }));
    expect(kept.analysis!.micros).toEqual({ Fe: 0.1, Zn: 0.02 });
    expect(kept.spoon).toEqual({ volumeMl: 5, massesG: [4.7, 4.8, 4.75] });
    expect(errorsOf(ProductForm, { ...f, micros: 'Xx 3' }).micros).toMatch(/“Xx 3” isn’t an element/);
    expect(errorsOf(ProductForm, { ...f, spoonVolumeMl: '5', spoonMassesG: '4.7' }).spoonMassesG).toMatch(
      /five level/,
    );
    expect(errorsOf(ProductForm, { ...f, spoonMassesG: '4.7 x' }).spoonMassesG).toMatch(/spaces between/);
    // The label counts in US teaspoons: the spoon isn't asked for again (4.92892 mL, NIST SP 811).
    const spooned = { ...f, spoonVolumeMl: '', spoonMassesG: '4.7 4.8', labelRate: '1 tsp/gal' };
    expect(fromForm('x', ProductForm.parse(spooned)).spoon!.volumeMl).toBeCloseTo(4.92892159375, 9);
    expect(errorsOf(ProductForm, { ...spooned, labelRate: '5 g/L' }).spoonVolumeMl).toMatch(
      /What does the spoon hold/,
    );
    // A rate that isn't understood is kept as the label has it.
    const odd = fromForm('x', ProductForm.parse({ ...f, labelRate: '5 smidgens/L' }));
    expect(odd.labelRate).toBe('5 smidgens/L');
    const blank = {
      nPercent: '',
      p2o5Percent: '',
      k2oPercent: '',
      nitratePercent: '',
      ammoniumPercent: '',
      ureaPercent: '',
    };
    expect(errorsOf(ProductForm, { ...f, ...blank, caPercent: '12' }).nPercent).toMatch(
      /0 where there is none/,
    );
  });
  it('a day that isn’t typed to its end is said at its field, not kept', () => {
    const f = toForm(bench.products[0]!);
    const bought = (over: object) => ({ ...f, packs: [{ ...f.packs[0]!, ...over }] });
    expect(errorsOf(ProductForm, bought({ boughtOn: UNFINISHED }))).toEqual({
      'packs.0.boughtOn': 'A whole day, such as 2026-03-01.',
    });
    const kept = (over: object) => fromForm('x', ProductForm.parse(bought(over))).packs[0]!;
    expect(kept({ boughtOn: '', shop: '' })).toMatchObject({ boughtOn: null });
    expect(kept({ shop: 'market', country: 'Italy', boughtOn: '2026-03-01' })).toMatchObject({
      ...{ shop: 'market', country: 'Italy', boughtOn: '2026-03-01' },
    });
    expect('shop' in kept({ shop: '' })).toBe(false);
  });
  it('a price keeps its cents, whatever the currency’s digits', () => {
    const f = toForm(bench.products[0]!);
    const pack = { ...f.packs[0]!, price: '19,99', currency: 'eur' };
    expect(fromForm('x', ProductForm.parse({ ...f, packs: [pack] })).packs[0]).toMatchObject({
      priceMinor: 1999,
      currency: 'EUR',
    });
    const yen = { ...pack, price: '1290', currency: 'JPY' };
    expect(fromForm('x', ProductForm.parse({ ...f, packs: [yen] })).packs[0]!.priceMinor).toBe(1290);
  });
});
