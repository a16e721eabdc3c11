/**
 * What a sentence claims, one thing each, in terms that can be held against the log: an oracle in the tests works each
 * out from raw data by another way.
 * - better: told apart, `a` the better
 * - notTold: tested, and not told apart
 * - untested: nothing could be tested between the two
 * - alike: any difference is shown to be smaller than the one that matters
 * - leads: was tested against all on its ground, and none is told to be better
 * - figure, noFigure: a contender has a figure, or none; `units`: so many stand behind it
 * - control, noControl: others are held against it; nobody is a control
 * - given: how a contender's cost was reckoned, and of how many batches
 * - costs: products for one unit, minor units of the trial's currency
 * - best: gives the most for its money of all that are priced
 * - round: so many of a round's units are answered
 * - firstOf100: first in so many of 100 draws of a card
 */
export type Fact =
  | { is: 'better' | 'notTold' | 'untested'; a: string; b: string }
  | { is: 'alike'; a: string; b: string; within: number }
  | { is: 'leads'; a: string }
  | { is: 'figure' | 'control' | 'best'; a: string }
  | { is: 'noFigure'; a: string }
  | { is: 'units'; a: string; n: number }
  | { is: 'noControl' }
  | { is: 'given'; a: string; by: 'log' | 'plan'; batches: number }
  | { is: 'costs'; a: string; minor: number }
  | { is: 'round'; round: string; state: 'open' | 'past' | 'toCome'; answered: number; asked: number }
  | { is: 'firstOf100'; a: string; of100: number };

/** Where a statement stands, and so what it may say. */
type StatementKind =
  | 'headline'
  | 'note'
  | 'bestValue'
  | 'award'
  | 'cannotTell'
  | 'costBasis'
  | 'basis'
  | 'card'
  | 'retest';

/** A sentence as a value: what it says, of whom, and what must be true for it. */
export interface Statement {
  kind: StatementKind;
  /** contenders it speaks of, by their ids */
  about: readonly string[];
  facts: readonly Fact[];
  text: string;
}

/** A statement about whomever its facts are about. @example statement('headline', 'A beat Water.', [better('A', 'Water')]) */
export const statement = (kind: StatementKind, text: string, facts: readonly Fact[] = []): Statement => ({
  kind,
  about: [...new Set(facts.flatMap((f) => ('a' in f ? ('b' in f ? [f.a, f.b] : [f.a]) : [])))],
  facts,
  text,
});

/** Several as one, said one after the other. */
export const together = (kind: StatementKind, said: readonly Statement[]): Statement =>
  statement(
    kind,
    said
      .map((s) => s.text)
      .filter(Boolean)
      .join(' '),
    said.flatMap((s) => s.facts),
  );

/** First in so many of 100 draws is first in nearly all: two sides of 2.5 %. */
export const SURELY_FIRST = 98;

const pair = (f: { a: string; b: string }) => [f.a, f.b].sort().join('\n');

/** Why two facts can't both be true; null where they can. */
function clash(f: Fact, g: Fact): string | null {
  if ('b' in f && 'b' in g && pair(f) === pair(g)) {
    if (f.is === 'better' && g.is === 'better') return f.a === g.a ? null : 'each is better than the other';
    const apart = (x: Fact) => x.is === 'better';
    const tested = (x: Fact) => x.is !== 'untested';
    if (apart(f) !== apart(g)) return 'told apart and not';
    if (tested(f) !== tested(g)) return 'tested and untested';
    return null;
  }
  if (f.is === 'better' && g.is === 'leads' && f.b === g.a) return 'leads, and another is better';
  if (f.is === 'noFigure' && 'a' in g) {
    const about = 'b' in g ? [g.a, g.b] : [g.a];
    const speaks =
      g.is === 'better' || g.is === 'notTold' || g.is === 'alike' || g.is === 'leads' || g.is === 'figure';
    if (speaks && about.includes(f.a)) return 'has no figure, and is judged';
  }
  if (f.is === 'noControl' && g.is === 'control') return 'nobody is a control, and one is';
  if (f.is === 'given' && g.is === 'given' && f.by !== g.by) return 'costs by the log beside costs by plan';
  if (f.is === 'costs' && g.is === 'costs' && f.a === g.a && Math.abs(f.minor - g.minor) > 1e-6)
    return 'two costs of one thing';
  // A lead in nearly all draws is one that the finding tells apart; and the other way round.
  if (f.is === 'firstOf100' && f.of100 >= SURELY_FIRST && g.is === 'notTold' && g.a === f.a)
    return 'first in nearly all draws, and not told from another';
  return null;
}

/** Pairs of statements that contradict each other, in words; empty where all can be true together. */
export function contradictions(said: readonly Statement[]): string[] {
  const facts = said.flatMap((s) => s.facts.map((f) => ({ f, s })));
  const out = new Set<string>();
  facts.forEach(({ f, s }, i) => {
    for (const { f: g, s: t } of facts.slice(i + 1)) {
      const why = clash(f, g) ?? clash(g, f);
      if (why) out.add(`${why}: “${s.text}” beside “${t.text}”`);
    }
  });
  return [...out];
}
