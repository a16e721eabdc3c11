import { describe, expect, it } from 'vitest';
import type { UnitId } from '~core/model/ids';
import { type TypedByUnit, withTyped, withoutSent } from './typedByUnit';

const [one, two] = ['u1', 'u2'] as UnitId[];
interface Gross {
  gross: string;
}
const blank = (t: Gross) => t.gross.trim() === '';
const none: TypedByUnit<Gross> = new Map();

describe('what is typed at units', () => {
  it('stays with its unit', () => {
    const all = withTyped(withTyped(none, one!, { gross: '12' }, blank), two!, { gross: '9' }, blank);
    expect([...all]).toEqual([
      [one, { gross: '12' }],
      [two, { gross: '9' }],
    ]);
    expect([...withTyped(all, one!, { gross: ' ' }, blank).keys()]).toEqual([two]);
    expect(all.size).toBe(2);
  });

  it('goes when it was kept, and stays where something else was typed meanwhile', () => {
    const sent = { gross: '12' };
    const all = withTyped(none, one!, sent, blank);
    expect(withoutSent(all, one!, sent).size).toBe(0);
    const since = withTyped(all, one!, { gross: '12.5' }, blank);
    expect(withoutSent(since, one!, sent)).toBe(since);
    expect(withoutSent(all, two!, sent)).toBe(all);
  });
});
