import '../../testing/browserGlobals';
import fc from 'fast-check';
import { beforeEach, describe, expect, it } from 'vitest';
import { packsLeft, stocksLeft, takings } from '~core/mixing/packs';
import type { TrialId } from '~core/model/ids';
import type { Plan } from '~core/model/plan';
import { usMeasures } from '~core/quantity/units';
import { analysis, plan, product, use as productUse } from '~core/testing/trial';
import { createTrial, loadTrial, savePlan, sealPlan } from '../../store/trials';
import { batchOf } from '~core/mixing/batch';
import { fromMarks, toMarks } from '~core/mixing/bucket';
import { bottlesOn, partNames, stockName } from '~core/mixing/bottles';
import { runCommand } from '../../form/command';
import type { ActionResult } from '../../form/schemaFields';
import { mixingCommands } from './mixingActions';
import { applyMatch } from '~core/mixing/matchPlan';
import { applied } from '../../form/recordForm';
import { setUpRecord } from './setUpForm';
import { vesselsOf } from '~core/mixing/vessels';

const powder = product({
  id: 'powder' as never,
  name: 'Prova secca',
  form: 'powder',
  analysis: analysis({ nPercent: 12, caPercent: 4 }),
  packs: [{ ...product().packs[0]!, size: 1, unit: 'kg' }],
});
const dose = productUse({
  productId: powder.id,
  amount: 1,
  unit: 'g',
  solutionLPerUnit: 0.8,
  everyDays: 7,
  fromDay: 3,
  timesPerUnit: 3,
});
const mixingAction = (id: string, data: unknown) =>
  runCommand(mixingCommands, id, data) as Promise<ActionResult>;

let n = 0;
let p: Plan;
beforeEach(async () => {
  n += 1;
  const base = plan({ treatments: ['Water', 'A'] });
  p = {
    ...base,
    id: `mixed-${n}` as TrialId,
    products: [powder],
    scaleStepG: 1,
    treatments: base.treatments.map((t) => (t.name === 'A' ? { ...t, products: [dose] } : t)),
  };
  await createTrial(p);
});

const tools = { scaleStepG: 1, liquidStepMl: 1 };
/** What the room's loader gives its card, in short. */
async function room() {
  const trial = await loadTrial(p.id);
  const bottles = bottlesOn(trial, 3, false);
  const data = {
    plan: trial.row.plan,
    names: partNames(trial),
    packs: packsLeft([powder], takings(trial.state)),
    stocks: stocksLeft(trial.state),
    blind: trial.blind,
  };
  const card = (size: number, fromStock = {}, actual: (number | null)[] = []) =>
    batchOf({ data, bottle: bottles.find((b) => b.letter === 'B')!, tools, size, fromStock, actual });
  return { trial, bottles, data, card };
}
const mix = (over: object = {}) =>
  mixingAction(p.id, {
    intent: 'mix',
    day: 3,
    anyDay: false,
    bottle: 'A/0.8',
    volume: '2,64',
    tools,
    scale: 1,
    batch: 'TST-B-d3',
    fromStock: {},
    lines: [{ actual: '' }],
    ec: '',
    ph: '',
    temperature: '',
    instrument: '',
    ...over,
  });
const errorsOf = (result: Awaited<ReturnType<typeof mix>>) => ('errors' in result ? result.errors : {});

describe('a day’s bottles', () => {
  it('have the volume the units need with the spare, and a name of their own', async () => {
    const { bottles } = await room();
    expect(bottles.map((b) => [b.letter, b.kind, b.volumeL, b.batch])).toEqual([
      ['A', 'water', 2.64, 'TST-A-d3'],
      ['B', 'solution', 2.64, 'TST-B-d3'],
    ]);
  });
  it('know what was mixed and fed, and propose the next name', async () => {
    await mix({ ec: '1,2' });
    let b = (await room()).bottles[1]!;
    expect(b.batch).toBe('TST-B-d3-2');
    expect(b.mixed).toMatchObject([{ batch: 'TST-B-d3', said: '3 g Prova secca', fed: false }]);
    expect(b.mixed[0]!.lines).toHaveLength(2);
    await mixingAction(p.id, {
      intent: 'feed',
      unitIds: b.unitIds,
      batch: 'TST-B-d3',
      day: 3,
      purpose: 'feed',
      volume: '0.8',
    });
    b = (await room()).bottles[1]!;
    expect(b.mixed[0]!.fed).toBe(true);
    expect(b.mixed[0]!.lines).toHaveLength(3);
    await mixingAction(p.id, { intent: 'takeBack', ids: b.mixed[0]!.lines });
    const { bottles, trial } = await room();
    expect(bottles[1]!.mixed).toEqual([]);
    expect(trial.state.entries.some((e) => e.body.kind === 'reading')).toBe(false);
    // and brought back whole
    await mixingAction(p.id, { intent: 'bringBack', ids: b.mixed[0]!.lines });
    const again = (await room()).bottles[1]!;
    expect(again.mixed).toMatchObject([{ batch: 'TST-B-d3' }]);
    expect(again.mixed[0]!.lines).toHaveLength(3);
  });
  it('under codes a product is called by its jar, and nothing else', async () => {
    await createTrial({ ...p, id: `blind-${n}` as TrialId, blinding: 'scorer' }, undefined, [], {
      order: ['A', 'Water'] as never,
    });
    const blind = await loadTrial(`blind-${n}`);
    expect(partNames(blind)).toEqual({ 'A/powder': 'jar A1' });
    const [first] = bottlesOn(blind, 3, false);
    expect(first).toMatchObject({ letter: 'A', name: 'Code A', batch: 'TST-A-d3' });
  });
});

describe('the card', () => {
  it('rounds to the scale, says what that does, and takes a typed amount at its word', async () => {
    const { card } = await room();
    expect(card(2.4).lines[0]).toMatchObject({ wanted: 2.4, measured: 2, given: 2 });
    expect(card(2.4).worst).toBeCloseTo(100 / 6, 9);
    expect(card(2.4).made!.mgPerL.N).toBeCloseTo((2 / 2.4) * 120, 9);
    const typed = card(2.4, {}, [2.5]);
    expect(typed.lines[0]!.givenError).toBeCloseTo((100 * 0.1) / 2.4, 9);
    expect(typed.made!.mgPerL.N).toBeCloseTo((2.5 / 2.4) * 120, 9);
    expect(card(3).worst).toBe(0);
    expect(
      card(3)
        .steps('b')
        .map((s) => s.partId),
    ).toContain('powder');
  });
  it('of doses given as they are counts them out, without water, and goes into the log so', async () => {
    const tablets = productUse({ productId: powder.id, amount: 2, unit: 'piece', fromDay: 3 });
    const { data } = await room();
    const bottle = { treatmentId: 'A' as never, uses: [tablets], kind: 'direct' as const, tanks: null };
    const card = batchOf({ data, bottle, tools, size: 3, fromStock: {}, actual: [] });
    expect(card.lines[0]).toMatchObject({ unit: 'piece', measured: 6, given: 6 });
    expect(card.made).toBeNull();
    expect(card.steps('b').map((s) => s.text)).toEqual(['Give each 2 of Prova secca; 6 in all.']);
    await savePlan(p.id, (plan_) => ({
      ...plan_,
      treatments: plan_.treatments.map((t) =>
        t.name === 'A' ? { ...t, products: [{ ...tablets, everyDays: 7, timesPerUnit: 3 }] } : t,
      ),
    }));
    await mix({ bottle: 'A/direct', volume: '' });
    expect((await room()).bottles.find((b) => b.letter === 'B')!.mixed).toMatchObject([
      { volumeL: 0, said: '6 pieces Prova secca' },
    ]);
  });
  it('takes what the scale can’t weigh from a stock solution that holds enough', async () => {
    await mixingAction(p.id, {
      intent: 'stock',
      productId: powder.id,
      packId: 'pack',
      batch: stockName((await loadTrial(p.id)).state, p),
      unit: 'g',
      amount: '25',
      volumeMl: '250',
    });
    const { card, data } = await room();
    expect(data.stocks).toMatchObject([{ batch: 'TST-stock', leftMl: 250 }]);
    const cured = card(2.4);
    // 2.4 g of 100 g/L are 24 mL
    expect(cured.lines[0]!.stock).toMatchObject({ batch: 'TST-stock', held: expect.closeTo(2.4, 9) });
    expect(cured.lines[0]!.given).toBe(24);
    expect(cured.worst).toBe(0);
    expect(cured.made!.mgPerL.N).toBeCloseTo(120, 6);
    // weighed again when asked, and never from a stock that hasn’t enough
    expect(card(2.4, { powder: null }).lines[0]!.stock).toBeNull();
    expect(card(40.4).lines[0]!.stock).toBeNull();
  });
});

describe('a bucket with gallons on it', () => {
  const bucket = { unit: 'gal', measures: usMeasures } as const;
  it('shows litres in its marks, never less than asked, and reads them back', () => {
    expect(toMarks(3.785411784, bucket)).toBe('1');
    expect(toMarks(2.64, { ...bucket, unit: 'L' })).toBe('2.64');
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 1000, noNaN: true }), (litres) => {
        const back = fromMarks(toMarks(litres, bucket), bucket)!;
        expect(back).toBeGreaterThanOrEqual(litres * (1 - 1e-5));
        expect(back - litres).toBeLessThan(0.001 * 3.79 + litres * 1e-5);
      }),
    );
  });
  it.each(['', 'much', '0', '-2'])('“%s” is no volume', (text) => expect(fromMarks(text, bucket)).toBeNull());
  it('stands in the steps as it stands on the bucket', async () => {
    const { data, bottles } = await room();
    const card = batchOf({
      data,
      bottle: bottles[1]!,
      tools: { ...tools, bucketIn: 'gal' },
      size: 3.785411784,
      fromStock: {},
      actual: [],
    });
    expect(card.steps('b').map((s) => s.text)).toContain('Fill up with water to 1 gal (3.785 L); stir.');
  });
});

describe('what the Mixing room writes', () => {
  it('a mix takes from its pack, with the readings of its batch', async () => {
    await mix({ ec: '1,2', ph: '6', instrument: 'pocket meter' });
    const { data, trial } = await room();
    expect(data.packs[0]).toMatchObject({ taken: 0.003, left: 0.997 });
    expect(trial.state.entries.map((e) => e.body)).toMatchObject([
      {
        kind: 'mix',
        volumeL: 2.64,
        day: 3,
        stepG: 1,
        amounts: [{ amount: 3, wanted: 2.64, packId: 'pack' }],
      },
      { kind: 'reading', quantity: 'ec', value: 1.2, batch: 'TST-B-d3', instrument: 'pocket meter' },
      { kind: 'reading', quantity: 'ph', value: 6 },
    ]);
  });
  it('what was really given counts, not what was meant', async () => {
    await mix({ lines: [{ actual: '2,5' }] });
    expect((await room()).data.packs[0]!.taken).toBe(0.0025);
  });
  it.each([
    [{ volume: '0' }, 'volume', /More than 0/],
    [{ volume: '100001' }, 'volume', /100,000/],
    [{ batch: ' ' }, 'batch', /name/],
    [{ ec: '1200' }, 'ec', /ppm/],
    [{ ph: '15' }, 'ph', /0 to 14/],
    [{ lines: [{ actual: 'some' }] }, 'lines.0.actual', /isn’t a number/],
    [{ fromStock: { powder: 'S9' }, lines: [{ actual: '24' }] }, 'lines.0.actual', /no stock S9/],
  ])('%#: says what is wrong at its field', async (over, field, said) => {
    const errors = errorsOf(await mix(over));
    expect(errors[field]).toMatch(said);
    expect((await loadTrial(p.id)).log).toEqual([]);
  });
  it('no two batches of one name, and no more of a stock than there is', async () => {
    await mix();
    expect(errorsOf(await mix()).batch).toMatch(/already/);
    const stock = {
      intent: 'stock',
      productId: powder.id,
      packId: null,
      batch: 'S1',
      unit: 'g',
      amount: '5',
      volumeMl: '50',
    };
    await mixingAction(p.id, stock);
    expect(errorsOf(await mixingAction(p.id, stock)).batch).toMatch(/already/);
    const much = { batch: 'b2', fromStock: { powder: 'S1' }, lines: [{ actual: '60' }] };
    expect(errorsOf(await mix(much))['lines.0.actual']).toMatch(/only 50 mL/);
  });
  it('no more is fed of a batch than was mixed, and a batch taken back takes its feeding along', async () => {
    await mix({ volume: '0.6' });
    const units = (await room()).bottles[1]!.unitIds;
    const feed = (volume: string) =>
      mixingAction(p.id, {
        intent: 'feed',
        unitIds: units,
        batch: 'TST-B-d3',
        day: 3,
        purpose: 'feed',
        volume,
      });
    expect(errorsOf(await feed('2')).volume).toBe('Batch TST-B-d3 was 0.6 L: not enough for 3 × 2 L.');
    await feed('0.2');
    expect(errorsOf(await feed('0.2')).volume).toMatch(/0 L are left/);
    const mixed = (await room()).bottles[1]!.mixed[0]!;
    await mixingAction(p.id, { intent: 'takeBack', ids: mixed.lines });
    expect((await loadTrial(p.id)).state.entries).toEqual([]);
  });
  it('a mix read in ppm is kept as EC too', async () => {
    await mix({ ec: '640', scale: 640 });
    const readings = (await room()).trial.state.entries
      .map((e) => e.body)
      .filter((b) => b.kind === 'reading');
    expect(readings).toMatchObject([{ quantity: 'ec', value: 1 }]);
    expect(errorsOf(await mix({ batch: 'b2', ec: '20000', scale: 500 })).ec).toMatch(/20 mS/);
  });
  it('a reading in ppm is kept as EC; one figure at least', async () => {
    const reading = (over: object) =>
      mixingAction(p.id, {
        intent: 'reading',
        unitId: null,
        treatmentId: 'A',
        subject: 'Bottle B',
        ec: '',
        ph: '',
        temperature: '',
        instrument: '',
        scale: 1,
        ...over,
      });
    expect(errorsOf(await reading({})).ec).toMatch(/one reading/);
    expect(errorsOf(await reading({ ec: '1400' })).ec).toMatch(/µS\/cm or ppm/);
    await reading({ ec: '1400', scale: 700 });
    const { trial } = await room();
    const [bottle] = vesselsOf({ plan: p, shown: p, living: p.units, state: trial.state }).filter(
      (v) => v.readings.ec.length > 0,
    );
    expect(bottle).toMatchObject({ name: 'Bottle B, A', fed: true });
    expect(bottle!.readings.ec[0]!.value).toBe(2);
  });
  it('readings of all vessels go into the log at once; an empty field is no reading', async () => {
    const row = (i: number, over: object) => ({
      unitId: p.units[i]!.id,
      treatmentId: p.units[i]!.treatmentId,
      subject: p.units[i]!.code,
      ec: '',
      ph: '',
      temperature: '',
      ...over,
    });
    const send = (rows: object[], scale = 1) =>
      mixingAction(p.id, { intent: 'readings', scale, instrument: '', rows });
    const wrong = await send([row(0, { ec: '1.2' }), row(1, { ec: '1400' })]);
    expect(errorsOf(wrong)['rows.1.ec']).toMatch(/µS\/cm or ppm/);
    expect((await loadTrial(p.id)).state.entries).toEqual([]);
    await send([row(0, { ec: '600', ph: '6.1' }), row(1, {})], 500);
    const { state } = await loadTrial(p.id);
    expect(state.entries.map((e) => e.body)).toMatchObject([
      { kind: 'reading', quantity: 'ec', value: 1.2, subject: p.units[0]!.code },
      { kind: 'reading', quantity: 'ph', value: 6.1 },
    ]);
    expect(errorsOf(await send([row(0, {})]))['rows.0.ec']).toBe('Nothing was typed.');
  });
  it('a pH correction is a titration of its vessel', async () => {
    const give = (over: object) =>
      mixingAction(p.id, {
        intent: 'phDose',
        unitId: p.units[1]!.id,
        treatmentId: 'A',
        subject: 'TST-02',
        agent: 'citric acid',
        amountMl: '2',
        volumeL: '10',
        phBefore: '7',
        phAfter: '6',
        ...over,
      });
    expect(errorsOf(await give({ phAfter: '7' })).phAfter).toMatch(/Nothing changed/);
    expect(errorsOf(await give({ agent: '' })).agent).toMatch(/Name/);
    await give({});
    const { trial } = await room();
    const vessels = vesselsOf({ plan: p, shown: p, living: p.units, state: trial.state });
    // seen in one vessel of the treatment, it holds for the others of it
    expect(vessels.filter((v) => v.titrations.length > 0).map((v) => v.treatmentId)).toEqual(
      Array(4).fill('A'),
    );
  });
  it('anything else is refused', async () => {
    expect(errorsOf(await mixingAction(p.id, { intent: 'pour' })).intent).toMatch(/no such thing/);
  });
});

describe('the set-up', () => {
  it('opened and saved changes nothing', () => {
    const said = {
      ...p,
      mixing: {
        ...p.mixing,
        regimen: 'measure' as const,
        liquidStepMl: 0.5,
        water: { ec: 0.4, ph: 7.1, elementsMgPerL: { Ca: 40, Na: 12.5 }, bicarbonateMgPerL: 90 },
        band: { ecLow: 1, ecHigh: 2, phLow: 5.5, phHigh: 6.5, source: 'my own' },
        exchange: [{ currency: 'USD', rate: 0.92 }],
      },
    };
    for (const plan_ of [p, said]) {
      expect(applied(setUpRecord, { values: setUpRecord.shown(plan_) }, plan_)).toEqual({
        ok: true,
        value: plan_,
      });
    }
  });
  it.each([
    ['water.elementsMgPerL', 'Ca 40, Xx 3', /“Xx 3”/],
    ['exchange', 'USD', /“USD”/],
    ['band.ecHigh', '0.5', /More than 1/],
    ['band.source', '', /where the band comes from/],
    ['vesselL', '-1', /More than 0/],
  ])('%s: says what is wrong at it', async (field, typed, said) => {
    const values = setUpRecord.shown(p);
    Object.assign(values.mixing.band, { ecLow: '1', ecHigh: '2', source: 'own' });
    const [key, group] = field.split('.').reverse() as [string, string?];
    const holder = group === undefined ? values.mixing : values.mixing[group as 'water'];
    (holder as unknown as Record<string, string>)[key] = typed;
    const result = await mixingAction(p.id, { what: 'setUp', values });
    expect(errorsOf(result)).toEqual({ [`mixing.${field}`]: expect.stringMatching(said) });
  });
  it('is sealed with the plan', async () => {
    const values = setUpRecord.shown(p);
    values.mixing.sparePercent = '20';
    await mixingAction(p.id, { what: 'setUp', values });
    expect((await loadTrial(p.id)).row.plan.mixing.sparePercent).toBe(20);
    await sealPlan(p.id);
    expect(errorsOf(await mixingAction(p.id, { what: 'setUp', values: setUpRecord.shown(p) })).setUp).toMatch(
      /sealed/,
    );
  });
  it('matched doses are worked out from the plan as it is, go into it, and can be undone', async () => {
    const match = {
      intent: 'match',
      basis: { kind: 'element', element: 'N' },
      day: 3,
      referenceId: 'Water',
    };
    await savePlan(p.id, (plan_) => ({
      ...plan_,
      treatments: plan_.treatments.map((t) =>
        t.name === 'Water' ? { ...t, role: 'reference' as const, products: [{ ...dose, amount: 2 }] } : t,
      ),
    }));
    await mixingAction(p.id, match);
    const { row } = await loadTrial(p.id);
    expect(row.plan).toMatchObject({ matchedOn: 'element', mixing: { matchedElement: 'N' } });
    // the reference sets the mark: 2 g of the same powder
    expect(row.plan.treatments[1]!.products[0]!.amount).toBe(2);
    await mixingAction(p.id, { intent: 'undo' });
    expect((await loadTrial(p.id)).row.plan.treatments[1]!.products[0]!.amount).toBe(1);
    const same = applyMatch(p, { basis: { kind: 'money' }, day: 3, referenceId: null });
    expect(same.treatments).toEqual(p.treatments);
  });
});
