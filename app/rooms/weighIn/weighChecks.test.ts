import { describe, expect, it } from 'vitest';
import type { Entry } from '~core/log/entry';
import { deriveState, observationsOf } from '~core/log/state';
import { entry, plan, trait, unitId, weighing } from '~core/testing/trial';
import type { Weighed } from './scaleFigure';
import { type Weight, doubtOfWeight, faultOfWeight, loadAdded, netOf, weighingOf } from './weighChecks';

const fresh = trait({ plausibleLow: 1, plausibleHigh: 400 });
const p = plan({ treatments: ['Water', 'A'], replicates: 2, traits: [fresh] });
const round = p.rounds.at(-1)!;
const unit = p.units.find((u) => u.id === unitId('Water', 0))!;
const onTheDay = new Date(Date.parse(`${p.startDate}T12:00:00Z`) + round.day * 86_400_000)
  .toISOString()
  .slice(0, 10);
const rested: Weighed = { grams: 112, steady: true, instrument: 'a scale', stepG: 0.1 };
const weight = (over: Partial<Weight> = {}): Weight => ({ grossG: 112, tareG: 12, reading: null, ...over });

describe('a weight', () => {
  it.each([
    [112.3, 12.1, 100.2],
    [0.3, 0.1, 0.2],
    [12, 12, 0],
  ])('%d g gross less %d g is %d g net', (grossG, tareG, net) => expect(netOf({ grossG, tareG })).toBe(net));
  it('can’t be less than what is taken off', () => {
    expect(faultOfWeight({ grossG: 9, tareG: 12 })).toBe(
      '9.0 g is less than the tare of 12.0 g: the wrong container?',
    );
    expect(faultOfWeight({ grossG: 12, tareG: 12 })).toBeNull();
  });
  it('goes into the log with what it was weighed by', () => {
    const line = (reading: Weighed | null) =>
      weighingOf(unit, fresh, round, { sample: 2, container: 'tub' }, weight({ reading }));
    expect(line(null)).toMatchObject({ sample: 2, container: 'tub', grossG: 112, tareG: 12 });
    expect(line(null)).toMatchObject({ instrument: 'typed', stepG: null, steady: null });
    expect(line(rested)).toMatchObject({ instrument: 'a scale', stepG: 0.1, steady: true });
  });
});

describe('a weight is asked about', () => {
  const at = (w: Weight, log: Entry[] = [], today: string | null = onTheDay, withoutTare = false) => {
    const state = deriveState(p, log);
    const standing = observationsOf(state, unit.id, fresh.id, round.id)[0];
    return doubtOfWeight(state, w, { unit, trait: fresh, round, standing, today, withoutTare });
  };
  it('not where it is as it was to be expected, typed or from a scale at rest', () => {
    expect(at(weight())).toBeNull();
    expect(at(weight({ reading: rested }))).toBeNull();
  });
  it('where the scale hadn’t come to rest', () => {
    expect(at(weight({ reading: { ...rested, steady: false } }))).toBe('The scale wasn’t steady.');
  });
  it('where nothing is taken off, unless that was said', () => {
    expect(at(weight({ tareG: 0 }))).toBe('No tare is taken off.');
    expect(at(weight({ tareG: 0 }), [], onTheDay, true)).toBeNull();
  });
  it('where it replaces another, and not where it says the same', () => {
    const log = [entry(weighing(unit.id, 80, { traitId: fresh.id, roundId: round.id }))];
    expect(at(weight(), log)).toMatch(/^This replaces 80(\.0+)? g, kept in this round\.$/);
    expect(at(weight({ grossG: 92 }), log)).toBeNull();
  });
  it('where it is past what is expected, for the net weight', () => {
    expect(at(weight({ grossG: 420 }))).toBe('Above 400 g, the most expected.');
    expect(at(weight({ grossG: 405 }))).toBeNull();
    expect(at(weight({ grossG: 12.5 }))).toBe('Below 1 g, the least expected.');
  });
  it('where the round is long past; once', () => {
    expect(at(weight(), [], '2031-01-01')).toMatch(/ days ago: was this measured then\?$/);
    expect(at(weight(), [], null)).toBeNull();
  });
  it('with all that is odd about it in one go', () => {
    const said = at(
      weight({ grossG: 420, tareG: 0, reading: { ...rested, steady: false } }),
      [],
      '2031-01-01',
    )!;
    for (const part of ['most expected', 'days ago', 'wasn’t steady', 'No tare'])
      expect(said).toContain(part);
  });
});

describe('another load', () => {
  const state = deriveState(
    p,
    p.units.map((u) => entry(weighing(u.id, 60))),
  );
  const added = (grossG: number, reading: Weighed | null = null) =>
    loadAdded(state, { grossG: 72, tareG: 12 }, weight({ grossG, reading }), { unit, trait: fresh, round });
  it('comes to both nets, without a question where the sum is as is to be expected', () => {
    expect(added(42)).toEqual({ netG: 90, doubt: null });
  });
  it('is questioned by its sum, and by a scale that hadn’t come to rest', () => {
    // 350 g alone is in what is expected, 410 g isn't.
    expect(added(362).doubt).toBe('Above 400 g, the most expected.');
    expect(added(42, { ...rested, steady: false }).doubt).toBe('The scale wasn’t steady.');
  });
});
