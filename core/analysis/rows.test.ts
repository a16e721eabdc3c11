import { describe, expect, it } from 'vitest';
import type { RoundId } from '../model/ids';
import { entry, height, heightTrait, plan, trait, unitId, weighing } from '../testing/trial';
import type { Entry } from '../log/entry';
import { deriveState } from '../log/state';
import { rowsOf } from './rows';

const p = { ...plan({ replicates: 2 }) };
const units = ['Water-0', 'Water-1', 'A-0', 'A-1'] as never[];
const picks = {
  ...p,
  rounds: [
    { id: 'p1' as RoundId, name: 'Pick 1', day: 5, traitIds: [trait().id] },
    { id: 'p2' as RoundId, name: 'Pick 2', day: 9, traitIds: [trait().id] },
  ],
};
const pick = (round: string, grams: (number | null)[]): Entry[] =>
  grams.flatMap((g, i) => (g === null ? [] : [entry(weighing(units[i]!, g, { roundId: round }))]));
const heights = (round: string, values: (number | null)[]): Entry[] =>
  values.flatMap((v, i) => (v === null ? [] : [entry(height(units[i]!, v, round))]));
const of = (log: Entry[], t = heightTrait(), plan_ = p, options = {}) =>
  rowsOf(deriveState(plan_, log), t, options);
const rounds = (r: ReturnType<typeof of>) => r.rows.map((x) => x.visits.map((v) => v.roundId));

describe('days until in shared places', () => {
  const days = trait({ id: 'days' as never, kind: 'time', unit: 'd', summary: 'last', direction: 'lower' });
  // Two tanks of two plants: what got its product on its own is the tank.
  const tanks = {
    ...plan({ treatments: ['Water', 'A'], replicates: 2, traits: [days] }),
    unitsShare: 'place' as const,
    areas: ['Water', 'A'].map((id) => ({ ...p.areas[0]!, id: id as never })),
  };
  const placed = {
    ...tanks,
    units: tanks.units.map((u) => ({ ...u, position: { ...u.position, areaId: u.treatmentId as never } })),
    rounds: [1, 2, 3].map((w) => ({
      ...{ id: `w${w}` as RoundId, name: `Look ${w}`, day: 4 * w, traitIds: [days.id] },
    })),
  };
  const look = (unit: number, round: string, value: number, notYet = false): Entry =>
    entry({
      ...{ kind: 'measurement', unitId: units[unit]!, traitId: days.id, sample: null, value, roundId: round },
      ...(notYet && { notYet }),
    } as never);
  it('each plant’s last look counts, once: one seen early is no “not yet” of a later look', () => {
    const found = of(
      [
        ...[look(0, 'w1', 4, true), look(0, 'w2', 7), look(1, 'w1', 4, true)],
        ...[look(1, 'w2', 8, true), look(1, 'w3', 12, true), look(2, 'w1', 3), look(3, 'w1', 4)],
      ],
      days,
      placed as never,
    );
    const samples = found.rows.map((r) =>
      r.visits.flatMap((v) =>
        v.samples.map(({ observed: o }) => (o.type === 'event' ? [o.happened, o.day] : null)),
      ),
    );
    expect(samples).toEqual([
      [
        [true, 7],
        [false, 12],
      ],
      [
        [true, 3],
        [true, 4],
      ],
    ]);
  });
});

describe('which visits count', () => {
  it('a sum takes the picks that are finished for all; one that is begun is named with what is missing', () => {
    const found = of([...pick('p1', [10, 11, 12, 13]), ...pick('p2', [5, null, 6, null])], trait(), picks);
    expect(rounds(found)).toEqual([['p1'], ['p1'], ['p1'], ['p1']]);
    expect(found.basis.rounds.map((r) => r.name)).toEqual(['Pick 1']);
    expect(found.basis.open).toEqual([
      { name: 'Pick 2', day: 9, done: 2, wanted: 4, missing: ['TST-03', 'TST-04'].sort() },
    ]);
    expect(found.unfinished).toBe(false);
  });
  it('a zero is an entry: the pick is finished', () => {
    const found = of([...pick('p1', [10, 11, 12, 13]), ...pick('p2', [5, 0, 6, 0])], trait(), picks);
    expect(rounds(found)[1]).toEqual(['p1', 'p2']);
    expect(found.basis.open).toEqual([]);
  });
  it('no pick finished: there is no sum', () => {
    const found = of([...pick('p1', [10, null, 12, 13]), ...pick('p2', [5, 4, null, 3])], trait(), picks);
    expect(found.unfinished).toBe(true);
    expect(found.rows).toEqual([]);
    expect(found.basis.open.map((o) => o.missing)).toEqual([['TST-03'], ['TST-02']]);
  });
  it('a single harvest with a unit missing is compared without that unit', () => {
    const found = of(pick('r2', [10, null, 12, 13]), trait());
    expect(found.rows).toHaveLength(3);
    expect(found.leftOut).toMatchObject([{ code: 'TST-03', why: 'notMeasured' }]);
  });
  it('the last value is that of the last round finished for all, not of one half done', () => {
    const half = [...heights('r1', [4, 5, 6, 7]), ...heights('r2', [90, null, null, null])];
    expect(rounds(of(half))).toEqual([['r1'], ['r1'], ['r1'], ['r1']]);
    const done = [...heights('r1', [4, 5, 6, 7]), ...heights('r2', [9, 9, 9, 9])];
    expect(rounds(of(done))).toEqual([['r2'], ['r2'], ['r2'], ['r2']]);
  });
  it('an earlier round typed in after a later one changes nothing', () => {
    const typed = [...heights('r2', [9, 8, 7, 6]), ...heights('r1', [4, 5, 6, 7])];
    expect(rounds(of(typed))).toEqual([['r2'], ['r2'], ['r2'], ['r2']]);
  });
  it('none finished: the one taken furthest, the later of equals', () => {
    const found = of([...heights('r1', [4, null, 6, null]), ...heights('r2', [9, 8, 7, null])]);
    expect(rounds(found)).toEqual([['r2'], ['r2'], ['r2']]);
  });
  it('the dead are asked for nothing; what they gave before counts in a sum', () => {
    const death = entry({ kind: 'death', unitId: unitId('A', 1), sample: null, cause: 'rot' });
    const log = [...pick('p1', [10, 11, 12, 13]), ...pick('p2', [5, 4, 6, null]), death];
    const found = of(log, trait(), picks);
    expect(found.basis.rounds.map((r) => r.name)).toEqual(['Pick 1', 'Pick 2']);
    expect(found.rows.find((r) => r.unit === 'A-1')!.visits).toHaveLength(1);
    const heightsOnly = of([...heights('r1', [4, 5, 6, 7]), ...heights('r2', [9, 8, 7, null]), death]);
    expect(heightsOnly.leftOut).toMatchObject([{ code: 'TST-04', why: 'died', reason: 'died: rot' }]);
  });
  it('a dead unit counts as nothing where the plan says so, from the day it died on', () => {
    const zero = { ...heightTrait(), deadIsZero: true as const };
    const death = (day: number) => {
      const line = entry({ kind: 'death', unitId: unitId('A', 1), sample: null, cause: 'rot' });
      return { ...line, at: new Date(Date.UTC(2026, 2, 1 + day, 9)).toISOString() };
    };
    const log = [...heights('r1', [4, 5, 6, null]), ...heights('r2', [9, 8, 7, null])];
    const value = (found: ReturnType<typeof of>) =>
      found.rows.find((r) => r.unit === 'A-1')?.visits[0]?.samples[0]?.observed;
    expect(value(of([...log, death(2)], zero))).toEqual({ type: 'continuous', value: 0 });
    expect(value(of([...log, death(5)], zero, p, { roundId: 'r2' }))).toEqual({
      type: 'continuous',
      value: 0,
    });
    // It lived through the first round and wasn't measured in it.
    expect(of([...log, death(5)], zero, p, { roundId: 'r1' }).leftOut).toMatchObject([
      { code: 'TST-04', why: 'died' },
    ]);
    expect(of([...log, death(2)]).leftOut).toMatchObject([{ code: 'TST-04', why: 'died' }]);
  });
  it('a unit left out isn’t waited for', () => {
    const out = entry({ kind: 'exclusion', unitId: unitId('A', 1), traitId: null, reason: 'spilt' });
    const found = of([...heights('r1', [4, 5, 6, 7]), ...heights('r2', [9, 8, 7, null]), out]);
    expect(rounds(found)).toEqual([['r2'], ['r2'], ['r2']]);
    expect(
      of([...heights('r1', [4, 5, 6, 7]), out], heightTrait(), p, { withExcluded: true }).rows,
    ).toHaveLength(4);
  });
  it('a round that is asked for is taken as it is', () => {
    const log = [...heights('r1', [4, 5, 6, 7]), ...heights('r2', [9, null, 9, 9])];
    expect(rounds(of(log, heightTrait(), p, { roundId: 'r2' as RoundId }))).toEqual([['r2'], ['r2'], ['r2']]);
  });
  it('weights of several crops count when every crop is weighed', () => {
    const two = { ...p, cropsWithin: ['sage', 'basil'] };
    const log = [
      ...units.map((u) => entry(weighing(u, 10, { sample: 1 }))),
      ...units.slice(0, 3).map((u) => entry(weighing(u, 20, { sample: 2 }))),
    ];
    expect(of(log, trait(), two).rows).toHaveLength(3);
    expect(of(log, trait(), two, { crop: 0 }).rows).toHaveLength(4);
  });
});

it('blocks are taken off only where all rows have one', () => {
  const blocked = plan({ replicates: 2, blocked: true });
  const some = { ...blocked, units: blocked.units.map((u, i) => (i === 0 ? { ...u, block: null } : u)) };
  expect(of(heights('r1', [4, 5, 6, 7]), heightTrait(), blocked).rows.map((r) => r.block)).toEqual(
    ['1', '2', '1', '2'].sort(),
  );
  expect(of(heights('r1', [4, 5, 6, 7]), heightTrait(), some).rows.every((r) => r.block === null)).toBe(true);
});
