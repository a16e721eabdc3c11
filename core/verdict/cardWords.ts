import { formatFigure, listNames } from '../quantity/format';
import type { Card } from './card';

/** The card in a sentence. @example sayCard(card, nameOf) // 'Duo Lume comes first in 58 of 100 draws.' */
export function sayCard(card: Card, nameOf: (id: string) => string): string {
  const first = card.contenders.filter((c) => c.place === 1);
  if (first.length === 0) return 'Give the headings weights to see who comes first.';
  const names = listNames(first.map((c) => nameOf(c.id)));
  if (first.length > 1) return `${names} are level at ${formatFigure(first[0]!.score!, 1)} points.`;
  const sure = first[0]!.firstOf100;
  if (sure === null)
    return `${names} has most points, ${formatFigure(first[0]!.score!, 1)}; how surely can’t be said.`;
  const judged = sure >= 95 ? '' : sure >= 60 ? '; the others aren’t far' : ': little separates them';
  return `${names} comes first in ${sure} of 100 draws${judged}.`;
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

/** What whoever cares for one heading alone should take. @example 'Who counts value alone takes Water.' */
export const sayAlone = (card: Card, nameOf: (id: string) => string): string[] =>
  card.rows.flatMap(({ heading, cells }) => {
    const points = [...cells].flatMap(([id, c]) => (c.points === null ? [] : [{ id, points: c.points }]));
    if (points.length < 2) return [];
    const best = Math.max(...points.map((p) => p.points));
    const top = points.filter((p) => p.points > best - 1e-9);
    const told =
      top.length === points.length
        ? 'is told nothing here'
        : `takes ${listNames(top.map((p) => nameOf(p.id)))}`;
    return [`Who counts ${heading.name.toLowerCase()} alone ${told}.`];
  });
