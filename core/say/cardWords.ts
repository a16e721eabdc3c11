import { formatFigure, listNames } from '../quantity/format';
import type { Card } from '../scorecard/card';
import { SURELY_FIRST } from './statement';

/** The card in a sentence. @example sayCard(card, nameOf) // 'Duo Lume leads in 58 of 100, given the uncertainty: little separates it from the others.' */
export function sayCard(card: Card, nameOf: (id: string) => string): string {
  const first = card.contenders.filter((c) => c.place === 1);
  if (first.length === 0) return 'Give the headings weights to see who comes first.';
  const counting = card.rows.filter((r) => r.heading.weight > 0);
  const alone = counting.length === 1 ? counting[0]!.leaders : null;
  if (alone) return sayLeaders(alone, nameOf);
  const names = listNames(first.map((c) => nameOf(c.id)));
  if (first.length > 1) return `${names} are level at ${formatFigure(first[0]!.score!, 1)} points.`;
  const sure = first[0]!.firstOf100;
  if (sure === null)
    return `${names} has most points, ${formatFigure(first[0]!.score!, 1)}; how surely can’t be said.`;
  // Draws are no test: somebody is first without a reservation only where a heading's own finding says so too.
  const told = counting.some(
    (r) => r.leaders === null || (r.leaders.length === 1 && r.leaders[0] === first[0]!.id),
  );
  const judged =
    sure >= SURELY_FIRST && told
      ? ''
      : sure >= 60
        ? '; the others aren’t far'
        : ': little separates it from the others';
  return `${names} leads in ${sure} of 100, given the uncertainty${judged}.`;
}

/** Who comes first under one heading, by its own finding. */
function sayLeaders(leaders: readonly string[], nameOf: (id: string) => string): string {
  if (leaders.length === 0) return 'Not all could be tested: who comes first can’t be told.';
  return leaders.length === 1
    ? `${nameOf(leaders[0]!)} comes first, by its own finding.`
    : `${listNames(leaders.map(nameOf))}: ${leaders.length === 2 ? 'neither is told to be better than the other' : 'none of them is told to be better than another'}.`;
}

/** What would turn the card, one sentence a heading. @example 'Yield above 52 %: Sarmenta.' */
export const sayFlips = (card: Card, nameOf: (id: string) => string): string[] =>
  card.flips.flatMap((f) =>
    f.weightThen === null || f.winner === null
      ? []
      : [
          `${f.heading} ${f.weightThen > f.weightNow ? 'above' : 'below'} ${Math.round(100 * f.weightThen)} %: ${nameOf(f.winner)}.`,
        ],
  );

/** First in fewer of 100 draws, a contender isn't among those a heading leaves open (common practice). */
const LEFT_OPEN = 5;

/**
 * What whoever cares for one heading alone should take: never one of two that nothing separates.
 * @example 'Who counts value alone takes Water.'
 */
export const sayAlone = (card: Card, nameOf: (id: string) => string): string[] =>
  card.rows.flatMap(({ heading, cells, firsts, leaders }) => {
    const points = [...cells].flatMap(([id, c]) => (c.points === null ? [] : [{ id, points: c.points }]));
    if (points.length < 2) return [];
    const best = Math.max(...points.map((p) => p.points));
    const top = points.filter((p) => p.points > best - 1e-9);
    const who = `Who counts ${heading.name.toLowerCase()} alone`;
    if (leaders) {
      if (leaders.length === 0 || leaders.length === points.length) return [`${who} is told nothing here.`];
      return [
        leaders.length === 1
          ? `${who} takes ${nameOf(leaders[0]!)}.`
          : `${who} is left with ${listNames(leaders.map(nameOf))}: nothing separates them.`,
      ];
    }
    if (top.length === points.length) return [`${who} is told nothing here.`];
    const open = points.filter((p) => (firsts?.get(p.id) ?? 0) >= LEFT_OPEN);
    // Level by figures that have no spread is level; first in draws is open between all that are.
    return open.length > top.length
      ? [`${who} is left with ${listNames(open.map((p) => nameOf(p.id)))}: little separates them.`]
      : [`${who} takes ${listNames(top.map((p) => nameOf(p.id)))}.`];
  });
