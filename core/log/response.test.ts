import { describe, expect, it } from 'vitest';
import type { RoundId } from '../model/ids';
import { figureOfVisits } from '../analysis/number';
import { entry, height, heightTrait, plan, trait, unitId, weighing } from '../testing/trial';
import type { Entry } from './entry';
import { cropOfSample, numberInCrop, responseOf, samplesIn } from './response';
import { deriveState } from './state';

const water = unitId('Water', 0);
const figure = (log: Entry[], t = heightTrait(), p = plan(), crop: number | null = null) =>
  figureOfVisits(responseOf(deriveState(p, log), water, t, crop).visits, t);

describe('what was observed, as it was', () => {
  const said = (over: object, kind: 'ratio' | 'score' | 'time' | 'yesno' | 'count') => {
    const t = heightTrait({ kind, outOf: kind === 'ratio' ? 5 : null });
    const log = [entry({ ...height(water, 4), ...over })];
    return responseOf(deriveState(plan(), log), water, t).visits[0]!.samples[0]!.observed;
  };
  it('k of n stays k and n, with the n it was said with', () => {
    expect(said({}, 'ratio')).toEqual({ type: 'kOfN', k: 4, n: 5 });
    expect(said({ outOf: 8 }, 'ratio')).toEqual({ type: 'kOfN', k: 4, n: 8 });
    expect(said({ value: 1 }, 'yesno')).toEqual({ type: 'kOfN', k: 1, n: 1 });
  });
  it('a score is a level, a count a count, “not yet” is never a day on which it happened', () => {
    expect(said({}, 'score')).toEqual({ type: 'level', level: 4 });
    expect(said({}, 'count')).toEqual({ type: 'count', count: 4, exposure: 1 });
    expect(said({ notYet: true }, 'time')).toEqual({ type: 'event', happened: false, day: 4 });
  });
  it('words are words', () => {
    const t = heightTrait({ kind: 'text' });
    const note = { kind: 'note', unitId: water, text: 'leans', traitId: t.id, roundId: 'r1' };
    const state = deriveState(plan(), [entry(note), entry({ ...note, text: 'leans more' })]);
    expect(responseOf(state, water, t).visits).toEqual([
      {
        roundId: 'r1',
        day: 3,
        samples: [{ sample: null, crop: 0, observed: { type: 'words', text: 'leans more' } }],
      },
    ]);
  });
});

describe('what counts once', () => {
  it('gross minus tare has no floating-point dust', () => {
    expect(figure([entry(weighing(water, 0, { grossG: 171.6, tareG: 112.4 }))], trait())).toBe(59.2);
  });
  it('picks are added, samples of a visit averaged', () => {
    const picks = [entry(weighing(water, 20, { roundId: 'r1' })), entry(weighing(water, 5))];
    expect(figure(picks, trait())).toBe(25);
    const samples = [4, 6, 8].map((v, i) => entry(height(water, v, 'r1', i + 1)));
    expect(figure(samples, heightTrait({ samplesPerUnit: 3 }))).toBe(6);
  });
  it('the last visit is the latest round’s, also where the earlier round is typed in after it', () => {
    const late = entry(height(water, 9, 'r2'));
    const typedLater = entry(height(water, 4, 'r1'));
    expect(figure([late, typedLater])).toBe(9);
    const days = responseOf(deriveState(plan(), [late, typedLater]), water, heightTrait()).visits;
    expect(days.map((v) => [v.roundId, v.day])).toEqual([
      ['r1' as RoundId, 3],
      ['r2' as RoundId, 10],
    ]);
  });
  it('a sample that died isn’t taken into the mean', () => {
    const log = [4, 6, 0].map((v, i) => entry(height(water, v, 'r1', i + 1)));
    const death = entry({ kind: 'death', unitId: water, sample: 3, cause: 'slug' });
    expect(figure([...log, death], heightTrait({ samplesPerUnit: 3 }))).toBe(5);
  });
  it('k of n over samples is pooled, not a mean of per cents', () => {
    const rooted = heightTrait({ kind: 'ratio', outOf: 10, samplesPerUnit: 2 });
    const log = [
      entry({ ...height(water, 1, 'r1', 1), outOf: 2 }),
      entry({ ...height(water, 2, 'r1', 2), outOf: 8 }),
    ];
    expect(figure(log, rooted)).toBe(30);
  });
  it('samples belong to crops in turn; each crop counts alike, and one can be looked at alone', () => {
    const tall = heightTrait({ samplesPerUnit: 2 });
    const two = { ...plan({ traits: [tall] }), cropsWithin: ['sage', 'basil'] };
    expect(samplesIn(two, tall)).toBe(4);
    expect([1, 2, 3, 4].map((s) => [cropOfSample(tall, s), numberInCrop(tall, s)])).toEqual([
      [0, 1],
      [0, 2],
      [1, 1],
      [1, 2],
    ]);
    const log = [2, 4, 10, 20].map((v, i) => entry(height(water, v, 'r2', i + 1)));
    expect(figure(log, tall, two)).toBe(9);
    expect(figure(log, tall, two, 0)).toBe(3);
    expect(figure(log, tall, two, 1)).toBe(15);
    // one sample of sage is missing: basil doesn't weigh more for it
    expect(figure(log.slice(1), tall, two)).toBe(9.5);
  });
  it('crops of a unit are weighed each on its own, and weigh together', () => {
    const two = { ...plan(), cropsWithin: ['sage', 'basil'] };
    const log = [20, 30].map((net, i) => entry(weighing(water, net, { sample: i + 1 })));
    expect(figure(log, trait(), two)).toBe(50);
    expect(figure(log, trait(), two, 1)).toBe(30);
    expect(samplesIn(two, trait({ samplesPerUnit: 4 }))).toBe(2);
  });
});
