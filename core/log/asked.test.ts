// What a round asked and what came of it: counted from the log by hand.
import { describe, expect, it } from 'vitest';
import { rowsOf } from '../analysis/rows';
import type { RoundId, TraitId } from '../model/ids';
import { findingOf } from '../account/findingInput';
import { headline, warningsOf } from '../say/words';
import { conductBlocks } from '../report/conductBlocks';
import { roundProgress } from '../schedule/rounds';
import { entry, harvest, height, heightTrait, plan, trait, type unitId, weighing } from '../testing/trial';
import { answeredIn } from './asked';
import { deriveState } from './state';

/** Two trays of each; heights of two plants in each on days 3 and 10, weights on day 10. */
const p = plan({ replicates: 2, traits: [trait(), heightTrait({ samplesPerUnit: 2 })] });
const [first, last] = p.rounds;
const all = ['Water-0', 'Water-1', 'A-0', 'A-1'].map((u) => u as ReturnType<typeof unitId>);
/** @param day of March 2026, counted from the first */
const died = (unit: (typeof all)[number], day: number) => ({
  ...entry({ kind: 'death', unitId: unit, sample: null, cause: '' }),
  at: new Date(Date.UTC(2026, 2, 1 + day, 12)).toISOString(),
});
const heights = (list: readonly (typeof all)[number][], samples = [1, 2], round = 'r1') =>
  list.flatMap((u) => samples.map((s) => entry(height(u, 5, round, s))));
const answered = (log: Parameters<typeof deriveState>[1], round = first!) => {
  const a = answeredIn(deriveState(p, log), p.traits[1]!, round);
  return [a.asked, a.inFull, a.inPart, a.open].map((l) => l.length);
};

describe('asked and answered', () => {
  it('one sample of two is a part, not none', () => {
    expect(answered(heights(all, [1]))).toEqual([4, 0, 4, 4]);
    const state = deriveState(p, heights(all, [1]));
    expect(JSON.stringify(conductBlocks(state, '2026-03-05', { tag: 'notSealed' } as never))).toContain(
      'height 0 of 4 in full, 4 more in part (4 of 8 samples)',
    );
  });
  it('who died after its values was measured; who was dead by then wasn’t asked', () => {
    expect(answered([...heights(all), died(all[0]!, 6)])).toEqual([4, 4, 0, 0]);
    expect(answered([...heights(all.slice(1)), died(all[0]!, 2)])).toEqual([3, 3, 0, 0]);
    // Died on day 6 and not measured on day 3, though alive: asked, missed, and nothing is left to take.
    expect(answered([...heights(all.slice(1)), died(all[0]!, 6)])).toEqual([4, 3, 0, 0]);
  });
});

describe('days until', () => {
  const until = trait({
    id: 'up' as TraitId,
    name: 'Days until up',
    kind: 'time',
    unit: 'd',
    direction: 'lower',
    summary: 'last',
  });
  const q = {
    ...plan({ replicates: 2, traits: [until] }),
    rounds: ['r1', 'r2', 'r3'].map((id, i) => ({
      ...{ id: id as RoundId, name: `Look ${i + 1}`, day: 3 + 2 * i, traitIds: ['up' as TraitId] },
    })),
  };
  const seen = (unit: (typeof all)[number], round: string, day: number, notYet = false) =>
    entry({
      kind: 'measurement',
      unitId: unit,
      traitId: 'up',
      roundId: round,
      sample: null,
      value: day,
      ...(notYet && { notYet }),
    });
  const log = [
    ...[all[0]!, all[1]!].map((u) => seen(u, 'r1', 3)),
    ...[all[2]!, all[3]!].map((u) => seen(u, 'r1', 3, true)),
    ...[all[2]!, all[3]!].map((u) => seen(u, 'r2', 5)),
  ];
  it('asks no more of what has sprouted, and is finished when all have', () => {
    const state = deriveState(q, log);
    expect(q.rounds.map((r) => answeredIn(state, until, r).asked.length)).toEqual([4, 2, 0]);
    expect(roundProgress(state, '2026-03-06').map((r) => r.status)).toEqual(['done', 'done', 'done']);
    const { rows, basis } = rowsOf(state, until);
    expect(basis).toMatchObject({ open: [], toCome: 0 });
    expect(rows.map((r) => r.visits.at(-1)!.samples[0]!.observed)).toEqual([
      ...[3, 5, 3, 5].map((day) => ({ type: 'event', happened: true, day })),
    ]);
  });
  it('before that it goes on: two haven’t yet', () => {
    const { basis } = rowsOf(deriveState(q, log.slice(0, 4)), until);
    expect(basis.toCome).toBe(2);
  });
});

describe('when the trial is over', () => {
  const values = harvest({ Water: [50, 51], A: [70, 71] });
  const early = heights(all, [1, 2], 'r1');
  const said = (log: Parameters<typeof deriveState>[1], today?: string) => {
    const f = findingOf(deriveState(p, log), p.traits[1]!, today === undefined ? {} : { today });
    if (!f.ok) throw new Error(f.error.tag);
    return { head: headline(f.value, (x) => x).text, warned: warningsOf(f.value, 'tray').join(' ') };
  };
  it('a round nobody made was missed, and isn’t still to come', () => {
    expect(said(early, '2026-03-12')).toMatchObject({ warned: expect.stringContaining('still to come') });
    const over = said(early, '2026-05-05');
    expect(over.head).not.toMatch(/^So far/);
    expect(over.warned).toContain('One planned round was never made.');
    expect(over.warned).not.toContain('still to come');
  });
  it('a round half made stays as it is, without “yet”', () => {
    const half = [...early, ...heights(all.slice(0, 2), [1, 2], 'r2')];
    expect(said(half, '2026-05-05').warned).toContain('Not counted: Harvest (day 10) has 2 of 4 trays');
    expect(said(half, '2026-03-12').warned).toContain('Not counted yet: Harvest');
  });
  it('nothing changes where all is there', () => {
    const state = deriveState(p, [...values, ...early, ...heights(all, [1, 2], 'r2')]);
    expect(roundProgress(state, '2026-05-05').map((r) => [r.status, r.unitsDone, r.unitsWanted])).toEqual([
      ['done', 4, 4],
      ['done', 4, 4],
    ]);
    expect(last!.traitIds).toHaveLength(2);
    expect(weighing(all[0]!, 1).kind).toBe('weighing');
  });
});
