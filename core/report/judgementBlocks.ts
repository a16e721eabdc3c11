import { formatFigure } from '../quantity/format';
import type { Award } from '../verdict/awards';
import { type Card, sayAlone, sayCard, sayFlips } from '../verdict/card';
import { CLAIM_LINE, type JudgedClaim, claimVerdictNames } from '../verdict/claims';
import { type Block, type TableBlock, column, numbers, text } from './block';

/** A scorecard as a table: points under each heading, weights, totals with how certain the first place is. */
export function cardTable(
  card: Card,
  contenders: readonly { id: string; name: string; order: number }[],
): TableBlock {
  const weights = card.rows.reduce((s, r) => s + r.heading.weight, 0) || 1;
  const points = (value: number | null, said: string) =>
    value === null ? text(said) : text(formatFigure(value, 1));
  return {
    type: 'table',
    columns: [
      column('contender'),
      ...card.rows.map((r) =>
        numbers(`${r.heading.name}, ${Math.round((100 * r.heading.weight) / weights)} %`),
      ),
      numbers('all together'),
      numbers('first in 100'),
    ],
    rows: contenders.map((c) => {
      const total = card.contenders.find((x) => x.id === c.id);
      return {
        strong: total?.place === 1,
        cells: [
          { type: 'treatment', name: c.name, order: c.order },
          ...card.rows.map((r) => {
            const cell = r.cells.get(c.id)!;
            return points(cell.points, cell.said);
          }),
          points(total?.score ?? null, '–'),
          text(total?.firstOf100 == null ? '–' : String(total.firstOf100)),
        ],
      };
    }),
  };
}

/** The scorecard in the review; nothing where none was made. */
export function cardBlocks(
  card: Card | null,
  contenders: readonly { id: string; name: string; order: number }[],
): Block[] {
  if (!card || card.rows.length === 0) return [];
  const nameOf = (id: string) => contenders.find((c) => c.id === id)?.name ?? id;
  return [
    { type: 'heading', level: 2, text: 'Scorecard' },
    { type: 'paragraph', text: sayCard(card, nameOf) },
    cardTable(card, contenders),
    {
      type: 'list',
      items: [
        ...card.rows.map((r) => `${r.heading.name}: ${r.rule}.`),
        ...sayFlips(card, nameOf).map((f) => `Turned by ${f.charAt(0).toLowerCase()}${f.slice(1)}`),
        ...sayAlone(card, nameOf),
        ...card.open,
      ],
    },
  ];
}

/** Awards, each with the figures behind it. */
export const awardBlocks = (given: readonly Award[]): Block[] =>
  given.map((a) => ({
    type: 'note',
    tone: a.id === 'worse' || a.id === 'disappointment' ? 'bad' : a.id === 'noBetter' ? 'plain' : 'good',
    title: `${a.title}.`,
    text: a.text,
  }));

/** Claims of labels as a table. */
export function claimsTable(claims: readonly JudgedClaim[]): TableBlock {
  return {
    type: 'table',
    columns: [column('product'), column('the label says'), column('here'), column('by these figures')],
    rows: claims.map((c) => ({
      cells: [
        text(c.product.name),
        text(`“${c.claim.text}”`),
        text(claimVerdictNames[c.verdict]),
        text(c.text),
      ],
    })),
  };
}

/** Claims in the review; nothing where no product has any. */
export const claimBlocks = (claims: readonly JudgedClaim[]): Block[] =>
  claims.length === 0
    ? []
    : [
        { type: 'heading', level: 2, text: 'What the labels claim' },
        claimsTable(claims),
        { type: 'paragraph', tone: 'small', text: CLAIM_LINE },
      ];
