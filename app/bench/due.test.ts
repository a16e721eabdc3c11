import { describe, expect, it } from 'vitest';
import type { RoundId, TraitId } from '~core/model/ids';
import { heightTrait, plan, trait } from '~core/testing/trial';
import { type DueTrial, dueOn, dueWords } from './due';

const quiet: DueTrial = {
  id: 't',
  plan: { ...plan(), startDate: '2026-03-01', traits: [trait(), heightTrait()] },
  mix: { wanted: 0, done: 0 },
  late: null,
  due: [],
};
const round = (traitIds: string[], over: object = {}): DueTrial['due'][number] =>
  ({
    round: { id: 'r' as RoundId, name: 'Day 7', day: 7, traitIds: traitIds as TraitId[] },
    date: '2026-03-08',
    status: 'due',
    unitsDone: 2,
    unitsWanted: 6,
    started: true,
    ...over,
  }) as DueTrial['due'][number];

describe('what is due', () => {
  it('nothing', () => {
    expect(dueOn([quiet])).toEqual([]);
    expect(dueWords([])).toBe('nothing is due');
  });
  it('feed that is late comes first, with its day; then today’s mixes; then rounds', () => {
    const due = dueOn([
      { ...quiet, mix: { wanted: 5, done: 1 }, late: { day: 3, missing: 2 }, due: [round(['height'])] },
    ]);
    expect(due.map((d) => [d.what, d.since, d.figure, d.act, d.to])).toEqual([
      ['Mixing of day 3', '2026-03-04', '2', 'See to it', '/trial/t/mixing?day=3'],
      ['Mixing', null, '1/5', 'Go on', '/trial/t/mixing'],
      ['Day 7', null, '2/6', 'Go on', '/trial/t/rounds?round=r'],
    ]);
    expect(dueWords(due)).toBe('one round and two mixes are due');
    expect(dueWords(due.slice(2))).toBe('one round is due');
  });
  it('a round of weights alone is at the weigh-in; an overdue one says since when', () => {
    const [weights, both] = dueOn([
      {
        ...quiet,
        due: [round(['weight'], { status: 'overdue', started: false }), round(['weight', 'height'])],
      },
    ]);
    expect(weights).toMatchObject({
      to: '/trial/t/weigh-in?round=r',
      since: '2026-03-08',
      act: 'Start the round',
    });
    expect(both!.to).toBe('/trial/t/rounds?round=r');
  });
  it('what is mixed isn’t asked for again', () => {
    expect(dueOn([{ ...quiet, mix: { wanted: 5, done: 5 } }])).toEqual([]);
  });
});
