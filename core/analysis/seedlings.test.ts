// Seedlings counted day by day. The figures themselves are held against the worked case in core/stats/germination.
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import type { RoundId, TraitId } from '../model/ids';
import type { Plan } from '../model/plan';
import { entry, plan, trait, unitId } from '../testing/trial';
import { findingOf } from '../account/findingInput';
import { notes } from '../say/words';
import { seedlingDays } from './seedlings';

const visit = (day: number, k: number, n = 12) => ({
  roundId: null,
  day,
  samples: [{ sample: null, crop: 0, observed: { type: 'kOfN' as const, k, n } }],
});

describe('days made of counts', () => {
  it('4 up on day 3 and 10 on day 5: mean 4.2, half of ten by day 3 and a third', () => {
    const visits = [visit(3, 4), visit(5, 10)];
    expect(seedlingDays(visits, 'meanTime')).toBeCloseTo(4.2, 12);
    expect(seedlingDays(visits, 't50')).toBeCloseTo(3 + 2 / 6, 12);
  });
  it('one that died later had come up', () => {
    expect(seedlingDays([visit(3, 4), visit(5, 10), visit(9, 8)], 'meanTime')).toBeCloseTo(4.2, 12);
  });
  it('nothing up has no day, one has no spread', () => {
    expect(seedlingDays([visit(3, 0), visit(5, 0)], 'meanTime')).toBeNull();
    expect(seedlingDays([visit(3, 1)], 'sdTime')).toBeNull();
  });
});

describe('as a finding', () => {
  const up = trait({
    id: 'up' as TraitId,
    name: 'Up',
    kind: 'ratio',
    unit: '%',
    outOf: 10,
    decimals: 0,
    summary: 'last',
  });
  const made: Plan = {
    ...plan({ treatments: ['Old', 'Fresh'], replicates: 4, traits: [up] }),
    rounds: [4, 6, 8].map((day, i) => ({
      id: `d${i}` as RoundId,
      name: `Day ${day}`,
      day,
      traitIds: [up.id],
    })),
  };
  const counted = { Old: [0, 3, 8], Fresh: [6, 8, 9] };
  const state = deriveState(
    made,
    Object.entries(counted).flatMap(([t, ks]) =>
      [0, 1, 2, 3].flatMap((r) =>
        ks.map((k, d) =>
          entry({
            kind: 'measurement',
            ...{ unitId: unitId(t, r), traitId: up.id, roundId: `d${d}`, sample: null },
            value: Math.max(0, k - (r % 2)),
            ...(t === 'Fresh' && d === 2 && r < 2 && { offType: 2 - r }),
          }),
        ),
      ),
    ),
  );
  it('fresh seed is days ahead, and fewer days are better', () => {
    const f = findingOf(state, up, { as: 'meanTime' });
    if (!f.ok) throw new Error(f.error.tag);
    expect(f.value.trait).toMatchObject({
      name: 'Up: mean day it came up',
      unit: 'days',
      direction: 'lower',
    });
    expect(f.value.analysis.summaries[1]!.mean).toBeLessThan(f.value.analysis.summaries[0]!.mean);
    expect(notes(f.value, (id) => id, 'pot')[0]!.title).toBe('Fresh beat Old.');
  });
  // Wilson's limits by hand: 3 of 34, z = 1.96.
  it('off types are counted apart, and taken out where they don’t count', () => {
    const of = (options: object) => {
      const f = findingOf(state, up, options);
      if (!f.ok) throw new Error(f.error.tag);
      return {
        counted: f.value.analysis.summaries.map((s) => s.counted),
        note: notes(f.value, (id) => id, 'pot').find((n) => n.title.startsWith('Not true')),
      };
    };
    expect(of({}).note).toMatchObject({
      tone: 'plain',
      title: 'Not true to type, of those counted.',
      text: 'Old 0/30 (0 to 11 %); Fresh 3/34 (3 to 23 %).',
    });
    expect(of({ withoutOffTypes: true })).toEqual({ counted: ['30/40', '31/40'], note: undefined });
    expect(of({ roundId: 'd1' }).note).toBeUndefined();
  });
  it('the share is the last round’s, as ever', () => {
    const f = findingOf(state, up);
    expect(f.ok && f.value.analysis.summaries.map((s) => s.counted)).toEqual(['30/40', '34/40']);
  });
});

describe('inside a wanted band', () => {
  it('is counted with its limits, for a band alone', () => {
    const of = (direction: 'band' | 'higher') => {
      const height = trait({
        id: 'weight' as TraitId,
        direction,
        bandLow: 48,
        bandHigh: 52,
        summary: 'last',
      });
      const p = plan({ treatments: ['Old', 'Fresh'], replicates: 4, traits: [height] });
      const weights = { Old: [40, 44, 47, 49], Fresh: [49, 50, 51, 50.5] };
      const log = Object.entries(weights).flatMap(([t, list]) =>
        list.map((g, i) =>
          entry({
            kind: 'weighing',
            unitId: unitId(t, i),
            traitId: 'weight',
            roundId: 'r2',
            sample: null,
            grossG: g + 10,
            tareG: 10,
            container: '',
            instrument: '',
            stepG: 0.1,
            steady: true,
          }),
        ),
      );
      const f = findingOf(deriveState(p, log), height);
      if (!f.ok) throw new Error(f.error.tag);
      return (
        notes(f.value, (id) => id, 'pot').find((n) => n.title === 'Inside the wanted band.')?.text ?? null
      );
    };
    expect(of('band')).toBe('Old 1/4 (5 to 70 %); Fresh 4/4 (51 to 100 %).');
    expect(of('higher')).toBeNull();
  });
});
