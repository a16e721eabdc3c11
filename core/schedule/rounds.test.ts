import { expect, it } from 'vitest';
import { deriveState } from '../log/state';
import { planSha256 } from '../plan/seal';
import { entry, harvest, height, heightTrait, plan, trait, unitId } from '../testing/trial';
import { roundProgress, stageOf } from './rounds';
import { dateOfDay, dayOfDate } from '../plan/days';

it('counts days across a clock change', () => {
  expect(dateOfDay('2026-03-20', 14)).toBe('2026-04-03');
  expect(dayOfDate('2026-03-20', '2026-04-03')).toBe(14);
  expect(dayOfDate('2026-03-20', '2026-03-19')).toBe(-1);
});

const p = plan({ replicates: 2, traits: [trait(), heightTrait({ samplesPerUnit: 2 })] });
const units = ['Water-0', 'Water-1', 'A-0', 'A-1'].map((u) => u as ReturnType<typeof unitId>);
const heights = (round: string, list = units) =>
  list.flatMap((u) => [1, 2].map((s) => entry(height(u, 5, round, s))));
const status = (log: Parameters<typeof deriveState>[1], today: string) =>
  roundProgress(deriveState(p, log), today).map((r) => [r.status, r.unitsDone]);

it('rounds are upcoming, due, overdue, done', () => {
  expect(status([], '2026-03-04')).toEqual([
    ['due', 0],
    ['upcoming', 0],
  ]);
  expect(status(heights('r1', units.slice(0, 3)), '2026-03-06')[0]).toEqual(['overdue', 3]);
  expect(status(heights('r1'), '2026-03-06')[0]).toEqual(['done', 4]);
});

it('a unit needs all its samples, and the dead are not waited for', () => {
  const half = heights('r1').filter(
    (e) => !(e.kind === 'measurement' && e.unitId === 'A-1' && e.sample === 2),
  );
  expect(status(half, '2026-03-04')[0]).toEqual(['due', 3]);
  const dead = [...half, entry({ kind: 'death', unitId: unitId('A', 1), sample: null, cause: '' })];
  expect(status(dead, '2026-03-04')[0]).toEqual(['done', 3]);
});

it('a trial is planned, running, finished', () => {
  const seal = entry({ kind: 'seal', planSha256: planSha256(p) });
  const stage = (log: Parameters<typeof deriveState>[1]) => stageOf(deriveState(p, log), '2026-03-20');
  expect(stage([])).toBe('planning');
  expect(stage([seal])).toBe('running');
  expect(stage([seal, ...heights('r1'), ...heights('r2'), ...harvest({ Water: [1, 2], A: [3, 4] })])).toBe(
    'finished',
  );
});
