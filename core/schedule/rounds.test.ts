import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import { planSha256 } from '../plan/seal';
import { entry, harvest, height, heightTrait, plan, trait, unitId } from '../testing/trial';
import { roundProgress, dueVisit, stageOf, visitToOpen, isOpenRound, roundTask } from './rounds';
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
  const stage = (log: Parameters<typeof deriveState>[1], today = '2026-03-12') =>
    stageOf(deriveState(p, log), today);
  expect(stage([])).toBe('planning');
  expect(stage([seal])).toBe('running');
  expect(stage([seal, ...heights('r1'), ...heights('r2'), ...harvest({ Water: [1, 2], A: [3, 4] })])).toBe(
    'finished',
  );
  // The last planned day is the eleventh; a week later nobody types what is missing.
  expect([stage([seal], '2026-03-18'), stage([seal], '2026-03-19')]).toEqual(['running', 'finished']);
});

it('a round closed with a reason is neither overdue nor done; taken back it is open again', () => {
  const late = '2026-04-20';
  const round = p.rounds[0]!;
  const close = entry({ kind: 'taskSkipped', task: roundTask(round), reason: 'away' }, 'closed');
  const state = deriveState(p, [...heights('r1').slice(0, 2), close]);
  const [first, second] = roundProgress(state, late);
  expect(first).toMatchObject({ status: 'closed', closed: { reason: 'away', entryId: 'closed' } });
  expect(second!.status).toBe('overdue');
  expect(isOpenRound(first!)).toBe(false);
  const back = entry({ kind: 'correction', supersedes: 'closed', replacement: null, reason: '' });
  expect(roundProgress(deriveState(p, [close, back]), late)[0]!.status).toBe('overdue');
  // Made after all: it is done, whatever was said before.
  expect(roundProgress(deriveState(p, [...heights('r1'), close]), late)[0]!.status).toBe('done');
});

describe('the visit a page opens', () => {
  const visit = (date: string, left: number, what = '') => ({ date, left, what });
  const opened = (visits: ReturnType<typeof visit>[], today: string, inHand?: (typeof visits)[number]) =>
    visitToOpen(visits, today, (v) => v.left > 0, inHand);

  it('is the oldest that is due and open, whatever was in hand', () => {
    const [a, b, c] = [visit('2026-03-04', 0), visit('2026-03-11', 2), visit('2026-03-18', 5)];
    expect(opened([a, b, c], '2026-03-18')).toBe(b);
    expect(opened([a, b, c], '2026-03-18', c)).toBe(b);
    expect(opened([a, b, c], '2026-03-11')).toBe(b);
  });

  it('stays where the last value was typed, and goes on to what is open on that day', () => {
    const [a, b] = [visit('2026-03-11', 0), visit('2026-03-12', 8)];
    expect(opened([a, b], '2026-03-11', a)).toBe(a);
    // Taken before its day, too.
    expect(opened([a, b], '2026-03-01', a)).toBe(a);
    const roots = visit('2026-03-11', 3, 'roots');
    expect(opened([a, roots, b], '2026-03-01', a)).toBe(roots);
    expect(opened([a, { ...roots, left: 0 }, b], '2026-03-01', a)).toBe(a);
    // Another day's is due too: it is proposed, not put under the hand.
    expect(opened([a, b], '2026-03-20', a)).toBe(a);
    expect(dueVisit([a, b], '2026-03-20', (v) => v.left > 0)).toBe(b);
    expect(dueVisit([a, b], '2026-03-11', (v) => v.left > 0)).toBeUndefined();
  });

  it('is the nearest on arrival: the day just done, or the one that comes', () => {
    const [a, b] = [visit('2026-03-04', 0), visit('2026-03-11', 8)];
    expect(opened([a, b], '2026-03-05')).toBe(a);
    expect(opened([a, b], '2026-03-10')).toBe(b);
    expect(opened([visit('2026-03-04', 0), visit('2026-03-08', 8)], '2026-03-06')!.date).toBe('2026-03-04');
    expect(opened([b], '2026-03-01')).toBe(b);
    expect(opened([], '2026-03-01')).toBeUndefined();
  });
});
