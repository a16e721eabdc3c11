import { describe, expect, it } from 'vitest';
import type { PackId } from '../model/ids';
import { entry, plan, product } from '../testing/trial';
import { packsLeft, stocksLeft, takings } from './packs';
import { deriveState } from '../log/state';

const pack = (id: string, over: object = {}) => ({
  id: id as PackId,
  size: 1,
  unit: 'L' as const,
  priceMinor: 1000,
  currency: 'EUR',
  boughtOn: null,
  count: 1,
  ...over,
});
const feed = product({ packs: [pack('small', { size: 250, unit: 'mL' as const, count: 2 }), pack('big')] });
const mix = (amount: number, over: object = {}) =>
  entry({
    kind: 'mix',
    treatmentId: plan().treatments[1]!.id,
    batch: 'b',
    volumeL: 10,
    amounts: [{ productId: 'feed', amount, unit: 'mL', ...over }],
  });
const left = (log: Parameters<typeof deriveState>[1]) =>
  packsLeft([feed], takings(deriveState(plan(), log))).map((p) => [
    p.pack.id,
    p.bought,
    p.taken,
    p.left,
    p.overdrawn,
  ]);

describe('stock from the log', () => {
  it('every mix takes from its pack; from the first where it names none', () => {
    expect(left([mix(100, { packId: 'big' }), mix(50), mix(25, { packId: 'gone' })])).toEqual([
      ['small', 500, 75, 425, false],
      ['big', 1, 0.1, 0.9, false],
    ]);
  });
  it('a mix taken back is back in the pack', () => {
    const log = [mix(100)];
    const back = entry({ kind: 'correction', supersedes: log[0]!.id, replacement: null, reason: '' });
    expect(left([...log, back])[0]).toEqual(['small', 500, 0, 500, false]);
  });
  it('more than was bought is said, not hidden', () => {
    expect(left([mix(600)])[0]).toEqual(['small', 500, 600, 0, true]);
  });
  it('a stock solution takes from the pack once; mixes then take from it', () => {
    const made = entry({
      kind: 'stock',
      productId: 'feed',
      batch: 'S1',
      amount: 20,
      unit: 'g',
      volumeL: 0.25,
    });
    const powder = product({ packs: [pack('p', { size: 1, unit: 'kg' as const })] });
    const log = deriveState(plan(), [made, mix(24, { fromStock: 'S1' }), mix(30, { fromStock: 'S1' })]);
    expect(packsLeft([powder], takings(log))[0]).toMatchObject({ taken: 0.02, left: 0.98 });
    expect(stocksLeft(log)).toMatchObject([{ batch: 'S1', takenMl: 54, leftMl: 196 }]);
  });
});
