import type { Plan } from '../model/plan';
import { resultUnit } from '../plan/divisor';
import { planIndex } from '../plan/planIndex';
import { formatFigure } from '../quantity/format';
import { isYield } from '../say/bestValue';
import type { Costs } from '../say/costWords';
import type { Finding } from '../account/finding';
import { extraCosts } from '../verdict/extraCosts';
import type { Verdict } from '../verdict/verdict';
import type { Award } from '../say/awards';
import type { Card } from '../scorecard/card';
import { sayAlone, sayCard, sayFlips } from '../say/cardWords';
import { CLAIM_LINE, type JudgedClaim, claimVerdictNames } from '../verdict/claims';
import { type Block, type Cell, type TableBlock, column, numbers, text } from './block';

/** A scorecard as a table: points under each heading, weights, totals with how certain the first place is. */
function cardTable(
  card: Card,
  contenders: readonly { id: string; name: string; order: number }[],
): TableBlock {
  const points = (value: number | null, said: string) =>
    value === null ? text(said) : text(formatFigure(value, 1));
  return {
    type: 'table',
    columns: [
      column('contender'),
      ...card.rows.map((r) => numbers(`${r.heading.name}, ${r.sharePercent} %`)),
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
function claimsTable(claims: readonly JudgedClaim[]): TableBlock {
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

/** All that a unit took, line by line, with what each extra gram cost where a gain was shown. */
export function fullCostTable(
  costs: Costs,
  verdict: Verdict,
  finding: Finding,
  plan: Plan,
  nameOf: (id: string) => string,
): TableBlock {
  const names = [...new Set([...costs.values()].flatMap((c) => c.lines.map((l) => l.name)))];
  const unit = resultUnit(finding.trait) || 'step';
  const { currency } = plan;
  // What a step of a score is worth nobody can say.
  const amounts = isYield(finding);
  const lasting = [...costs.values()].some((c) => c.outlay.minor > 0);
  const extra = extraCosts(costs, verdict, finding, plan);
  return {
    type: 'table',
    columns: [
      column(`a ${plan.unitNoun} of`),
      ...names.map(numbers),
      numbers('all together'),
      ...(lasting ? [numbers('laid out first')] : []),
      ...(amounts ? [numbers(`an extra ${unit}`)] : []),
    ],
    rows: verdict.lines.flatMap((l) => {
      const c = costs.get(l.treatment.id);
      if (!c) return [];
      const money = (minor: number): Cell => ({ type: 'money', money: { minor, currency } });
      const extraOver = extra.find((x) => x.id === l.treatment.id);
      return [
        {
          cells: [
            {
              type: 'treatment',
              name: nameOf(l.treatment.id),
              order: planIndex(plan).treatmentOrder(l.treatment.id),
            },
            ...names.map((n): Cell => {
              const line = c.lines.find((x) => x.name === n);
              return line ? money(line.minor) : text(c.unknown.includes(n) ? 'not known' : '–');
            }),
            money(c.perUnit.minor),
            ...(lasting ? [c.outlay.minor > 0 ? money(c.outlay.minor) : text('–')] : []),
            ...(amounts
              ? [extraOver ? money(extraOver.each) : text(l.against === null ? '–' : 'gain not shown')]
              : []),
          ],
        },
      ];
    }),
  };
}

/** What was counted, in the review; nothing where only products are. */
export function fullCostBlocks(
  costs: Costs | null,
  said: readonly string[],
  table: () => TableBlock,
): Block[] {
  if (costs === null) return [];
  return [
    { type: 'heading', level: 2, text: 'All that it took' },
    table(),
    ...(said.length > 0 ? [{ type: 'list' as const, items: [...said] }] : []),
  ];
}
