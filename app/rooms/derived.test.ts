import { describe, expect, it } from 'vitest';
import { farFromRound } from '~core/log/plausible';
import { rowsOf } from '~core/analysis/rows';
import { samplesIn } from '~core/log/response';
import { deriveState } from '~core/log/state';
import {
  entry,
  harvest,
  height,
  heightTrait,
  plan,
  trait,
  unitId,
  weighing,
  use as productUse,
} from '~core/testing/trial';
import { tesseraLetter, tesseraStyle } from '../ui/tesserae';
import { logLines } from './log/logLines';
import { planSummary } from './planSummary';
import { firstOpenSample } from '~core/log/asked';
import { rehearsedOf } from '~core/design/rehearsalInput';
import { rooms, roomSteps } from './registry';
import { nextStep, walkOf } from '../walk/stops';

const sealed = entry({ kind: 'seal', planSha256: 'a'.repeat(64) });

describe('the walk through a round', () => {
  const p = plan({ replicates: 2, traits: [trait(), heightTrait({ samplesPerUnit: 2 })] });
  const height2 = p.traits[1]!;
  const first = p.rounds[0]!;
  const two = (u: ReturnType<typeof unitId>) => [1, 2].map((s) => entry(height(u, 5, 'r1', s)));
  it('goes row by row, every other one backwards, past the dead', () => {
    const dead = entry({ kind: 'death', unitId: unitId('A', 1), sample: null, cause: '' });
    expect(walkOf(deriveState(p, [dead]), height2).map((u) => u.id)).toEqual(['Water-0', 'A-0', 'Water-1']);
  });
  it('finds the next place without a value, sample by sample, and ends', () => {
    const state = deriveState(p, [...two(unitId('Water', 0)), entry(height(unitId('A', 0), 5, 'r1', 1))]);
    expect(firstOpenSample(state, unitId('A', 0), height2, first.id)).toBe(2);
    expect(nextStep(state, height2, first, null)).toEqual({ unitId: 'A-0', sample: 2 });
    expect(nextStep(state, height2, first, unitId('A', 1))).toEqual({ unitId: 'A-1', sample: 1 });
    const all = deriveState(
      p,
      p.units.flatMap((u) => two(u.id)),
    );
    expect(nextStep(all, height2, first, null)).toBeNull();
  });
});

describe('the list of rooms', () => {
  it('has the rooms in the order of the work', () => {
    expect(rooms.map((r) => r.id)).toEqual([
      'question',
      'contenders',
      'layout',
      'fairness',
      'rehearsal',
      'mixing',
      'rounds',
      'weigh-in',
      'panel',
      'findings',
      'verdict',
      'review',
    ]);
  });
  const today = '2026-03-11';
  const steps = (log: Parameters<typeof deriveState>[1], p = plan(), reviewed = false) =>
    Object.fromEntries(
      roomSteps({ state: deriveState(p, log), today, reviewWritten: reviewed, blind: false, open: [] }).map(
        (s) => [s.room, s],
      ),
    );
  it('shows what a plan lacks', () => {
    const s = steps([], { ...plan(), prediction: '', units: [] });
    expect(s.question).toMatchObject({
      progress: 'half',
      hint: 'Missing: a prediction, written before the start',
    });
    expect(s.contenders).toMatchObject({ progress: 'full', howFar: '2' });
    expect(s.layout).toMatchObject({ progress: 'half', howFar: '' });
    expect(s.findings!.progress).toBe('none');
  });
  it('follows the work', () => {
    const heights = plan().units.map((u) => entry(height(u.id, 5)));
    const s = steps([sealed, ...heights, entry(weighing(unitId('A', 0), 50))]);
    expect(s.layout).toMatchObject({ progress: 'full', howFar: 'sealed' });
    expect(s.rounds).toMatchObject({ progress: 'half', howFar: '0/6' });
    expect(s['weigh-in']).toMatchObject({ progress: 'half', howFar: '1/6' });
    expect(s.findings!.progress).toBe('half');
  });
  it('Mixing counts what is due today, else says the next day', () => {
    // day 10 of the trial
    const fed = (over: object) => {
      const p = plan();
      const products = [
        productUse({ solutionLPerUnit: 1, everyDays: 5, fromDay: 5, timesPerUnit: 4, ...over }),
      ];
      return { ...p, treatments: p.treatments.map((t) => (t.name === 'A' ? { ...t, products } : t)) };
    };
    const mixed = (treatmentId: string) => {
      const amounts = treatmentId === 'A' ? [{ productId: 'feed', amount: 30, unit: 'mL' }] : [];
      return entry({ kind: 'mix', treatmentId, batch: treatmentId, volumeL: 3, amounts, day: 10 });
    };
    expect(steps([], fed({})).mixing).toMatchObject({
      howFar: '0/2',
      progress: 'half',
      hint: '2 to mix today',
    });
    expect(steps([mixed('A')], fed({})).mixing).toMatchObject({ howFar: '1/2' });
    expect(steps([mixed('A'), mixed('Water')], fed({})).mixing).toMatchObject({ howFar: 'd 15' });
    expect(steps([], fed({ fromDay: 20 })).mixing).toMatchObject({ howFar: 'd 20', progress: 'none' });
    expect(steps([], fed({ fromDay: 1, timesPerUnit: 1 })).mixing).toMatchObject({
      progress: 'full',
      howFar: '',
    });
    expect(steps([], fed({ everyDays: null, fromDay: null })).mixing!.hint).toMatch(/when you like/);
  });
  it('is done when everything is', () => {
    const log = [
      sealed,
      ...plan().units.flatMap((u) => [entry(height(u.id, 5)), entry(height(u.id, 6, 'r2'))]),
      ...harvest({ Water: [1, 2, 3], A: [4, 5, 6] }),
    ];
    // Nothing was mixed, tasted or kept of a rehearsal in it: none of these is called done.
    const undone = ['rehearsal', 'mixing', 'panel'];
    expect(Object.values(steps(log, plan(), true)).map((s) => s.progress)).toEqual(
      rooms.map((r) => (undone.includes(r.id) ? 'none' : 'full')),
    );
    expect(planSummary(deriveState(plan(), log), today)).toBe('read the verdict');
  });
  it('a rehearsal is done when one is kept, and half done when the plan changed after it', () => {
    const kept = entry({
      ...{ kind: 'rehearsal', of: rehearsedOf(plan()), runs: 5000, seed: 1, cvPercent: 7 },
      ...{ hasPrediction: true, asksAsGood: false, right: 0.62, falseWinner: 0.05, sees: null },
    });
    expect(steps([kept]).rehearsal).toMatchObject({
      progress: 'full',
      hint: expect.stringMatching(/62 of 100/),
    });
    const [first, ...others] = plan().treatments;
    const changed = { ...plan(), treatments: [first!, { ...others[0]!, expectedPercent: 40 }] };
    expect(steps([kept], changed).rehearsal).toMatchObject({
      progress: 'half',
      hint: expect.stringMatching(/has changed/),
    });
    expect(steps([], plan()).rehearsal!.progress).toBe('none');
  });
  it('says what comes next', () => {
    expect(planSummary(deriveState({ ...plan(), prediction: '' }, []), today)).toMatch(
      /^missing: a prediction/,
    );
    expect(planSummary(deriveState(plan(), []), today)).toBe('ready to be sealed');
    expect(planSummary(deriveState(plan(), [sealed]), '2026-03-03')).toBe('First, tomorrow');
  });
});

describe('the log in words', () => {
  it('newest first; a corrected line is struck, a taken-back one named', () => {
    const log = [
      entry(height(unitId('A', 0), 5), 'h', 1),
      entry(
        { kind: 'correction', supersedes: 'h', replacement: height(unitId('A', 0), 6), reason: 'slip' },
        'c',
        2,
      ),
      entry({ kind: 'note', unitId: null, text: 'Rain.' }, 'n', 3),
      entry({ kind: 'correction', supersedes: 'n', replacement: null, reason: 'taken back' }, 'x', 4),
    ];
    const lines = logLines(plan(), deriveState(plan(), log));
    expect(lines.map((l) => [l.id, l.what, l.standing, l.canTakeBack])).toEqual([
      ['x', 'Correction', true, false],
      ['n', 'Remark', false, false],
      ['c', 'Correction', true, true],
      ['h', 'Measured', false, false],
    ]);
    expect(lines[0]!.text).toBe('taken back: remark Rain.');
    expect(lines[2]!.text).toMatch(/TST-02 height 6\.0 cm/);
  });
  it('has words for every kind', () => {
    const log = [
      sealed,
      entry(weighing(unitId('A', 0), 50)),
      entry({
        kind: 'reading',
        quantity: 'tare',
        value: 11,
        subject: 'Bowl',
        unitId: null,
        treatmentId: null,
        instrument: '',
      }),
      entry({ kind: 'move', moves: [{ unitId: unitId('A', 0), to: plan().units[0]!.position }], reason: '' }),
      entry({ kind: 'deviation', unitIds: [unitId('A', 0)], text: 'late' }),
      entry({ kind: 'death', unitId: unitId('A', 0), sample: null, cause: 'mould' }),
      entry({ kind: 'exclusion', unitId: unitId('A', 0), traitId: null, reason: 'late' }),
      entry({ kind: 'mix', treatmentId: 'A', batch: 'B1', volumeL: 2, amounts: [] }),
      entry({ kind: 'feed', unitIds: [unitId('A', 0)], batch: 'B1', volumeLPerUnit: 0.5 }),
      entry({ kind: 'photo', unitId: null, file: 'a.jpg', sha256: 'b'.repeat(64), caption: '' }),
      entry({ kind: 'taskDone', task: 'Water' }),
      entry({ kind: 'reveal', reason: 'scored' }),
    ];
    const lines = logLines(plan(), deriveState(plan(), log));
    expect(lines).toHaveLength(log.length);
    for (const l of lines) {
      expect(l.what).toBeTruthy();
      expect(l.text.trim()).not.toBe('');
      expect(l.text).not.toMatch(/undefined|NaN|\?/);
    }
  });
});

describe('tesserae', () => {
  it('colour and pattern together are unique for 64 treatments', () => {
    const keys = Array.from({ length: 64 }, (_, i) => `${tesseraStyle(i).colour} ${tesseraStyle(i).pattern}`);
    expect(new Set(keys).size).toBe(64);
  });
  it('letters go on after Z', () => {
    expect([0, 25, 26, 27, 51, 52].map(tesseraLetter)).toEqual(['A', 'Z', 'AA', 'AB', 'AZ', 'BA']);
  });
});

describe('what a trait is taken of', () => {
  it('a support whose plant died is still walked to for its looks, not for its height', () => {
    const looks = trait({ id: 'looks' as never, name: 'Looks', kind: 'score', evenDead: true });
    const p = plan({ replicates: 1, traits: [heightTrait(), looks] });
    const state = deriveState(p, [
      entry({ kind: 'death', unitId: unitId('A', 0), sample: null, cause: 'frost' }),
      entry({ ...height(unitId('A', 0), 4, 'r2'), traitId: 'looks' }),
    ]);
    expect(walkOf(state, p.traits[0]!).map((u) => u.id)).toEqual(['Water-0']);
    expect(walkOf(state, looks).map((u) => u.id)).toEqual(['Water-0', 'A-0']);
    expect(firstOpenSample(state, unitId('A', 0), p.traits[0]!, p.rounds[0]!.id)).toBeUndefined();
    expect(firstOpenSample(state, unitId('A', 0), looks, p.rounds[0]!.id)).toBeNull();
    expect(rowsOf(state, looks).rows.map((r) => r.unit)).toEqual(['A-0']);
    expect(rowsOf(state, p.traits[0]!).leftOut.map((u) => u.why)).toContain('died');
  });
  it('strength is asked once of a machine with five crops, a height of each', () => {
    const strength = heightTrait({ id: 'ec' as never, name: 'EC (strength)', wholeUnit: true });
    const p = {
      ...plan({ replicates: 1, traits: [heightTrait(), strength] }),
      cropsWithin: ['a', 'b', 'c', 'd', 'e'],
    };
    expect(samplesIn(p, p.traits[0]!)).toBe(5);
    expect(samplesIn(p, strength)).toBe(1);
    const state = deriveState(p, [entry({ ...height(unitId('A', 0), 1.6, 'r1'), traitId: 'ec' })]);
    expect(firstOpenSample(state, unitId('A', 0), strength, p.rounds[0]!.id)).toBeUndefined();
    expect(rowsOf(state, strength).rows).toHaveLength(1);
  });
});

describe('a value for another day', () => {
  const p = plan();
  const round = p.rounds.find((r) => r.day === 10)!;
  it.each([
    ['2026-03-01', /planned for day 10, 10 days from now/],
    ['2026-03-10', null],
    ['2026-03-11', null],
    ['2026-03-18', null],
    ['2026-03-30', /planned for day 10, 19 days ago: was this measured then/],
  ])('on %s', (today, said) => {
    const text = farFromRound(p, round, today);
    if (said === null) expect(text).toBeNull();
    else expect(text).toMatch(said);
  });
});
