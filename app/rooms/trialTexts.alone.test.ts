// What the list of rooms, the log, the list of trials and the label sheets tell of a trial.
import '../testing/browserGlobals';
import { describe, expect, it, vi } from 'vitest';
import { audit } from '~core/fairness/audit';
import { defaultSheet, labelBoxes } from '~core/formats/labelSheet';
import { deriveState } from '~core/log/state';
import type { EntryBody } from '~core/log/entry';
import type { Plan } from '~core/model/plan';
import { positionKey } from '~core/model/positions';
import { emptyReview } from '~core/log/trial';
import { entry, harvest, height, plan, product, unitId, use as productUse } from '~core/testing/trial';
import { plainAuditInput } from './auditOf';
import { jarTags, unitLabels } from './prints/labelContent';
import { labelsDocument } from './prints/labelsPdf';
import { tintOf } from './layout/tint';
import { logLines, staysFor } from './log/logLines';
import { planSummary } from './planSummary';
import { roomSteps } from './registry';

vi.mock('../ui/tesseraSvg', () => ({ tesseraSvg: (index: number) => `<svg data-index="${index}"/>` }));

const p = plan({ treatments: ['Water', 'A'], replicates: 2, blocked: true });
const row = { id: p.id, plan: p, review: emptyReview, createdAt: '', sealedAs: null };

describe('the list of rooms', () => {
  const step = (open: ReturnType<typeof audit>) =>
    roomSteps({
      state: deriveState(p, []),
      today: '2026-03-01',
      reviewWritten: false,
      blind: false,
      open,
    }).find((s) => s.room === 'fairness')!;
  it('shows how many findings are open, and names the first', () => {
    const open = audit(plainAuditInput({ row, state: deriveState(p, []) }));
    expect(step(open)).toMatchObject({ progress: 'half', howFar: `${open.length} open` });
    expect(step(open).hint).toContain(open[0]!.title);
    expect(step([])).toMatchObject({
      progress: 'full',
      howFar: '',
      hint: 'Nothing a reader could object to',
    });
  });
  it('rehearsal is never called done: nothing is kept of one', () => {
    const rooms = (log: Parameters<typeof deriveState>[1]) =>
      roomSteps({
        state: deriveState(p, log),
        today: '2026-03-01',
        reviewWritten: false,
        blind: false,
        open: [],
      }).find((s) => s.room === 'rehearsal')!.progress;
    expect(rooms([])).toBe('none');
    expect(rooms([entry({ kind: 'seal', planSha256: 'a'.repeat(64) })])).toBe('none');
  });
});

describe('the audit’s view of a trial', () => {
  it('takes the newest strength of each solution, printed labels and the disclosure', () => {
    const ec = (value: number, treatmentId: string | null) =>
      entry({
        kind: 'reading',
        quantity: 'ec',
        value,
        subject: 'bottle',
        unitId: null,
        treatmentId: treatmentId as never,
        instrument: 'typed',
      });
    const state = deriveState(p, [
      ec(1.2, 'A'),
      ec(1.5, 'A'),
      ec(0.3, null),
      entry({ kind: 'taskDone', task: 'labels printed' }),
    ]);
    const input = plainAuditInput({
      row: { ...row, review: { ...emptyReview, disclosure: 'Given.' } },
      state,
    });
    expect([...input.ecByTreatment]).toEqual([['A', 1.5]]);
    expect(input).toMatchObject({ labelsPrinted: true, disclosure: 'Given.' });
  });
});

describe('the log in words', () => {
  const lines = (...bodies: EntryBody[]) => {
    const log = bodies.map((b, i) => entry(b, `l${i}`));
    return logLines(p, deriveState(p, log));
  };
  it('says what each kind of line is', () => {
    const told = lines(
      height(unitId('A', 0), 5.25),
      { kind: 'taskDone', task: 'turn 2' },
      { kind: 'reveal', reason: '' },
      { kind: 'note', unitId: unitId('A', 0), text: 'leans' },
      {
        kind: 'move',
        moves: [{ unitId: unitId('A', 0), to: { ...p.units[0]!.position } }],
        reason: 'rotation, turn 2',
      },
      { kind: 'deviation', unitIds: [unitId('A', 1)], text: 'dry' },
      { kind: 'death', unitId: unitId('A', 1), sample: null, cause: 'mould' },
    ).map((l) => `${l.what}: ${l.text}`);
    expect(told).toEqual(
      expect.arrayContaining([
        expect.stringContaining('TST-02 height 5.'),
        'Done: turn 2',
        'Codes opened: names are shown from here on',
        expect.stringContaining('TST-02: leans'),
        expect.stringContaining('TST-02 to row 1, position 1 of Shelf'),
        expect.stringContaining('TST-04 dry'),
        expect.stringContaining('TST-04 mould'),
      ]),
    );
  });
  it('mixes, stocks, corrections and top-ups say what went in', () => {
    const named = { ...p, products: [product({ id: 'feed' as never, name: 'Prova' })] };
    const bodies = [
      {
        kind: 'mix',
        treatmentId: 'A',
        batch: 'b1',
        volumeL: 3,
        amounts: [
          { productId: 'feed', amount: 3, unit: 'g' },
          { productId: 'feed', amount: 24, unit: 'mL', fromStock: 'S1' },
        ],
      },
      { kind: 'mix', treatmentId: 'Water', batch: 'w1', volumeL: 3, amounts: [] },
      { kind: 'stock', productId: 'feed', batch: 'S1', amount: 25, unit: 'g', volumeL: 0.25 },
      { kind: 'feed', unitIds: [unitId('A', 0)], batch: 'b1', volumeLPerUnit: 0.6, purpose: 'topUp' },
      {
        kind: 'phDose',
        unitId: null,
        treatmentId: 'A',
        batch: '',
        agent: 'citric acid',
        amountMl: 2,
        volumeL: 10,
        phBefore: 7,
        phAfter: 6,
      },
      {
        kind: 'reading',
        quantity: 'ec',
        value: 1.3,
        subject: 'batch b1',
        unitId: null,
        treatmentId: 'A',
        instrument: 'typed',
      },
    ] as EntryBody[];
    const log = bodies.map((b, i) => entry(b, `m${i}`, i));
    const said = (of: Plan, codes?: Map<string, string>) =>
      logLines(of, deriveState(of, log), codes)
        .reverse()
        .map((l) => `${l.what}: ${l.text}`);
    expect(said(named)).toEqual([
      'Mixed: batch b1, 3 L: 3 g Prova, 24 mL Prova from stock S1',
      'Mixed: batch w1, 3 L, nothing in it',
      'Stock made: S1: 25 g in 0.25 L',
      'Fed: TST-02: 0.6 L each of batch b1, topped up',
      'pH corrected: 2 mL citric acid in 10 L, pH 7 to 6',
      'Read: strength of batch b1: 1.3 mS/cm',
    ]);
    // under codes by the jar
    expect(said({ ...p, products: [] }, new Map([['A/feed', 'B1']]))[0]).toMatch(/3 g B1, 24 mL B1/);
  });
  it('jar tags say the code and nothing else', () => {
    const products = [product({ id: 'feed' as never, name: 'Prova' })];
    const fed = {
      ...p,
      products,
      treatments: p.treatments.map((t) => (t.name === 'A' ? { ...t, products: [productUse()] } : t)),
    };
    const tags = jarTags(fed, { order: ['A', 'Water'] as never });
    expect(tags).toMatchObject([{ title: 'Jar A1', letter: 'A', index: 0, name: '', qr: 'TST jar A1' }]);
    expect(JSON.stringify(tags)).not.toMatch(/Prova/);
    expect(tags[0]!.small).toMatch(/not for drinking/);
  });
  it('seals and opened codes can’t be taken back from the log', () => {
    expect([staysFor('seal'), staysFor('reveal'), staysFor('note'), staysFor(undefined)]).toEqual([
      true,
      true,
      false,
      false,
    ]);
    const [open] = lines({ kind: 'reveal', reason: '' });
    expect(open!.canTakeBack).toBe(false);
    const [note] = lines({ kind: 'note', unitId: null, text: 'x' });
    expect(note!.canTakeBack).toBe(true);
  });
});

it('a finished blind trial waits for its codes to be opened', () => {
  const log = [
    entry({ kind: 'seal', planSha256: 'a'.repeat(64) }),
    ...p.units.flatMap((u) => [entry(height(u.id, 5)), entry(height(u.id, 6, 'r2'))]),
    ...harvest({ Water: [1, 2], A: [4, 5] }),
  ];
  const state = deriveState(p, log);
  expect(planSummary(state, '2026-03-20')).toBe('read the verdict');
  expect(planSummary(state, '2026-03-20', true)).toBe('open the codes');
});

describe('the ground’s colour', () => {
  const at = (column: number) => ({ ...p.units[0]!.position, column });
  it('runs from the darkest to the brightest reading', () => {
    const tint = tintOf(
      new Map([
        [positionKey(at(0)), 100],
        [positionKey(at(1)), 150],
        [positionKey(at(2)), 200],
      ]),
    );
    expect([0, 1, 2, 3].map((c) => tint(at(c)))).toEqual([0, 0.5, 1, undefined]);
  });
  it('is even where all readings are', () => {
    expect(tintOf(new Map([[positionKey(at(0)), 100]]))(at(0))).toBe(0.5);
    expect(tintOf(new Map())(at(0))).toBeUndefined();
  });
});

describe('the PDF of labels', () => {
  const positions = new Map(p.units.map((u) => [u.id, u.position]));
  const made = (rows: number, blind: boolean) => {
    const sheet = { ...defaultSheet, columns: 1, rows };
    const labels = unitLabels(p, positions, blind);
    const boxes = labelBoxes(sheet, labels.length);
    if (!boxes.ok) throw new Error(boxes.error.tag);
    return labelsDocument(sheet, labels, boxes.value, 'TST labels');
  };
  it('has a page for each sheet, in the paper’s own size', () => {
    const document = made(3, false);
    expect(document.content).toHaveLength(2);
    // A4 in points: 210 mm and 297 mm at 72 to the inch
    const { width, height: tall } = document.pageSize as { width: number; height: number };
    expect(width).toBeCloseTo(595.28, 1);
    expect(tall).toBeCloseTo(841.89, 1);
    expect(document.info?.title).toBe('TST labels');
  });
  it('carries code, tile and QR of every unit; names only where they may be read', () => {
    const open = JSON.stringify(made(7, false));
    const blind = JSON.stringify(made(7, true));
    for (const u of p.units) {
      expect(open).toContain(`"qr":"${u.code}"`);
      expect(blind).toContain(`"qr":"${u.code}"`);
    }
    expect(open).toContain('Water');
    expect(blind).not.toContain('Water');
    expect(open.match(/data-index/g)).toHaveLength(p.units.length);
  });
});
