// Who led when, with data that make each sentence and data that don't; a curve's summaries by hand.
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../stats/random';
import { deriveState } from '../log/state';
import type { RoundId, TraitId } from '../model/ids';
import type { Plan } from '../model/plan';
import { height, heightTrait, plan, unitId, entry } from '../testing/trial';
import { aheadOfAll } from '../account/outcomes';
import { basisText } from '../say/methodText';
import { findingOf } from '../account/findingInput';
import { peeking, sayPeeking } from './peeking';
import { overTime, sayLeads } from './overTime';

const days = [5, 12, 19];
const tall = heightTrait({ id: 'height' as TraitId });
const weekly: Plan = {
  ...plan({ treatments: ['A', 'B'], replicates: 4, traits: [tall] }),
  rounds: days.map((day, i) => ({ id: `w${i}` as RoundId, name: `Week ${i + 1}`, day, traitIds: [tall.id] })),
};
const spread = [-0.3, -0.1, 0.1, 0.4];
const grown = (a: number[], b: number[], p = weekly, upTo = 3) =>
  deriveState(
    p,
    p.treatments.flatMap((t, i) =>
      spread.flatMap((e, r) =>
        (i === 0 ? a : b)
          .slice(0, upTo)
          .map((v, w) => entry(height(unitId(t.name, r), Number((v + e).toFixed(1)), `w${w}`))),
      ),
    ),
  );
const said = (state: ReturnType<typeof grown>, over = true, told = ['B']) =>
  sayLeads(overTime(state, tall)!, (id) => id, { over, told });

describe('who led when', () => {
  it('an early leader that isn’t the last', () => {
    const s = said(grown([4, 8, 12], [3, 7, 15]));
    expect(s[0]).toBe('On day 5 A led; on day 12 A led; at the end B leads.');
    expect(s[1]).toBe('Whoever led on day 5 was still ahead at the end in 0 of 100 re-drawn trials.');
    expect(s.at(-1)).toMatch(/^An early leader isn’t the winner/);
  });
  it('one that leads throughout', () => {
    const s = said(grown([3, 7, 11], [4, 9, 16]));
    expect(s[0]).toBe('B led from the first round on.');
    expect(s[1]).toBe('Whoever led on day 5 was still ahead at the end in 100 of 100 re-drawn trials.');
    expect(s.some((x) => /^(An early leader|Being ahead)/.test(x))).toBe(false);
    // Whom the finding doesn’t show to be ahead is said to be no more than that.
    expect(said(grown([3, 7, 11], [4, 9, 16]), true, []).at(-1)).toMatch(/^Being ahead isn’t winning/);
  });
  it('level at the end, and what is only so far', () => {
    expect(said(grown([3, 7, 11], [4, 8, 11]))[0]).toBe(
      'On day 5 B led; on day 12 B led; at the end nobody leads alone.',
    );
    expect(said(grown([3, 7, 0], [4, 6, 0], weekly, 2), false)[0]).toBe(
      'On day 5 B led; so far, on day 12, A leads.',
    );
  });
  it('goes on where one of a contender’s died: its line doesn’t end there, and leaders are named', () => {
    const whole = grown([4, 8, 12], [3, 7, 15]);
    const gone = whole.log.filter(
      (e) => !(e.kind === 'measurement' && e.unitId === unitId('A', 0) && e.roundId !== 'w0'),
    );
    const death = {
      ...entry({ kind: 'death', unitId: unitId('A', 0), sample: null, cause: '' }),
      at: '2026-03-09T12:00:00.000Z',
    };
    const time = overTime(deriveState(weekly, [...gone, death]), tall)!;
    expect(time.means.find((m) => m.id === 'A')!.points.map((p) => [p.day, p.n])).toEqual([[5, 4], [12, 3], [19, 3]]); // prettier-ignore
    expect(time.leads.map((l) => l.leader)).toEqual(['A', 'A', 'B']);
    // Without its death it is simply not measured: those days aren’t whole.
    expect(overTime(deriveState(weekly, gone), tall)!.leads.map((l) => l.day)).toEqual([5]);
  });
  it('where less is better the least leads', () => {
    const lower = { ...tall, direction: 'lower' as const };
    const p = { ...weekly, traits: [lower] };
    expect(
      sayLeads(overTime(grown([3, 7, 11], [4, 9, 16], p), lower)!, (id) => id, { over: true, told: [] })[0],
    ).toBe('A led from the first round on.');
  });
  it('one round, or a round not whole, leads nobody', () => {
    expect(overTime(grown([3], [4], weekly, 1), tall)).toBeNull();
    const half = grown([4, 8, 12], [3, 7, 15]);
    const without = deriveState(weekly, [...half.log].slice(0, -1));
    expect(overTime(without, tall)!.leads.map((l) => l.day)).toEqual([5, 12]);
  });
});

it('where nothing differs a lead is left without its caution in 5 of 100 trials at most', () => {
  const random = seededRandom(8);
  const runs = 150;
  const bare = Array.from({ length: runs }, () => {
    const p = { ...weekly, traits: [{ ...tall, summary: 'last' as const }] };
    const log = p.units.flatMap((u) => {
      let height0 = 4;
      // A unit that is ahead stays ahead for a while.
      const own = random.normal();
      return days.map((_, w) => {
        height0 += 4 + own * 0.5 + random.normal() * 0.5;
        return entry(height(u.id, Number(height0.toFixed(1)), `w${w}`));
      });
    });
    const state = deriveState(p, log);
    const found = findingOf(state, p.traits[0]!);
    if (!found.ok) throw new Error(found.error.tag);
    const lines = sayLeads(overTime(state, tall)!, (id) => id, { over: true, told: aheadOfAll(found.value) });
    return lines.length > 0 && !lines.some((l) => /^(An early leader|Being ahead)/.test(l));
  }).filter(Boolean).length;
  expect(bare / runs).toBeLessThan(0.05 + 4 * Math.sqrt((0.05 * 0.95) / runs));
});

describe('the compared summary of a curve', () => {
  const summed = (summary: 'area' | 'growth' | 'gain') => {
    const p = { ...weekly, traits: [{ ...tall, summary }] };
    const f = findingOf(grown([4, 8, 12], [3, 6, 12], p), p.traits[0]!);
    if (!f.ok) throw new Error(f.error.tag);
    return f.value;
  };
  it('mean over time is the area over the days: 8 for 4, 8, 12', () => {
    const s = summed('area').analysis.summaries;
    expect(s[0]!.mean).toBeCloseTo(8 + 0.025, 9);
    expect(s[1]!.mean).toBeCloseTo((4.5 * 7 + 9 * 7) / 14 + 0.025, 9);
  });
  it('how much it grew is the last less the first: 8 for 4, 8, 12, whatever the units began with', () => {
    const f = summed('gain');
    expect(f.analysis.summaries.map((s) => s.mean)).toEqual([8, 9]);
    expect(basisText(f)).toMatch(/^How much each grew: .+ less .+\.$/);
  });
  it('growth is per cent a day: twice as much in seven days is ln 2 / 7', () => {
    const p = { ...weekly, traits: [{ ...tall, summary: 'growth' as const }] };
    const state = deriveState(
      p,
      ['A', 'B'].flatMap((t) =>
        spread.flatMap((_, r) => [2, 4, 8].map((v, w) => entry(height(unitId(t, r), v, `w${w}`)))),
      ),
    );
    const f = findingOf(state, p.traits[0]!);
    expect(f.ok && f.value.analysis.summaries[0]!.mean).toBeCloseTo((100 * Math.LN2) / 7, 9);
    expect(f.ok && f.value.trait.unit).toBe('% a day');
  });
  it.each(['area', 'gain'] as const)('%s waits until two rounds are whole', (summary) => {
    const p = { ...weekly, traits: [{ ...tall, summary }] };
    const f = findingOf(grown([4], [3], p, 1), p.traits[0]!);
    expect(f.ok).toBe(false);
  });
});

describe('peeking', () => {
  const many: Plan = {
    ...plan({ treatments: ['Water', 'A'], replicates: 8, traits: [tall] }),
    rounds: weekly.rounds,
  };
  const noise = seededRandom(5);
  // Rounds that have nothing to do with each other: each look is a trial of its own.
  const unrelated = deriveState(
    many,
    many.treatments.flatMap((t) =>
      Array.from({ length: 8 }, (_, r) =>
        [0, 1, 2].map((w) =>
          entry(height(unitId(t.name, r), Number((50 + 5 * noise.normal()).toFixed(1)), `w${w}`)),
        ),
      ).flat(),
    ),
  );
  it('three looks that have nothing in common: about 14 of 100, 5 at the end', () => {
    const found = peeking(many, tall, overTime(unrelated, tall)!)!;
    expect(found.looks).toBe(3);
    expect(found.falseWinner).toBeGreaterThan(0.1);
    expect(found.falseWinner).toBeLessThan(0.19);
    expect(Math.abs(found.atTheEnd - 0.05)).toBeLessThan(4 * Math.sqrt((0.05 * 0.95) / 600));
    expect(sayPeeking({ looks: 3, falseWinner: 0.14, atTheEnd: 0.05 })).toBe(
      'Measured in 3 rounds: whoever stops at the first clear difference crowns a false winner in 14 of 100 trials with nothing in them; at the end alone it is 5.',
    );
  });
  it('nothing is said of one round', () => {
    const one = { ...many, rounds: many.rounds.slice(0, 1) };
    expect(overTime(deriveState(one, []), tall)).toBeNull();
  });
});
