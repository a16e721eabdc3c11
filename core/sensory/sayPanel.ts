import type { PanelSession } from '../model/panel';
import { countOf, formatFigure, listNames, sayP } from '../quantity/format';
import type { PanelOutcome, ScoredThing } from './panelOutcome';

/** What a session shows in a sentence, and what is said beside it. */
export interface PanelWords {
  headline: string;
  /** further sentences, in the order of their weight */
  notes: string[];
  /** how it was worked out */
  smallPrint: string[];
}

type NameOf = (treatmentId: string) => string;

const ALPHA = 0.05;
/** From so much of the difference between contenders on, repeats disagree as much as contenders do (practice). */
const AS_MUCH = 0.8;

const people = (n: number) => (n === 1 ? 'one taster' : `${n} tasters`);
const answers = (n: number) => (n === 1 ? 'answer' : 'answers');

/**
 * Says what a session shows, and what it doesn't: too few answers are said to be too few, and one taster crowns nobody.
 *
 * @param nameOf contenders as they are called on the screen
 * @example sayPanel(session, outcome, nameOf).headline // '7 of 9 answers were right: …'
 */
export function sayPanel(session: PanelSession, outcome: PanelOutcome, nameOf: NameOf): PanelWords {
  const notes: string[] = [];
  const smallPrint: string[] = [];
  const headline = outcome.choice
    ? sayChoice(session, outcome, nameOf, smallPrint)
    : outcome.scored.length > 0
      ? sayScored(outcome.scored[0]!, nameOf, smallPrint)
      : 'Nothing was answered yet.';
  for (const thing of outcome.scored.slice(1)) notes.push(sayScored(thing, nameOf, smallPrint));
  for (const thing of outcome.scored) notes.push(...sayRepeats(thing), ...sayPosition(thing));
  notes.push(...sayGuesses(outcome));
  if (outcome.finished < outcome.tasters) {
    const stopped = outcome.answering - outcome.finished;
    notes.push(
      `${outcome.finished} of ${people(outcome.tasters)} answered all they were given${stopped > 0 ? `, ${stopped} more a part` : ''}.`,
    );
  }
  if (outcome.words.length > 0) {
    smallPrint.push(
      'Words: how often ticked of all servings of a contender, with Wilson’s interval (1927); servings of one taster aren’t independent, so the intervals are rather too narrow.',
    );
  }
  return { headline, notes, smallPrint: [...new Set(smallPrint)] };
}

function sayChoice(
  { kind }: PanelSession,
  { choice, treatments }: PanelOutcome,
  nameOf: NameOf,
  smallPrint: string[],
): string {
  const { right, of, p, critical, forFirst, tasters, repeated } = choice!;
  const [a, b] = [nameOf(treatments[0] ?? ''), nameOf(treatments[1] ?? '')];
  // One person's answers show what that person tells apart.
  const alone = tasters === 1 && of > 1 ? ' They are one taster’s.' : '';
  if (kind === 'pairs' && forFirst !== null) {
    smallPrint.push(
      `Paired comparison (ISO 5495), exact binomial, two-sided: ${sayP(p)}.${repeated ? ' Whoever chose several times counts once, for whom they mostly chose.' : ''}`,
    );
    const answers = (n: number) =>
      (repeated ? countOf(n, 'taster') : countOf(n, 'answer')).replace(/^\d+ /, '');
    const [more, less, n] = right * 2 >= of ? [a, b, right] : [b, a, of - right];
    if (p <= ALPHA)
      return `${n} of ${of} ${answers(of)} were for ${more} against ${less}: more than luck.${alone}`;
    const even =
      right * 2 === of
        ? `As many answers were for ${a} as for ${b}`
        : `${n} of ${of} ${answers(of)} were for ${more}`;
    return critical === null
      ? `${even}: too few to tell, even all alike could be luck.`
      : `${even}: too close to call, ${critical} of ${of} would be needed.`;
  }
  smallPrint.push(
    `${kind === 'triangle' ? 'Triangle test (ISO 4120), chance one in three' : 'Duo-trio test (ISO 10399), chance one in two'}; exact binomial, one-sided: ${sayP(p)}.`,
  );
  const sentence = `${right} of ${of} ${answers(of)} ${of === 1 ? 'was' : 'were'} right`;
  if (p <= ALPHA)
    return repeated
      ? `${sentence}: among these ${people(tasters)} somebody can tell ${a} and ${b} apart. They answered more than once each, so of other tasters nothing is shown.`
      : `${sentence}: ${a} and ${b} can be told apart.${alone}`;
  return critical === null
    ? `${sentence}: too few to tell, even all right could be luck.`
    : `${sentence}: no more than guessing may give, ${critical} would be needed. That doesn’t show that ${a} and ${b} are alike.`;
}

function sayScored(thing: ScoredThing, nameOf: NameOf, smallPrint: string[]): string {
  const { name, complete, friedman, apart, treatments, leastDifference } = thing;
  const scored = treatments.filter((t) => t.n > 0);
  if (scored.length < 2) return `${name}: only one contender was scored.`;
  if (complete === 0) return `${name}: nobody scored every contender yet, so nothing is compared.`;
  if (complete === 1 || friedman === null) {
    return `${name}: one taster alone. Numbers and words, no winner.`;
  }
  if (friedman.p === null) return `${name}: every taster gave all contenders the same.`;
  smallPrint.push(
    `${name}: Friedman over ${people(complete)} who had every contender, χ² = ${formatFigure(friedman.chiSquare!, 2)} with ${friedman.df} df, ${sayP(friedman.p)}; least significant difference of rank sums ${formatFigure(leastDifference!, 1)} (ISO 8587). Several samples of one contender are averaged first.`,
  );
  if (apart.length === 0) {
    return friedman.p <= ALPHA
      ? `${name}: contenders differ, but no pair far enough to name one.`
      : `${name}: too close to call by ${people(complete)}.`;
  }
  // Who is behind nobody, and who they are ahead of.
  const behind = new Set(apart.map((x) => x.worse));
  const first = scored.filter((t) => !behind.has(t.id) && apart.some((x) => x.better === t.id));
  const verb = thing.moreIsBetter === null ? 'more than' : 'ahead of';
  const sentences = first.map((t) => {
    const ahead = apart.filter((x) => x.better === t.id).map((x) => nameOf(x.worse));
    return `${nameOf(t.id)} ${verb} ${listNames(ahead)}`;
  });
  return `${name}: ${sentences.join('; ')}.`;
}

function sayRepeats({ name, repeats }: ScoredThing): string[] {
  if (!repeats) return [];
  const [same, different] = [formatFigure(repeats.same, 1), formatFigure(repeats.different, 1)];
  return repeats.same >= AS_MUCH * repeats.different
    ? [
        `${name}: two samples of the same contender were scored ${same} apart, samples of different ones ${different}: tasters disagree with themselves as much as contenders differ, so read the figures lightly.`,
      ]
    : [
        `${name}: two samples of the same contender were scored ${same} apart, samples of different ones ${different}.`,
      ];
}

function sayPosition({ name, position }: ScoredThing): string[] {
  if (!position) return [];
  const by = formatFigure(Math.abs(position.difference), 1);
  return position.p <= ALPHA
    ? [
        `${name}: what was served first or last was scored ${by} ${position.difference > 0 ? 'higher' : 'lower'} than what came between (${sayP(position.p)}): place in the order mattered.`,
      ]
    : [`${name}: no sign that the place in the order mattered (${sayP(position.p)}).`];
}

function sayGuesses({ guesses: { same, which } }: PanelOutcome): string[] {
  return [
    ...(same
      ? [
          `Asked which two are the same, ${same.right} of ${same.of} ${same.of === 1 ? 'guess was' : 'guesses were'} right.`,
        ]
      : []),
    ...(which
      ? [
          `Asked which is which, ${which.right} of ${which.of} ${which.of === 1 ? 'cup was' : 'cups were'} named right; by luck alone about ${formatFigure(which.of * which.chance, 1)} would be.`,
        ]
      : []),
  ];
}
