import { describe, expect, it } from 'vitest';
import { strFromU8, unzipSync } from 'fflate';
import { deriveState } from '../log/state';
import { type Trial, emptyReview } from '../log/trial';
import { verifySeal } from '../log/verifySeal';
import type { ProductId, TreatmentId } from '../model/ids';
import { planSha256 } from '../plan/seal';
import { entry, harvest, plan, product, unitId, use } from '../testing/trial';
import { exportTrial, importTrial } from './dataPackage';
import { ofItsTrial, scorersCopy } from './scorersCopy';

const base = plan({ treatments: ['x1', 'x2'] });
const p = {
  ...base,
  blinding: 'scorer' as const,
  prediction: 'Lucente wins.',
  accepted: [{ ruleId: 'unequal-light', reason: 'Lucente needs it' }],
  products: [product({ name: 'Lucente' })],
  treatments: base.treatments.map((t, i) => ({
    ...t,
    name: i === 0 ? 'Rain alone' : 'Lucente',
    products: i === 0 ? [] : [use()],
  })),
};
const trial: Trial = {
  plan: p,
  log: [
    entry({ kind: 'seal', planSha256: planSha256(p) }),
    entry({
      kind: 'mix',
      treatmentId: 'x1' as TreatmentId,
      batch: 'TST-B-d0',
      volumeL: 2,
      amounts: [],
    }),
    entry({ kind: 'stock', productId: 'feed' as ProductId, batch: 'S', amount: 1, unit: 'g', volumeL: 1 }),
    entry({
      kind: 'reading',
      quantity: 'ec',
      value: 0.1,
      subject: 'Bottle B',
      unitId: null,
      treatmentId: 'x1',
      instrument: '',
    }),
    entry({
      kind: 'reading',
      quantity: 'tare',
      value: 12,
      subject: 'bowl',
      unitId: null,
      treatmentId: null,
      instrument: '',
    }),
    entry({ kind: 'note', unitId: unitId('x1', 0), text: 'leaning' }),
    ...harvest({ x1: [1, 2, 3], x2: [4, 5, 6] }),
  ],
  review: { ...emptyReview, introduction: 'Lucente came by post.' },
  key: { order: ['x2' as TreatmentId, 'x1' as TreatmentId] },
  sealedAs: null,
  conflicts: [],
};
const copy = scorersCopy(trial);

describe('the copy for whoever scores', () => {
  it('no file of it tells a name, a dose or what is in a bottle', () => {
    const files = Object.entries(unzipSync(exportTrial(copy))).map(([f, b]) => `${f}: ${strFromU8(b)}`);
    for (const text of files) expect(text).not.toMatch(/Lucente|Rain|"mix"|Bottle B/);
    // The whole trial does, so the test can fail.
    const whole = Object.values(unzipSync(exportTrial(trial)))
      .map((b) => strFromU8(b))
      .join();
    expect(whole).toMatch(/Lucente/);
  });
  it('treatments go by the codes on the labels, in their order', () => {
    expect(copy.plan.treatments.map((t) => [t.id, t.name])).toEqual([
      ['x2', 'Code A'],
      ['x1', 'Code B'],
    ]);
  });
  it('keeps what a scorer needs: units, values, notes and tares', () => {
    const state = deriveState(copy.plan, copy.log);
    expect(state.observations).toHaveLength(6);
    expect(state.notes).toHaveLength(1);
    expect(state.tares.get('bowl')).toBe(12);
    expect(copy.plan.units).toEqual(p.units);
  });
  it('reads back as it was written; its seal is neither holding nor broken', () => {
    const back = importTrial(exportTrial(copy));
    expect(back).toEqual({ ok: true, value: copy });
    expect(verifySeal(copy.plan, deriveState(copy.plan, copy.log).seal, null)).toEqual({
      tag: 'namesLeftOut',
    });
    expect(verifySeal(p, deriveState(p, trial.log).seal, null)).toEqual({ tag: 'holds' });
  });
});

describe('an older trial, whose contenders’ ids tell when they were made', () => {
  const [first, second] = ['0190aaaa-0000-7000-8000-000000000001', '0190aaaa-0001-7000-8000-000000000002'];
  const older: Trial = JSON.parse(
    JSON.stringify(trial).replaceAll('"x1"', `"${first}"`).replaceAll('"x2"', `"${second}"`),
  ) as Trial;
  const made = scorersCopy(older);
  it('no file of the copy has them, and their order tells nothing', () => {
    for (const bytes of Object.values(unzipSync(exportTrial(made))))
      expect(strFromU8(bytes)).not.toContain('0190aaaa');
    expect(
      Object.values(unzipSync(exportTrial(older)))
        .map((b) => strFromU8(b))
        .join(),
    ).toContain('0190aaaa');
    expect(made.plan.treatments.every((t) => /^[0-9a-f-]{14}4/.test(t.id))).toBe(true);
    expect(new Set(made.plan.treatments.map((t) => t.id)).size).toBe(made.plan.treatments.length);
  });
  it('is the same copy each time, and turned back into its trial’s ids', () => {
    expect(scorersCopy(older)).toEqual(made);
    const back = ofItsTrial(made, older.plan, older.key);
    expect(back.plan.units).toEqual(older.plan.units);
    expect(back.plan.treatments.map((t) => t.id).sort()).toEqual([first, second].sort());
    expect(ofItsTrial(made, older.plan, null)).toBe(made);
  });
  it('drawn ids stay as they are', () => {
    expect(copy.plan.treatments.map((t) => t.id).sort()).toEqual(['x1', 'x2']);
  });
});
