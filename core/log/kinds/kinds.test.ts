import { describe, expect, it } from 'vitest';
import { EntryBody } from '../entry';
import type { RoundId } from '../../model/ids';
import { otherwiseIn } from '../otherwise';
import { deriveState, observationsOf } from '../state';
import { logWords } from '../words';
import { trialTables } from '../../formats/tables';
import { entry, height, plan, product, unitId, use, weighing } from '../../testing/trial';
import { type EntryKindName, entryKinds } from '.';
import { netG, withLoad } from './weighing';

const session = {
  ...{
    id: 'tasting',
    name: 'Tasting',
    kind: 'pairs',
    presented: 'cups',
    senses: ['taste'],
    asked: 'Sweeter?',
  },
  ...{ attributes: [], words: ['crisp'], guess: 'none', cautions: [], commitment: 'b'.repeat(64) },
  tasters: [{ name: 'L', sets: [{ cups: ['417', '582'] }] }],
};
const cups = {
  ...{ sessionId: 'tasting', salt: 'c'.repeat(16) },
  samples: [{ treatmentId: 'A', unitIds: [unitId('A', 0)], photo: null }],
  cups: [{ code: '417', sample: 0 }],
};
const ofTaster = { sessionId: 'tasting', taster: 0 };

const p = { ...plan({ replicates: 2 }), products: [product()] };
const unit = unitId('A', 0);
const base = { unitId: unit, treatmentId: null, instrument: 'typed' };
const hash = 'a'.repeat(64);

/** One line of every kind: a kind without one fails the first test. */
const bodies: Record<EntryKindName, object> = {
  measurement: height(unit, 5),
  weighing: weighing(unit, 20),
  warmUp: {
    traitId: 'weight',
    steps: [1, 2, 3],
    pairs: [
      [1, 1],
      [2, 3],
    ],
  },
  rehearsal: {
    ...{ of: hash, runs: 5000, seed: 4, cvPercent: 7, hasPrediction: true, asksAsGood: false },
    ...{ right: 0.62, falseWinner: 0.05, sees: null },
  },
  reading: { quantity: 'ph', value: 6.1, subject: 'tank', ...base },
  mix: {
    treatmentId: 'A',
    batch: 'B1',
    volumeL: 2,
    amounts: [{ productId: 'feed', amount: 3, unit: 'mL', wanted: 2.6 }],
  },
  stock: { productId: 'feed', batch: 'S1', amount: 20, unit: 'g', volumeL: 0.25 },
  phDose: {
    unitId: unit,
    treatmentId: null,
    batch: '',
    agent: 'citric acid',
    amountMl: 2,
    volumeL: 8,
    phBefore: 7,
    phAfter: 6,
  },
  doseChange: { treatmentId: 'A', use: 0, to: use(), day: 9, given: 0, reason: 'weak' },
  pick: {
    unitId: unit,
    items: [{ grade: 'sound', count: 3, weightG: 210 }],
    note: '',
    instrument: 'typed',
  },
  extraUnit: {
    unit: {
      ...{ id: 'extra', code: 'TST-99', treatmentId: 'A', block: null, columnBlock: null },
      ...{ setting: null, startSize: null, position: { areaId: 'area', row: 0, column: 0 } },
    },
    reason: 'one was left over',
  },
  panel: { session },
  panelAnswer: {
    ...ofTaster,
    ...{ set: 0, code: '417', scores: [4], ranks: [], chosen: null, words: ['crisp'], remark: '' },
  },
  panelGuess: { ...ofTaster, same: ['417', '582'], which: [{ code: '417', treatmentId: 'A' }] },
  panelReveal: { key: cups },
  drying: {
    ...{ unitId: unit, traitId: 'weight', stage: 'fresh', grossG: 60, tareG: 10 },
    ...{ container: 'bag 3', together: 2, instrument: 'typed' },
  },
  split: { unitId: unit, into: 4, reason: 'potted on' },
  stand: { unitId: unit, stage: 'up', count: 11 },
  balance: { photoId: 'photo', x: 0.1, y: 0.2, gains: [0.9, 1, 1.2] },
  feed: { unitIds: [unit, unitId('A', 1)], batch: 'B1', volumeLPerUnit: 0.5 },
  photo: { unitId: unit, file: 'a.jpg', sha256: hash, caption: 'from above' },
  spot: {
    unitId: unit,
    region: [
      { x: 0, y: 0 },
      { x: 1, y: 0 },
      { x: 1, y: 1 },
    ],
    scale: { a: { x: 0, y: 0 }, b: { x: 1, y: 0 }, cm: 27 },
  },
  canopy: {
    photoId: 'line-photo',
    unitId: unit,
    ...{ coverPercent: 31.2, areaCm2: 227, darkGreenColourIndex: 0.52, palePercent: 3, brownPercent: 40 },
    ...{ threshold: 0.11, rule: 'otsu' },
  },
  series: {
    seriesId: 's',
    name: 'Tent logger',
    unitId: null,
    treatmentId: null,
    columns: [{ name: 'temp', unit: '°C' }],
    from: '2026-03-01T00:00:00Z',
    to: '2026-03-02T00:00:00Z',
    rows: 24,
    sha256: hash,
  },
  move: { moves: [{ unitId: unit, to: p.units[0]!.position }], reason: 'lamp' },
  deviation: { unitIds: [unit], text: 'watered late' },
  death: { unitId: unit, sample: null, cause: 'mould' },
  replacement: { unitId: unit, sample: null, reason: 'mould' },
  mixedUp: { unitIds: [unit, unitId('Water', 0)], reason: 'labels washed off' },
  toldApart: {
    mixedUpId: 'line-mixedUp',
    as: [{ from: unit, to: unit }],
    how: 'the notch in the rim',
  },
  exclusion: { unitId: unit, traitId: null, reason: 'spilt' },
  note: { unitId: unit, text: 'leans' },
  taskDone: { task: 'labels printed' },
  taskSkipped: { task: 'Cover off, day 4', reason: 'no cover' },
  taskPlanned: {
    task: {
      ...{ key: 'k', what: 'Water', why: '', atHand: '', caution: '', minutes: 5 },
      ...{ after: null, day: 2, everyDays: 1, untilDay: null, at: '07:30' },
    },
  },
  milestone: { event: 'first flower' },
  work: { task: 'watering', minutes: 25, unitIds: [unit] },
  seal: { planSha256: hash },
  reveal: { reason: '' },
};

const lines = Object.entries(bodies).map(([kind, body]) => entry({ kind, ...body }, `line-${kind}`));
const state = deriveState(p, lines);
const words = logWords(p);

describe.each(Object.keys(entryKinds) as EntryKindName[])('%s', (kind) => {
  it('is a line of the log, is said in words, and has its table, by what people read', () => {
    const body = EntryBody.parse({ kind, ...bodies[kind] });
    expect(entryKinds[kind].say(body, words)).not.toBe('');
    const table = entryKinds[kind].fill(state.byKind.get(kind) ?? [], words);
    expect(table.rows.length).toBeGreaterThan(0);
    for (const row of table.rows) expect(row).toHaveLength(table.columns.length);
    const ids = table.columns.findIndex((c) => c.name.endsWith('_id'));
    const read = table.columns.findIndex((c) => ['unit', 'units', 'treatment', 'product'].includes(c.name));
    if (read >= 0) expect(read).toBeLessThan(ids);
    expect(trialTables(state).map((t) => t.name)).toContain(table.name);
  });
  it('says nothing of lines of another kind', () => {
    const other = kind === 'note' ? 'seal' : 'note';
    expect(entryKinds[kind].say({ kind: other }, words)).toBe('');
    expect(entryKinds[kind].fill(state.byKind.get(other) ?? [], words).rows).toEqual([]);
  });
});

it('reads as a person would say it', () => {
  const say = (kind: EntryKindName) => entryKinds[kind].say({ kind, ...bodies[kind] }, words);
  expect(say('weighing')).toBe('TST-02 20.0 g net (gross 30, tare 10, Bowl) by scale');
  expect(say('mix')).toBe('batch B1, 2 L: 3 mL Prova');
  expect(say('feed')).toBe('TST-02, TST-04: 0.5 L each of batch B1');
  expect(say('death')).toBe('TST-02 mould');
  expect(entryKinds.measurement.say(EntryBody.parse({ ...height(unit, 21), notYet: true }), words)).toContain(
    'not yet on day 21',
  );
});

it('a batch that is taken back takes its readings and feedings along; nothing else does', () => {
  const reading = entry(
    { kind: 'reading', quantity: 'ec', value: 1, subject: 'b', ...base, batch: 'B1' },
    'r',
  );
  const other = entry({ kind: 'feed', unitIds: [unit], batch: 'B2', volumeLPerUnit: 1 }, 'other');
  const { entries } = deriveState(p, [...lines, reading, other]);
  const mix = lines.find((e) => e.kind === 'mix')!;
  expect(entryKinds.mix.goesWith(mix, entries)).toEqual(['line-feed', 'r']);
  expect(entryKinds.feed.goesWith(other, entries)).toEqual([]);
});

it('a seal, an opening of the codes and a reveal of cups stay', () => {
  const stay = (Object.keys(entryKinds) as EntryKindName[]).filter((k) => !entryKinds[k].canTakeBack);
  expect(stay).toEqual(['panelReveal', 'seal', 'reveal']);
});

describe('another load of a unit', () => {
  const load = {
    ...{ grossG: 30.3, tareG: 12.1, container: 'tub', instrument: 'a scale', stepG: 0.1 },
    steady: true as boolean | null,
    loads: undefined as number | undefined,
  };
  it('adds gross and tare, and so the net', () => {
    const two = withLoad({ ...load, grossG: 40.2 }, load);
    expect(two).toEqual({ ...load, grossG: 70.5, tareG: 24.2, loads: 2 });
    expect(netG(two)).toBe(46.3);
    expect(withLoad(two, load).loads).toBe(3);
  });
  it('names what both were weighed in and on, those that have a name', () => {
    const inside = (container: string) => withLoad({ ...load, container }, load).container;
    expect(inside('bowl')).toBe('bowl + tub');
    expect(inside('')).toBe('tub');
    expect(withLoad({ ...load, instrument: 'typed' }, load).instrument).toBe('typed + a scale');
  });
  it.each([
    [true, true, true],
    [false, true, false],
    [null, false, false],
    [true, null, null],
    [null, true, null],
  ])('is as sure as the less sure: %s and %s is %s', (before, now, said) => {
    expect(withLoad({ ...load, steady: before }, { ...load, steady: now }).steady).toBe(said);
  });
  it('corrects nothing, and is said so by nobody; a slip in it does', () => {
    const p = plan({ replicates: 1 });
    const id = unitId('Water', 0);
    const body = {
      ...load,
      kind: 'weighing',
      unitId: id,
      traitId: p.traits[0]!.id,
      roundId: 'r2',
      sample: null,
    };
    const line = entry({ ...body, grossG: 45 }, 'one');
    const replaced = (supersedes: string, by: object) =>
      entry({ kind: 'correction', supersedes, replacement: by, reason: '' }, `after ${supersedes}`);
    const added = replaced('one', withLoad({ ...load, grossG: 45 }, body));
    const told = (log: Parameters<typeof deriveState>[1]) => {
      const state = deriveState(p, log);
      const [o] = observationsOf(state, id, p.traits[0]!.id, 'r2' as RoundId);
      return { net: o!.value, earlier: o!.earlier.length, said: otherwiseIn(state).map((t) => t.text) };
    };
    expect(told([line, added])).toEqual({ net: 51.1, earlier: 0, said: [] });
    const slip = told([line, added, replaced('after one', { ...body, grossG: 80 })]);
    expect(slip.earlier).toBe(1);
    expect(slip.said).toEqual(['1 value corrected after entry; the log keeps the old ones']);
  });
});
