// Plain arithmetic: what the units took over what they gave.
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import { usualGrades } from '../model/grade';
import { entry, plan, unitId } from '../testing/trial';
import { sayPerPiece } from './costPerPiece';
import type { Costs } from './costWords';

const p = { ...plan({ treatments: ['Water', 'A'], replicates: 2 }), grades: usualGrades('tomato') };
const pick = (t: string, r: number, sound: number, at: string, lost = 0) =>
  entry({
    kind: 'pick',
    unitId: unitId(t, r),
    items: [
      { grade: 'sound', count: sound, weightG: sound * 50 },
      { grade: 'eaten', count: lost, weightG: lost * 50 },
    ],
    note: '',
    instrument: 'scale',
    at,
  } as never);
const costs = new Map(
  ['Water', 'A'].map((id) => [
    id,
    { ...{ lines: [], unknown: [] }, perUnit: { minor: id === 'A' ? 60 : 0, currency: 'EUR' } },
  ]),
) as unknown as Costs;
const said = (log: ReturnType<typeof pick>[]) => sayPerPiece(deriveState(p, log), costs, (id) => id);
const day = '2026-03-05T08:00:00.000Z';

describe('what a piece took', () => {
  it('is all that the units took over all the pieces that count', () => {
    // A: two units at 0.60 gave 3 + 5 sound ones; what was eaten isn't yield.
    const log = [
      pick('A', 0, 3, day, 4),
      pick('A', 1, 5, day),
      pick('Water', 0, 2, day),
      pick('Water', 1, 1, day),
    ];
    expect(said(log)).toEqual(['A piece that counts as yield took: Water €0.00 and A €0.150.']);
  });
  it('a contender without any is named, not divided by nothing', () => {
    const log = [
      pick('A', 0, 3, day),
      pick('A', 1, 5, day),
      pick('Water', 0, 0, day),
      pick('Water', 1, 0, day),
    ];
    expect(said(log)).toEqual(['A piece that counts as yield took: A €0.150; Water gave none.']);
  });
  it('nothing is said of a day on which some weren’t looked at, nor where nothing is picked', () => {
    expect(said([pick('A', 0, 3, day)])).toEqual([]);
    expect(said([])).toEqual([]);
  });
});
