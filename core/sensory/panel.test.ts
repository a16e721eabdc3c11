import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Entry } from '../log/entry';
import { deriveState } from '../log/state';
import type { PanelId, TreatmentId, UnitId } from '../model/ids';
import { type PanelKind, usualLiking } from '../model/panel';
import { entry, plan } from '../testing/trial';
import { panelOutcome } from './panelOutcome';
import { type PlannedSession, type SessionDraft, commitmentOf, keyHolds, planSession } from './planSession';
import { positionEffect } from './positionEffect';
import { sayPanel } from './sayPanel';
import { faultOfAnswer, isDone, sessionsOf } from './sessions';

const SALT = 'a salt nobody guesses';
const p = plan({ replicates: 2 });
const sample = (name: string) => ({
  treatmentId: name as TreatmentId,
  unitIds: [`${name}-0` as UnitId],
  photo: null,
});
const draft = (over: Partial<SessionDraft> = {}): SessionDraft => ({
  ...{ id: 'tasting' as PanelId, name: 'Tasting', kind: 'liking', presented: 'cups', senses: ['taste'] },
  ...{ asked: '', attributes: [usualLiking], words: ['crisp', 'bitter'], guess: 'none', cautions: [] },
  ...{ tasters: ['L', 'M', 'N'], samples: ['Water', 'A', 'B'].map(sample), repeats: 1 },
  ...over,
});
const planned = (over: Partial<SessionDraft> = {}, seed = 1): PlannedSession => {
  const made = planSession(draft(over), seed, SALT);
  if (!made.ok) throw new Error(JSON.stringify(made.error));
  return made.value;
};
const nothing = { scores: [], ranks: [], chosen: null, words: [], remark: '' };
const treatmentOf = ({ key }: PlannedSession, code: string) =>
  key.samples[key.cups.find((c) => c.code === code)!.sample]!.treatmentId as string;

/** The log of a session in which a taster's score of a contender is this; revealed unless it isn't. */
function scored(
  made: PlannedSession,
  score: (treatment: string, taster: number, place: number) => number | null,
  reveal = true,
): Entry[] {
  const { session, key } = made;
  return [
    entry({ kind: 'panel', session }),
    ...session.tasters.flatMap((t, taster) =>
      t.sets[0]!.cups.flatMap((code, place) => {
        const value = score(treatmentOf(made, code), taster, place);
        return value === null
          ? []
          : [
              entry({
                kind: 'panelAnswer',
                sessionId: session.id,
                taster,
                set: 0,
                ...nothing,
                code,
                scores: [value],
              }),
            ];
      }),
    ),
    ...(reveal ? [entry({ kind: 'panelReveal', key })] : []),
  ];
}
const order = ['Water', 'A', 'B'] as TreatmentId[];
const name = (id: string) => id;
function said(log: Entry[]) {
  const held = sessionsOf(deriveState(p, log))[0]!;
  const outcome = panelOutcome(held, order);
  if (!outcome) throw new Error('not revealed');
  return { outcome, ...sayPanel(held.session, outcome, name) };
}

describe('planning a session', () => {
  it('what tasters may know names no contender and no unit; the key is bound to it', () => {
    const { session, key } = planned();
    const text = JSON.stringify(session);
    for (const word of ['Water', 'A-0', 'unitIds', 'treatmentId', SALT]) expect(text).not.toContain(word);
    expect(keyHolds(session, key)).toBe(true);
    const other = { ...key, cups: key.cups.map((c) => ({ ...c, sample: (c.sample + 1) % 3 })) };
    expect(keyHolds(session, other)).toBe(false);
    expect(commitmentOf({ ...key, salt: `${SALT}!` })).not.toBe(commitmentOf(key));
  });
  it.each([
    ['pairs', 2, 2],
    ['triangle', 6, 3],
    ['duo-trio', 4, 3],
  ] as const)('%s goes through its orders equally often, and every code is another', (kind, orders, cups) => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 12 }),
        fc.integer({ min: 1, max: 6 }),
        fc.nat(99),
        (tasters, repeats, seed) => {
          const names = Array.from({ length: tasters }, (_, i) => `T${i}`);
          const made = planned(
            {
              kind,
              tasters: names,
              repeats,
              asked: 'Which?',
              attributes: [],
              samples: ['A', 'B'].map(sample),
            },
            seed,
          );
          const sets = made.session.tasters.flatMap((t) => t.sets);
          expect(sets).toHaveLength(tasters * repeats);
          const counts = new Map<string, number>();
          for (const s of sets) {
            expect(s.cups).toHaveLength(cups);
            const seen = s.cups.map((c) => treatmentOf(made, c)).join('');
            counts.set(seen, (counts.get(seen) ?? 0) + 1);
            expect(new Set(seen).size).toBe(2);
          }
          const often = [...counts.values(), ...Array.from({ length: orders - counts.size }, () => 0)];
          expect(Math.max(...often) - Math.min(...often)).toBeLessThanOrEqual(1);
          const codes = sets.flatMap((s) => s.cups);
          expect(new Set(codes).size).toBe(codes.length);
        },
      ),
      { numRuns: 30 },
    );
  });
  it('says at which field it can’t be held', () => {
    const faults = (over: Partial<SessionDraft>) => {
      const made = planSession(draft(over), 1, SALT);
      return made.ok ? [] : Object.keys(made.error);
    };
    expect(faults({})).toEqual([]);
    expect(faults({ name: ' ' })).toEqual(['name']);
    expect(faults({ tasters: [] })).toEqual(['tasters']);
    expect(faults({ tasters: ['L', 'L'] })).toEqual(['tasters']);
    expect(faults({ tasters: ['Ada', 'Bo', 'ada'] })).toEqual(['tasters']);
    expect(faults({ samples: [sample('A')] })).toEqual(['samples']);
    expect(faults({ kind: 'triangle' })).toEqual(['samples']);
    expect(faults({ kind: 'pairs', samples: ['A', 'B'].map(sample) })).toEqual(['asked']);
    expect(faults({ attributes: [] })).toEqual(['attributes']);
    expect(faults({ presented: 'photos' })).toEqual(['samples']);
    expect(faults({ kind: 'triangle', samples: ['A', 'B'].map(sample), repeats: 0 })).toEqual(['repeats']);
    expect(
      faults({
        tasters: Array.from({ length: 60 }, (_, i) => `T${i}`),
        samples: Array.from({ length: 16 }, (_, i) => sample(`S${i}`)),
      }),
    ).toEqual(['tasters']);
    expect(faults({ senses: [], words: ['mild', 'Mild'] })).toEqual(['senses', 'words']);
  });
});

describe('what tasters say', () => {
  const made = planned();
  const { session } = made;
  const [first] = session.tasters[0]!.sets[0]!.cups;
  const others = session.tasters[1]!.sets[0]!.cups[0]!;
  const answer = (over: object) => ({ taster: 0, set: 0, ...nothing, code: first!, scores: [3], ...over });
  it('is held against what was served and asked', () => {
    expect(faultOfAnswer(session, answer({}))).toBeNull();
    expect(faultOfAnswer(session, answer({ code: others }))).toMatch(/isn’t this taster’s/);
    expect(faultOfAnswer(session, answer({ scores: [9] }))).toMatch(/from 1 to 5/);
    expect(faultOfAnswer(session, answer({ code: null }))).toMatch(/which cup/);
    const duo = planned({ kind: 'duo-trio', attributes: [], samples: ['A', 'B'].map(sample) }).session;
    const cups = duo.tasters[0]!.sets[0]!.cups;
    const chose = (chosen: string | null) => ({ ...answer({}), code: null, scores: [], chosen });
    expect(faultOfAnswer(duo, chose(cups[0]!))).toMatch(/compare with/);
    expect(faultOfAnswer(duo, chose(cups[1]!))).toBeNull();
    expect(faultOfAnswer(duo, chose(null))).toMatch(/Choose/);
    const ranking = planned({ kind: 'ranking', attributes: [] }).session;
    const [a, b, c] = ranking.tasters[0]!.sets[0]!.cups as [string, string, string];
    const ranks = (...codes: string[]) => ({
      ...answer({}),
      code: null,
      scores: [],
      ranks: codes.map((code, i) => ({ code, rank: i + 1 })),
    });
    expect(faultOfAnswer(ranking, ranks(a, b, c))).toBeNull();
    expect(faultOfAnswer(ranking, ranks(a, b))).toMatch(/one place/);
    expect(faultOfAnswer(ranking, ranks(a, b, b))).toMatch(/one place/);
  });
  it('the newest of a cup stands; a taster is done when every cup is scored; nothing is told before the reveal', () => {
    const log = scored(made, (t) => (t === 'A' ? 5 : 2), false);
    const held = sessionsOf(deriveState(p, log))[0]!;
    expect(held.session.tasters.map((_, t) => isDone(held, t))).toEqual([true, true, true]);
    expect(panelOutcome(held, order)).toBeNull();
    const again = entry({ kind: 'panelAnswer', sessionId: session.id, ...answer({ scores: [1] }) }, 'again');
    const corrected = sessionsOf(deriveState(p, [...log, again]))[0]!;
    expect(corrected.answers).toHaveLength(9);
    expect(corrected.answers.find((a) => a.body.code === first)!.body.scores).toEqual([1]);
    const half = sessionsOf(deriveState(p, log.slice(0, -1)))[0]!;
    expect(isDone(half, 2)).toBe(false);
  });
  it('a key that isn’t the one it began with is told', () => {
    const log = scored(made, () => 3, false);
    const other = planned({}, 2).key;
    const state = deriveState(p, [...log, entry({ kind: 'panelReveal', key: other })]);
    expect(sessionsOf(state)[0]!.revealed?.holds).toBe(false);
    expect(
      sessionsOf(
        deriveState(
          p,
          scored(made, () => 3),
        ),
      )[0]!.revealed?.holds,
    ).toBe(true);
  });
});

describe('what a scored session shows', () => {
  const names = (n: number) => Array.from({ length: n }, (_, i) => `T${i}`);
  // Friedman by hand: ranks 1, 2, 3 alike for six tasters: χ² = 12·(3·12² …)/…; all agree, so χ² = J(P − 1) = 12.
  it('all tasters of one mind: the contender ahead is named, with whom it is ahead of', () => {
    const made = planned({ tasters: names(6) });
    const { outcome, headline } = said(scored(made, (t) => ({ Water: 1, A: 5, B: 3 })[t]!));
    expect(outcome.scored[0]!.friedman!.chiSquare).toBeCloseTo(12, 10);
    expect(outcome.scored[0]!.treatments.map((t) => t.rankSum)).toEqual([18, 6, 12]);
    // z·√(J·P·(P + 1)/6) = 1.96·√12 = 6.79: only the ends are apart.
    expect(outcome.scored[0]!.leastDifference).toBeCloseTo(6.79, 2);
    expect(headline).toBe('Liking: A ahead of Water.');
  });
  it('tasters who contradict each other: too close to call', () => {
    const made = planned({ tasters: names(3) });
    const turn = (t: string, taster: number) => 1 + ((['Water', 'A', 'B'].indexOf(t) + taster) % 3);
    expect(said(scored(made, turn)).headline).toBe('Liking: too close to call by 3 tasters.');
    expect(said(scored(made, () => 4)).headline).toBe('Liking: every taster gave all contenders the same.');
  });
  it('one taster crowns nobody, however clear it seems', () => {
    const made = planned({ tasters: ['L'] });
    const { headline, outcome } = said(scored(made, (t) => (t === 'A' ? 5 : 1)));
    expect(headline).toBe('Liking: one taster alone. Numbers and words, no winner.');
    expect(outcome.scored[0]!.apart).toEqual([]);
    expect(outcome.scored[0]!.treatments.map((t) => t.mean)).toEqual([1, 5, 1]);
  });
  it('a taster who left a contender out isn’t in the test, and that only some answered is said', () => {
    const made = planned({ tasters: names(3) });
    const log = scored(made, (t, taster) =>
      taster === 2 ? null : taster === 1 && t === 'B' ? null : t === 'A' ? 5 : 1,
    );
    const { outcome, headline, notes } = said(log);
    expect(outcome.scored[0]!.complete).toBe(1);
    expect(headline).toMatch(/one taster alone/);
    expect(notes).toContain('1 of 3 tasters answered all they were given, 1 more a part.');
  });
  it('less can be better, and more of something can be neither', () => {
    const bitter = { ...usualLiking, name: 'Bitterness', moreIsBetter: false };
    const one = planned({ kind: 'attributes', tasters: names(6), attributes: [bitter] });
    const score = (t: string) => ({ Water: 1, A: 5, B: 3 })[t]!;
    expect(said(scored(one, score)).headline).toBe('Bitterness: Water ahead of A.');
    const plain = planned({
      kind: 'attributes',
      tasters: names(6),
      attributes: [{ ...bitter, moreIsBetter: null }],
    });
    expect(said(scored(plain, score)).headline).toBe('Bitterness: A more than Water.');
  });
  const twice = { samples: ['Water', 'A', 'A', 'Water'].map(sample) };
  it('two samples of one contender that disagree as much as different ones are told, others not', () => {
    const made = planned({ ...twice, tasters: names(4) });
    const random = (_: string, taster: number, place: number) => 1 + ((taster * 3 + place * 2) % 5);
    expect(said(scored(made, random)).notes.join(' ')).toMatch(/disagree with themselves as much/);
    const steady = said(scored(made, (t) => (t === 'A' ? 5 : 2)));
    expect(steady.notes.join(' ')).toMatch(
      /same contender were scored 0\.0 apart, samples of different ones 3\.0\./,
    );
    expect(steady.notes.join(' ')).not.toMatch(/disagree/);
  });
  it('a place that mattered is told; one that didn’t isn’t said to', () => {
    const made = planned({ ...twice, tasters: names(8) });
    const byPlace = (_: string, __: number, place: number) => (place === 0 || place === 3 ? 2 : 4);
    expect(said(scored(made, byPlace)).notes.join(' ')).toMatch(
      /first or last was scored 2\.0 lower .*mattered\./,
    );
    expect(said(scored(made, (t) => (t === 'A' ? 5 : 2))).notes.join(' ')).toMatch(/no sign that the place/);
    expect(positionEffect([{ taster: 0, sample: 0, place: 0, places: 2, value: 1 }])).toBeNull();
  });
  it('a place isn’t spoken of where too few scored to see anything: three of three cups each', () => {
    const rows = (tasters: number) =>
      Array.from({ length: tasters }, (_, taster) =>
        [0, 1, 2].map((place) => ({
          ...{ taster, sample: (place + taster) % 3, place, places: 3 },
          value: place === 1 ? 5 : 1,
        })),
      ).flat();
    // 3 ways each: 27 of three tasters, 81 of four.
    expect(positionEffect(rows(3))).toBeNull();
    expect(positionEffect(rows(4))!.p).toBeLessThanOrEqual(0.05);
    expect(said(scored(planned({ tasters: ['L'] }), () => 3)).notes.join(' ')).not.toMatch(/place/);
  });
  it('a good sample served last isn’t taken for a good place', () => {
    const rows = [0, 1, 2, 3].flatMap((taster) =>
      [0, 1, 2].map((place) => ({ taster, sample: place, place, places: 3, value: place === 2 ? 5 : 1 })),
    );
    expect(positionEffect(rows)!.difference).toBeCloseTo(0, 12);
  });
});

describe('what choices show', () => {
  const two = ['A', 'B'].map(sample);
  const chosen = (kind: PanelKind, right: number, of: number) => {
    const made = planned({
      kind,
      attributes: [],
      asked: 'Which do you like better?',
      samples: two,
      tasters: ['L'],
      repeats: of,
    });
    const { session, key } = made;
    return said([
      entry({ kind: 'panel', session }),
      ...session.tasters[0]!.sets.map(({ cups }, set) => {
        const is = cups.map((c) => treatmentOf(made, c));
        const good =
          kind === 'pairs'
            ? is.indexOf('A')
            : kind === 'triangle'
              ? is.findIndex((t) => is.filter((x) => x === t).length === 1)
              : is.lastIndexOf(is[0]!);
        const bad = kind === 'duo-trio' ? 3 - good : (good + 1) % cups.length;
        return entry({
          kind: 'panelAnswer',
          sessionId: session.id,
          taster: 0,
          set,
          ...nothing,
          code: null,
          chosen: cups[set < right ? good : bad]!,
        });
      }),
      entry({ kind: 'panelReveal', key }),
    ]).headline;
  };
  it.each([
    ['triangle', 5, 6, '5 of 6 answers were right: A and B can be told apart. They are one taster’s.'],
    [
      'triangle',
      4,
      6,
      '4 of 6 answers were right: no more than guessing may give, 5 would be needed. That doesn’t show that A and B are alike.',
    ],
    ['triangle', 2, 2, '2 of 2 answers were right: too few to tell, even all right could be luck.'],
    ['duo-trio', 9, 10, '9 of 10 answers were right: A and B can be told apart. They are one taster’s.'],
    [
      'duo-trio',
      8,
      10,
      '8 of 10 answers were right: no more than guessing may give, 9 would be needed. That doesn’t show that A and B are alike.',
    ],
    ['pairs', 9, 10, '9 of 10 answers were for A against B: more than luck. They are one taster’s.'],
    ['pairs', 1, 10, '9 of 10 answers were for B against A: more than luck. They are one taster’s.'],
    ['pairs', 7, 10, '7 of 10 answers were for A: too close to call, 9 of 10 would be needed.'],
    ['pairs', 5, 10, 'As many answers were for A as for B: too close to call, 9 of 10 would be needed.'],
    ['pairs', 4, 4, '4 of 4 answers were for A: too few to tell, even all alike could be luck.'],
  ] as const)('%s %i of %i', (kind, right, of, sentence) => expect(chosen(kind, right, of)).toBe(sentence));
});

it('a ranking: 1 is best; rank sums as in ISO 8587', () => {
  const tasters = ['L', 'M', 'N', 'O', 'P', 'Q', 'R'];
  const made = planned({ kind: 'ranking', attributes: [], asked: 'From best to worst', tasters });
  const rank: Record<string, number> = { Water: 3, A: 1, B: 2 };
  const log: Entry[] = [
    entry({ kind: 'panel', session: made.session }),
    ...made.session.tasters.map((t, taster) =>
      entry({
        ...{ kind: 'panelAnswer', sessionId: made.session.id, taster, set: 0, ...nothing, code: null },
        ranks: t.sets[0]!.cups.map((code) => ({ code, rank: rank[treatmentOf(made, code)]! })),
      }),
    ),
    entry({ kind: 'panelReveal', key: made.key }),
  ];
  const { headline, outcome } = said(log);
  expect(outcome.scored[0]!.treatments.map((t) => t.rankSum)).toEqual([21, 7, 14]);
  expect(headline).toBe('From best to worst: A ahead of Water.');
});

it('words are counted by contender, guesses scored against luck', () => {
  const made = planned({ tasters: ['L', 'M'], guess: 'which', samples: ['A', 'A', 'B'].map(sample) });
  const { session, key } = made;
  const log: Entry[] = [
    entry({ kind: 'panel', session }),
    ...session.tasters.flatMap((t, taster) =>
      t.sets[0]!.cups.map((code) => {
        const isA = treatmentOf(made, code) === 'A';
        const answer = {
          kind: 'panelAnswer',
          sessionId: session.id,
          taster,
          set: 0,
          ...nothing,
          code,
        } as const;
        return entry({ ...answer, scores: [3], words: isA ? ['crisp'] : taster === 0 ? ['woody'] : [] });
      }),
    ),
    ...session.tasters.map((t, taster) => {
      const cups = t.sets[0]!.cups;
      const ofA = cups.filter((c) => treatmentOf(made, c) === 'A');
      const same = (taster === 0 ? ofA : [ofA[0]!, cups.find((c) => !ofA.includes(c))!]) as [string, string];
      const which = cups.map((code) => ({ code, treatmentId: 'A' as TreatmentId }));
      return entry({ kind: 'panelGuess', sessionId: session.id, taster, same, which });
    }),
    entry({ kind: 'panelReveal', key }),
  ];
  const { outcome, notes } = said(log);
  expect(outcome.words.map((w) => [w.word, ...w.treatments.map((t) => `${t.id} ${t.k}/${t.n}`)])).toEqual([
    ['crisp', 'A 4/4', 'B 0/2'],
    ['woody', 'A 0/4', 'B 1/2'],
  ]);
  expect(notes).toContain('Asked which two are the same, 1 of 2 guesses were right.');
  expect(notes).toContain(
    'Asked which is which, 4 of 6 cups were named right; by luck alone about 3.0 would be.',
  );
});
