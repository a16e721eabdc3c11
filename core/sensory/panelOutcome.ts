import type { TreatmentId } from '../model/ids';
import { asksScores } from '../model/panel';
import { friedman, leastRankDifference, medianOf } from '../stats/ranks';
import { type Proportion, wilson } from '../stats/proportion';
import { type DiscriminationTest, discriminationTest } from './discriminationTest';
import { type PositionEffect, positionEffect } from './positionEffect';
import { type HeldSession, isDone } from './sessions';
import { mean } from '../stats/moments';

/** A contender in one scored thing or ranking. */
interface ScoredTreatment {
  id: TreatmentId;
  /** every score or place, in the order of the answers */
  values: number[];
  /** servings scored */
  n: number;
  mean: number;
  median: number;
  /** over the tasters who scored all; null with fewer than two of them. Rank 1 is best */
  rankSum: number | null;
}

export interface ScoredThing {
  name: string;
  moreIsBetter: boolean | null;
  treatments: ScoredTreatment[];
  /** tasters who scored every contender: those the test rests on */
  complete: number;
  friedman: { chiSquare: number | null; df: number; p: number | null } | null;
  /** least significant difference of rank sums (ISO 8587) */
  leastDifference: number | null;
  /** pairs that can be told apart: better first */
  apart: { better: TreatmentId; worse: TreatmentId }[];
  position: PositionEffect | null;
  repeats: Repeats | null;
}

/** How far a taster's two samples of one contender lie apart, against samples of different ones. */
interface Repeats {
  /** mean difference between samples of one contender, in steps of the scale */
  same: number;
  /** and between samples of different ones */
  different: number;
  /** pairs of the same that were compared */
  pairs: number;
}

interface WordCount {
  word: string;
  treatments: ({ id: TreatmentId } & Proportion)[];
}

/** Choices held against guessing. */
export interface Choice extends DiscriminationTest {
  /** of pairs: whom `right` counts answers for */
  forFirst: TreatmentId | null;
  tasters: number;
  /** some of several tasters chose more than once: their answers aren't independent of each other */
  repeated: boolean;
}

/** All that a session says, once it is known what was in the cups. */
export interface PanelOutcome {
  tasters: number;
  /** tasters who answered anything */
  answering: number;
  /** tasters who answered all they were given */
  finished: number;
  /** contenders in the order of the plan */
  treatments: TreatmentId[];
  /** triangle and duo-trio: right answers; pairs: answers for the first contender */
  choice: Choice | null;
  scored: ScoredThing[];
  words: WordCount[];
  guesses: {
    same: { right: number; of: number } | null;
    which: { right: number; of: number; chance: number } | null;
  };
}

const ALPHA = 0.05;
/**
 * What a revealed session shows: the exact binomial for choices, Friedman with least significant rank differences for
 * scores and rankings of tasters who had all contenders, words counted by contender, repeated samples, position,
 * guesses.
 *
 * @param order of the treatments, as the plan has them
 * @returns null before the reveal
 */
export function panelOutcome(held: HeldSession, order: readonly TreatmentId[]): PanelOutcome | null {
  if (!held.revealed) return null;
  const { session } = held;
  const { key } = held.revealed;
  const sampleOf = new Map(key.cups.map((c) => [c.code, c.sample]));
  const treatmentOf = (code: string): TreatmentId | undefined =>
    key.samples[sampleOf.get(code) ?? -1]?.treatmentId;
  const there = new Set(key.samples.map((s) => s.treatmentId));
  const treatments = [...order.filter((t) => there.has(t)), ...[...there].filter((t) => !order.includes(t))];
  const answers = held.answers.map((a) => a.body);
  const servings = answers.flatMap((a) => {
    const treatment = a.code === null ? undefined : treatmentOf(a.code);
    const cups = session.tasters[a.taster]!.sets[a.set]!.cups;
    return a.code === null || !treatment
      ? []
      : [{ ...a, code: a.code, treatment, place: cups.indexOf(a.code), places: cups.length }];
  });
  const scoredValues = asksScores(session.kind)
    ? session.attributes.map((attribute, i) => ({
        ...attribute,
        values: servings.flatMap((s) => {
          const value = s.scores[i];
          return value == null ? [] : [{ ...s, sample: sampleOf.get(s.code)!, value }];
        }),
      }))
    : session.kind === 'ranking'
      ? [
          {
            name: session.asked || 'Ranking',
            moreIsBetter: false,
            values: answers.flatMap((a) => {
              const cups = session.tasters[a.taster]!.sets[a.set]!.cups;
              return a.ranks.map((r) => ({
                taster: a.taster,
                treatment: treatmentOf(r.code)!,
                sample: sampleOf.get(r.code)!,
                place: cups.indexOf(r.code),
                places: cups.length,
                value: r.rank,
              }));
            }),
          },
        ]
      : [];
  return {
    tasters: session.tasters.length,
    answering: new Set(answers.map((a) => a.taster)).size,
    finished: session.tasters.filter((_, i) => isDone(held, i)).length,
    treatments,
    choice: choiceOf(held, treatments, sampleOf, treatmentOf),
    scored: scoredValues.map(({ name, moreIsBetter, values }) =>
      scoredThing(name, moreIsBetter, values, treatments),
    ),
    words: wordsOf(servings, treatments, session.words),
    guesses: guessesOf(held, treatmentOf),
  };
}

function choiceOf(
  { session, answers }: HeldSession,
  treatments: readonly TreatmentId[],
  sampleOf: ReadonlyMap<string, number>,
  treatmentOf: (code: string) => TreatmentId | undefined,
): PanelOutcome['choice'] {
  const chosen = answers.flatMap(({ body }) =>
    body.chosen === null ? [] : [{ ...body, chosen: body.chosen }],
  );
  if (chosen.length === 0) return null;
  const cupsOf = (a: { taster: number; set: number }) => session.tasters[a.taster]!.sets[a.set]!.cups;
  const tasters = new Set(chosen.map((a) => a.taster)).size;
  const by = { tasters, repeated: tasters > 1 && tasters < chosen.length };
  switch (session.kind) {
    case 'triangle': {
      const right = chosen.filter(
        (a) => cupsOf(a).filter((c) => sampleOf.get(c) === sampleOf.get(a.chosen)).length === 1,
      ).length;
      return { ...discriminationTest('triangle', right, chosen.length, ALPHA), forFirst: null, ...by };
    }
    case 'duo-trio': {
      const right = chosen.filter((a) => sampleOf.get(cupsOf(a)[0]!) === sampleOf.get(a.chosen)).length;
      return { ...discriminationTest('duo-trio', right, chosen.length, ALPHA), forFirst: null, ...by };
    }
    case 'pairs': {
      const first = treatments[0]!;
      const isFirst = (a: (typeof chosen)[number]) => treatmentOf(a.chosen) === first;
      if (!by.repeated) {
        const right = chosen.filter(isFirst).length;
        return { ...discriminationTest('pairs', right, chosen.length, ALPHA), forFirst: first, ...by };
      }
      // Whoever chose several times counts once, for whom they mostly chose; who is undecided counts for neither.
      const leaning = [...new Set(chosen.map((a) => a.taster))].flatMap((taster) => {
        const own = chosen.filter((a) => a.taster === taster);
        const twice = 2 * own.filter(isFirst).length - own.length;
        return twice === 0 ? [] : [twice > 0];
      });
      if (leaning.length === 0) return { p: 1, critical: null, right: 0, of: 0, forFirst: first, ...by };
      const right = leaning.filter(Boolean).length;
      return { ...discriminationTest('pairs', right, leaning.length, ALPHA), forFirst: first, ...by };
    }
    default:
      return null;
  }
}

interface Value {
  taster: number;
  treatment: TreatmentId;
  sample: number;
  place: number;
  places: number;
  value: number;
}

function scoredThing(
  name: string,
  moreIsBetter: boolean | null,
  values: readonly Value[],
  treatments: readonly TreatmentId[],
): ScoredThing {
  const of = (t: TreatmentId, taster?: number) =>
    values
      .filter((v) => v.treatment === t && (taster === undefined || v.taster === taster))
      .map((v) => v.value);
  // Tasters who scored every contender; several samples of one are averaged before anything is ranked.
  const tasters = [...new Set(values.map((v) => v.taster))].filter((taster) =>
    treatments.every((t) => of(t, taster).length > 0),
  );
  const rows = tasters.map((taster) =>
    treatments.map((t) => (moreIsBetter === false ? 1 : -1) * mean(of(t, taster))),
  );
  const tested = tasters.length >= 2 && treatments.length >= 2 ? friedman(rows) : null;
  const leastDifference =
    tested && tested.p !== null ? leastRankDifference(tasters.length, treatments.length, ALPHA) : null;
  const apart: ScoredThing['apart'] = [];
  if (tested && tested.p !== null && tested.p <= ALPHA && leastDifference !== null) {
    treatments.forEach((a, i) =>
      treatments.forEach((b, j) => {
        if (tested.rankSums[j]! - tested.rankSums[i]! >= leastDifference) apart.push({ better: a, worse: b });
      }),
    );
  }
  return {
    name,
    moreIsBetter,
    treatments: treatments.map((id, i) => {
      const own = of(id);
      return {
        id,
        values: own,
        n: own.length,
        mean: own.length === 0 ? NaN : mean(own),
        median: own.length === 0 ? NaN : medianOf(own),
        rankSum: tested ? tested.rankSums[i]! : null,
      };
    }),
    complete: tasters.length,
    friedman: tested && { chiSquare: tested.statistic, df: tested.df, p: tested.p },
    leastDifference,
    apart,
    position: positionEffect(values),
    repeats: repeatsOf(values),
  };
}

/** Differences between a taster's samples of one contender, and of different ones; null without repeated samples. */
function repeatsOf(values: readonly Value[]): Repeats | null {
  const same: number[] = [];
  const different: number[] = [];
  values.forEach((a, i) =>
    values.slice(i + 1).forEach((b) => {
      if (a.taster !== b.taster || a.sample === b.sample) return;
      (a.treatment === b.treatment ? same : different).push(Math.abs(a.value - b.value));
    }),
  );
  if (same.length === 0 || different.length === 0) return null;
  return { same: mean(same), different: mean(different), pairs: same.length };
}

/** How often a word was ticked of a contender, of all its servings that were answered. */
function wordsOf(
  servings: readonly { treatment: TreatmentId; words: readonly string[] }[],
  treatments: readonly TreatmentId[],
  listed: readonly string[],
): WordCount[] {
  const wordsUsed = new Set(servings.flatMap((s) => s.words));
  const words = [
    ...listed.filter((w) => wordsUsed.has(w)),
    ...[...wordsUsed].filter((w) => !listed.includes(w)).sort(),
  ];
  return words.map((word) => ({
    word,
    treatments: treatments.flatMap((id) => {
      const own = servings.filter((s) => s.treatment === id);
      if (own.length === 0) return [];
      return [{ id, ...wilson(own.filter((s) => s.words.includes(word)).length, own.length, ALPHA) }];
    }),
  }));
}

function guessesOf(
  { guesses, session }: HeldSession,
  treatmentOf: (code: string) => TreatmentId | undefined,
): PanelOutcome['guesses'] {
  // Where no two cups were of one contender nobody could be right.
  const couldBe = (taster: number) => {
    const cups = (session.tasters[taster]?.sets ?? []).flatMap((s) => s.cups.map(treatmentOf));
    return new Set(cups).size < cups.length;
  };
  const same = guesses.flatMap(({ body }) => (body.same && couldBe(body.taster) ? [body.same] : []));
  const which = guesses.flatMap(({ body }) => body.which);
  const contenders = new Set(session.tasters.flatMap((t) => t.sets.flatMap((s) => s.cups.map(treatmentOf))))
    .size;
  return {
    same:
      same.length === 0
        ? null
        : { right: same.filter(([a, b]) => treatmentOf(a) === treatmentOf(b)).length, of: same.length },
    which:
      which.length === 0
        ? null
        : {
            right: which.filter((w) => treatmentOf(w.code) === w.treatmentId).length,
            of: which.length,
            chance: 1 / contenders,
          },
  };
}
