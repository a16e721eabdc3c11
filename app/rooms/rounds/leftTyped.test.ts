import { describe, expect, it } from 'vitest';
import type { UnitId } from '~core/model/ids';
import { type LeftTyped, isBlank, leftOf, putBy, takeAway } from './leftTyped';

class Memory implements Storage {
  private readonly held = new Map<string, string>();
  full = false;
  get length() {
    return this.held.size;
  }
  clear = () => this.held.clear();
  key = (i: number) => [...this.held.keys()][i] ?? null;
  getItem = (k: string) => this.held.get(k) ?? null;
  removeItem = (k: string) => void this.held.delete(k);
  setItem = (k: string, v: string) => {
    if (this.full) throw new DOMException('full', 'QuotaExceededError');
    this.held.set(k, v);
  };
}

const typed = (unitId: string, text: string, over: Partial<LeftTyped> = {}): LeftTyped => ({
  unitId: unitId as UnitId,
  sample: null,
  text,
  words: {},
  borderline: 0,
  offType: 0,
  reading: null,
  ...over,
});

describe('what was typed on a pad that was left', () => {
  it('is put by for its unit and sample, the newest in place of an older one, each walk on its own', () => {
    const storage = new Memory();
    putBy('t/r1/height', typed('u1', '12'), storage);
    putBy('t/r1/height', typed('u2', '9', { sample: 2 }), storage);
    putBy('t/r1/height', typed('u2', '8', { sample: 1 }), storage);
    putBy('t/r1/height', typed('u1', '12.5'), storage);
    putBy('t/r2/height', typed('u1', '20'), storage);
    expect(leftOf('t/r1/height', storage).map((l) => `${l.unitId}/${l.sample}: ${l.text}`)).toEqual([
      'u2/2: 9',
      'u2/1: 8',
      'u1/null: 12.5',
    ]);
    expect(takeAway('t/r1/height', typed('u2', '', { sample: 2 }), storage)).toHaveLength(2);
    expect(leftOf('t/r1/height', storage)).toHaveLength(2);
    expect(leftOf('t/r2/height', storage)).toHaveLength(1);
  });

  it('leaves nothing behind when all was taken, nor where nothing can be stored', () => {
    const storage = new Memory();
    putBy('t', typed('u1', '12'), storage);
    takeAway('t', typed('u1', ''), storage);
    expect(storage.length).toBe(0);
    storage.full = true;
    // It stays on this page: the list is given all the same.
    expect(putBy('t', typed('u1', '12'), storage)).toHaveLength(1);
  });

  it('takes what isn’t its own for nothing', () => {
    const storage = new Memory();
    for (const text of ['{', '[{"unitId":5}]', 'null']) {
      storage.setItem('palazzo/left/t', text);
      expect(leftOf('t', storage)).toEqual([]);
    }
  });

  it.each([
    [typed('u', ''), true],
    [typed('u', '', { words: { t: '  ' } }), true],
    [typed('u', '0'), false],
    [typed('u', '', { words: { t: 'torn' } }), false],
    [typed('u', '', { borderline: 1 }), false],
    [typed('u', '', { offType: 2 }), false],
  ])('%o is blank: %s', (left, blank) => expect(isBlank(left)).toBe(blank));
});
