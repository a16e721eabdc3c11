// What the planning rooms do to a trial: Layout’s views, Fairness, blinding, Contenders’ factors, scales.
import '../testing/browserGlobals';
import { beforeEach, describe, expect, it } from 'vitest';
import type { TrialId } from '~core/model/ids';
import type { Plan } from '~core/model/plan';
import { firstOpenSample } from '~core/log/asked';
import { protocols } from '~core/schedule/protocols';
import { height, plan, trait, unitId, use as productUse } from '~core/testing/trial';
import { positionKey } from '~core/model/positions';
import { createTrial, deleteTrial, loadTrial, savePlan, sealPlan, wholeTrial } from '../store/trials';
import { aFile, takeIn } from '../store/takeIn';
import { restore } from '../store/bin';
import { newTreatment, newUse } from './contenders/newContender';
import { combinations, factorProblem, factorsOf } from './contenders/factorial';
import { runCommand } from '../form/command';
import type { ActionResult } from '../form/schemaFields';
import { auditHeadline, fairnessCommands } from './fairness/fairnessActions';
import { bottleTags, unitLabels } from './prints/labelContent';
import { layoutCommands } from './layout/layoutActions';
import { logCommands } from './logActions';
import { keptBy } from '../testing/keptBy';
import { questionRecord } from './question/questionForm';
import { parseScale, scaleToText } from './question/writtenScale';
import { winningBy } from '~core/plan/winning';
import { applyProtocol } from '~core/schedule/protocols/applyProtocol';
import { unitByCode } from '../walk/unitByCode';
import { remarkOf } from '../walk/stops';
import { product } from '~core/testing/trial';

const logAction = (id: string, data: unknown) => runCommand(logCommands, id, data) as Promise<ActionResult>;

let n = 0;
let p: Plan;
beforeEach(async () => {
  n += 1;
  p = { ...plan({ treatments: ['Water', 'A', 'B'], replicates: 3 }), id: `planned-${n}` as TrialId };
  await createTrial(p);
});
const now = async () => (await loadTrial(p.id)).row.plan;
const does = (data: object) => runCommand(layoutCommands, p.id, data) as Promise<ActionResult>;
const fairnessAction = (id: string, data: object) =>
  runCommand(fairnessCommands, id, data) as Promise<ActionResult>;
const at = (row: number, column: number) => ({ areaId: p.areas[0]!.id, row, column });

describe('Layout', () => {
  it('blocks a free place, makes it a guard’s, frees it; never under a unit', async () => {
    await savePlan(p.id, (x) => ({ ...x, areas: [{ ...x.areas[0]!, rows: 5 }] }));
    const use = async () => (await now()).areas[0]!.reserved[0]?.use ?? null;
    const seen = [];
    for (let i = 0; i < 3; i++) {
      await does({ intent: 'reserve', position: at(4, 0) });
      seen.push(await use());
    }
    expect(seen).toEqual(['blocked', 'guard', null]);
    const taken = await does({ intent: 'reserve', position: at(0, 0) });
    expect('errors' in taken && taken.errors.position).toMatch(/A unit stands there/);
  });
  it('never puts or moves a unit onto a reserved place', async () => {
    await savePlan(p.id, (x) => ({ ...x, areas: [{ ...x.areas[0]!, rows: 4 }] }));
    await does({ intent: 'reserve', position: at(3, 2) });
    const moved = await does({ intent: 'move', unitId: unitId('A', 0), to: at(3, 2), reason: '' });
    expect('errors' in moved && moved.errors.to).toMatch(/blocked/);
    const full = await does({ intent: 'design', kind: 'crd', replicates: '4', seed: '1', settings: '' });
    expect('errors' in full && full.errors.replicates).toMatch(
      /12 units need 12 positions, but the areas hold 11/,
    );
  });
  it('lays out squares and split plots with their settings', async () => {
    await does({ intent: 'design', kind: 'latin', replicates: '3', seed: '1', settings: '' });
    expect((await now()).units.every((u) => u.columnBlock !== null)).toBe(true);
    await savePlan(p.id, (x) => ({ ...x, areas: [{ ...x.areas[0]!, rows: 4 }] }));
    await does({
      intent: 'design',
      kind: 'split',
      replicates: '2',
      seed: '1',
      settings: 'lamp one, lamp two',
    });
    const { units, design } = await now();
    expect(design!.settings).toEqual(['lamp one', 'lamp two']);
    expect(units.filter((u) => u.setting === 'lamp one')).toHaveLength(6);
  });
  it('keeps readings, and takes them off', async () => {
    const readings = [{ position: at(0, 0), value: 210 }];
    const read = (values: Record<string, string>, name = 'Light') => ({
      what: 'readings',
      values: { name, unit: 'lx', at: values },
    });
    expect(await does(read({ [positionKey(at(0, 0))]: '210' }))).toMatchObject({
      message: '1 readings are kept.',
    });
    expect((await now()).gradient!.readings).toEqual(readings);
    await does(read({}));
    expect((await now()).gradient).toBeNull();
    const unnamed = await does(read({ [positionKey(at(0, 0))]: '210' }, ' '));
    expect('errors' in unnamed && unnamed.errors.name).toMatch(/Say what was read/);
  });
  it('keeps start sizes', async () => {
    await does({ what: 'sizes', values: { sizes: { [unitId('A', 0)]: '4.5' } } });
    expect((await now()).units.find((u) => u.id === unitId('A', 0))!.startSize).toBe(4.5);
  });
  it('takes a balanced draw with its record', async () => {
    const balance = { candidates: 2000, spreadPercent: 1.25 };
    const done = await does({
      intent: 'balanced',
      kind: 'rcbd',
      replicates: 3,
      seed: 8,
      settings: [],
      balance,
      seenPlanRev: (await loadTrial(p.id)).planRev,
    });
    expect(done).toMatchObject({ message: 'Laid out; treatment means lie 1.3 % apart.' });
    expect((await now()).design).toEqual({ kind: 'rcbd', replicates: 3, seed: 8, settings: [], balance });
  });
  it('plans a rotation and logs its turns after the seal', async () => {
    const wrong = await does({ what: 'rotation', values: { everyDays: '0', within: 'all' } });
    expect('errors' in wrong && wrong.errors.everyDays).toMatch(/At least 1/);
    await does({ what: 'rotation', values: { everyDays: '2', within: 'all' } });
    const early = await does({ intent: 'turn', number: 1 });
    expect('errors' in early && early.errors.turn).toMatch(/when the plan is sealed/);
    await sealPlan(p.id);
    await does({ intent: 'turn', number: 1 });
    const { state } = await loadTrial(p.id);
    expect(state.tasksDone.has('turn 1')).toBe(true);
    expect(
      [...state.positions.values()].filter((x, i) => x !== state.plan.units[i]!.position).length,
    ).toBeGreaterThan(0);
    const none = await does({ intent: 'turn', number: 99 });
    expect('errors' in none && none.errors.turn).toMatch(/no such turn/);
  });
});

describe('blinding', () => {
  it('deals a key, hides names, and shows them when the codes are opened', async () => {
    expect((await loadTrial(p.id)).blind).toBe(false);
    await does({ intent: 'blinding', blinding: 'scorer' });
    const hidden = await loadTrial(p.id);
    expect(hidden.blind).toBe(true);
    expect(hidden.shown.plan.treatments.map((t) => t.name)).toEqual(['Code A', 'Code B', 'Code C']);
    expect(hidden.row.plan.treatments.map((t) => t.name)).toEqual(['Water', 'A', 'B']);
    const early = await does({ intent: 'reveal' });
    expect('errors' in early && early.errors.reveal).toMatch(/after the seal/);
    await sealPlan(p.id);
    await does({ intent: 'reveal' });
    const open = await loadTrial(p.id);
    expect(open.blind).toBe(false);
    expect(open.state.revealed).not.toBeNull();
    expect(await does({ intent: 'reveal' })).toMatchObject({ message: 'The codes are open.' });
  });
  it('a new contender gets a new key; the same contenders keep theirs', async () => {
    await does({ intent: 'blinding', blinding: 'scorer' });
    const first = (await loadTrial(p.id)).key;
    await savePlan(p.id, (x) => ({ ...x, prediction: 'Other.' }));
    expect((await loadTrial(p.id)).key).toEqual(first);
    await savePlan(p.id, (x) => ({
      ...x,
      treatments: [...x.treatments, { ...x.treatments[0]!, id: 'C' as never, name: 'C' }],
    }));
    expect((await loadTrial(p.id)).key!.order).toHaveLength(4);
  });
  it('the key goes with the export, the bin and back', async () => {
    await does({ intent: 'blinding', blinding: 'feeder' });
    const { key } = await loadTrial(p.id);
    const trial = await wholeTrial(p.id);
    expect(trial.key).toEqual(key);
    await deleteTrial(p.id);
    await restore(p.id);
    expect((await loadTrial(p.id)).key).toEqual(key);
    await takeIn({ ...trial, plan: { ...trial.plan, id: `other-${n}` as TrialId } }, aFile);
    expect((await loadTrial(`other-${n}`)).key).toEqual(key);
  });
  it('blind labels carry codes, open ones names and doses', () => {
    const positions = new Map(p.units.map((u) => [u.id, u.position]));
    expect(unitLabels(p, positions, true).every((l) => l.name === '')).toBe(true);
    expect(unitLabels(p, positions, false)[1]).toMatchObject({
      title: 'TST-02',
      letter: 'B',
      name: 'A',
      qr: 'TST-02',
    });
    const fed = {
      ...p,
      products: [product()],
      treatments: p.treatments.map((t) => ({
        ...t,
        products: [productUse({ amount: 5, solutionLPerUnit: 1 })] as never,
      })),
    };
    expect(bottleTags(fed, false)[0]).toMatchObject({
      title: 'Bottle',
      letter: 'A',
      small: expect.stringContaining('5 mL per L Prova'),
    });
    expect(bottleTags(fed, true)[0]!.small).not.toMatch(/Prova/);
  });
});

describe('Fairness', () => {
  it('cures, accepts with a reason, opens again and takes back', async () => {
    await savePlan(p.id, (x) => ({ ...x, smallestDifference: null }));
    await fairnessAction(p.id, { intent: 'cure', ruleId: 'no-smallest-difference', seed: 1 });
    expect((await now()).smallestDifference).toEqual({ kind: 'percent', value: 10 });
    await fairnessAction(p.id, { intent: 'undo' });
    expect((await now()).smallestDifference).toBeNull();
    await fairnessAction(p.id, { intent: 'accept', ruleId: 'no-spares', reason: 'no room' });
    await fairnessAction(p.id, { intent: 'accept', ruleId: 'no-spares', reason: 'no seed' });
    expect((await now()).accepted).toEqual([{ ruleId: 'no-spares', reason: 'no seed' }]);
    await fairnessAction(p.id, { intent: 'unaccept', ruleId: 'no-spares' });
    expect((await now()).accepted).toEqual([]);
    const gone = await fairnessAction(p.id, { intent: 'cure', ruleId: 'no-control', seed: 1 });
    expect('errors' in gone && gone.errors.ruleId).toMatch(/nothing to cure/);
  });
  it('writes a disclosure into the review, and nothing into a sealed plan', async () => {
    const own = product({ obtained: 'own product' });
    await savePlan(p.id, (x) => ({
      ...x,
      products: [own],
      treatments: x.treatments.map((t, i) =>
        i === 1
          ? {
              ...t,
              products: [productUse({ productId: own.id, amount: 5 })],
            }
          : t,
      ),
    }));
    await fairnessAction(p.id, { intent: 'cure', ruleId: 'undisclosed', seed: 1 });
    expect((await loadTrial(p.id)).row.review.disclosure).toBe('Prova is the reviewer’s own product.');
    await sealPlan(p.id);
    const late = await fairnessAction(p.id, { intent: 'accept', ruleId: 'no-spares', reason: 'late' });
    expect('errors' in late && late.errors.ruleId).toMatch(/sealed/);
  });
  it('says how it stands in a sentence', () => {
    const finding = (severity: 'breaks' | 'weakens' | 'note', accepted: string | null = null) =>
      ({ severity, accepted }) as Parameters<typeof auditHeadline>[0][number];
    expect(auditHeadline([])).toBe('Nothing a reader could object to.');
    expect(auditHeadline([finding('note', 'why')])).toMatch(/^Nothing is open/);
    expect(auditHeadline([finding('breaks'), finding('weakens'), finding('weakens')])).toBe(
      'One breaks the comparison, two weaken it.',
    );
  });
});

describe('contenders from factors', () => {
  const feed = newUse(product());
  const factors = [
    {
      name: 'Base',
      levels: [
        { name: 'water', use: null },
        { name: 'feed', use: { ...feed, amount: '5' } },
      ],
    },
    {
      name: 'Additive',
      levels: [
        { name: 'none', use: null },
        { name: 'alga', use: { ...feed, amount: '2,5' } },
      ],
    },
  ];
  it('are all combinations, the plain one first', () => {
    const made = combinations(factors, { ...newTreatment('test'), light: 'window' });
    expect(made.map((t) => t.name)).toEqual(['water · none', 'water · alga', 'feed · none', 'feed · alga']);
    expect(made.map((t) => t.role)).toEqual(['untreated', 'test', 'base', 'test']);
    expect(made.map((t) => t.products.length)).toEqual([0, 1, 1, 2]);
    expect(made[3]!.levels).toEqual({ Base: 'feed', Additive: 'alga' });
    expect(made.every((t) => t.light === 'window')).toBe(true);
    expect(factorsOf(factors)).toEqual([
      { name: 'Base', levels: ['water', 'feed'] },
      { name: 'Additive', levels: ['none', 'alga'] },
    ]);
    expect(factorProblem(factors)).toBeNull();
  });
  it('a species without the hormone is an untreated control too, not a test', () => {
    const species = {
      name: 'Species',
      levels: [
        { name: 'sage', use: null },
        { name: 'marigold', use: null },
      ],
    };
    const hormone = {
      name: 'Hormone',
      levels: [
        { name: 'none', use: null },
        { name: 'dip', use: { ...feed, amount: '1' } },
      ],
    };
    expect(combinations([hormone, species]).map((t) => [t.name, t.role])).toEqual([
      ['none · sage', 'untreated'],
      ['none · marigold', 'untreated'],
      ['dip · sage', 'test'],
      ['dip · marigold', 'test'],
    ]);
  });
  it.each([
    [[{ ...factors[0]!, name: ' ' }], /needs a name/],
    [[factors[0]!, { ...factors[1]!, name: 'Base' }], /Two factors/],
    [[{ ...factors[0]!, levels: factors[0]!.levels.slice(1) }], /two levels/],
    [[{ ...factors[0]!, levels: [{ name: '', use: null }, factors[0]!.levels[1]!] }], /without a name/],
    [[{ ...factors[0]!, levels: [factors[0]!.levels[1]!, factors[0]!.levels[1]!] }], /a level twice/],
    [[{ ...factors[0]!, levels: [factors[0]!.levels[0]!, { name: 'x', use: feed }] }], /a dose/],
    [Array.from({ length: 5 }, (_, i) => ({ name: `f${i}`, levels: factors[0]!.levels })), /32 combinations/],
  ])('%#: says what is wrong', (wrong, said) => expect(factorProblem(wrong)).toMatch(said));
});

describe('written scales', () => {
  it('count from 1, or from the figure in front', () => {
    expect(parseScale('dead\npale\n\ngreen')).toEqual([
      { value: 1, text: 'dead' },
      { value: 2, text: 'pale' },
      { value: 3, text: 'green' },
    ]);
    expect(parseScale('1–10').map((s) => s.value)).toEqual([1, 10]);
    expect(parseScale('9 = best\n1: worst\nnext').map((s) => s.value)).toEqual([1, 2, 9]);
  });
  it('come back as they were', () => {
    for (const t of protocols.flatMap((x) => x.traits)) {
      if (t.scale) expect(parseScale(scaleToText(t.scale))).toEqual(t.scale);
    }
  });
});

it.each([
  ['TST-05', 'TST-05'],
  ['tst-05', 'TST-05'],
  ['5', 'TST-05'],
  ['005', 'TST-05'],
  ['55', null],
  ['', null],
  ['SAG-05', null],
])('the label “%s” finds %s', (typed, code) => {
  expect(unitByCode(p.units, typed)?.code ?? null).toBe(code);
});

describe('what the pad takes', () => {
  it('words are kept for their trait and round', async () => {
    const words = trait({ id: 'note' as never, name: 'Remarks', kind: 'text' });
    await savePlan(p.id, (x) => ({ ...x, traits: [...x.traits, words] }));
    const round = p.rounds[0]!.id;
    const unit = unitId('A', 0);
    const before = (await loadTrial(p.id)).state;
    expect(firstOpenSample(before, unit, words, round)).toBeNull();
    await logAction(p.id, {
      body: { kind: 'note', unitId: unit, text: 'leans', traitId: 'note', roundId: round },
    });
    const { state } = await loadTrial(p.id);
    expect(remarkOf(state, unit, words, round)).toBe('leans');
    expect(firstOpenSample(state, unit, words, round)).toBeUndefined();
  });
  it('crops within a unit are samples of their own', async () => {
    await savePlan(p.id, (x) => ({ ...x, cropsWithin: ['sage', 'basil'] }));
    const [, tall] = p.traits;
    await logAction(p.id, { body: height(unitId('A', 0), 5, 'r1', 1) });
    const { state } = await loadTrial(p.id);
    expect(firstOpenSample(state, unitId('A', 0), tall!, 'r1' as never)).toBe(2);
  });
});

it('what counts as winning goes with the trait it was said of', () => {
  const p = applyProtocol(plan(), protocols[0]!);
  const f = questionRecord.shown(p);
  const saved = (traits: typeof f.traits) => keptBy(questionRecord, p, { ...f, traits }).winning;
  expect(saved(f.traits)).toBe(winningBy(p));
  expect(winningBy(p)).toMatch(/held against (Water|each other)/);
  // One's own words stay, whatever is measured.
  const own = { ...p, winning: 'The nicest.' };
  const without = { ...questionRecord.shown(own), traits: f.traits.slice(1) };
  expect(keptBy(questionRecord, own, without).winning).toBe('The nicest.');
  expect(saved(f.traits.slice(1))).toBe('');
});
