import { decimalsOfFinding } from '../say/sayContrast';
import { describeCostError } from '../cost/treatmentCost';
import { type Plan, roleNames } from '../model/plan';
import { resultUnit } from '../plan/divisor';
import { planIndex } from '../plan/planIndex';
import { wordsOfPlan } from '../account/thing';
import { amountWords, listNames, plural } from '../quantity/format';
import type { Finding } from '../account/finding';
import type { Verdict, VerdictLine } from '../verdict/verdict';
import { measureLabel } from '../say/words';
import type { NameOf } from '../model/nameOf';
import { type Block, type Cell, type TableBlock, column, numbers, text } from './block';

/** What one extra gram cost; without an upper end the gain itself isn't shown and no price is put on it. */
function perExtraCell(line: VerdictLine): Cell {
  if (line.perExtra === null) return text(' ');
  return line.perExtra.worst === null
    ? text('gain not shown')
    : { type: 'money', money: line.perExtra.perExtra };
}

function costCell(line: VerdictLine): Cell {
  return line.cost.ok
    ? { type: 'money', money: line.cost.value.perUnit }
    : { type: 'fault', text: describeCostError(line.cost.error) };
}

function apartCell({ rank }: VerdictLine, { lines }: Verdict, finding: Finding, nameOf: NameOf): Cell {
  if (rank === null) return text('no figures');
  if (rank.rank === null)
    return text(
      rank.untestedAgainst.length === 0 || finding.analysis.spread !== 'shown'
        ? 'nothing was tested'
        : `not tested against ${listNames(rank.untestedAgainst.map((id) => nameOf(id)))}`,
    );
  return text(
    rank.notSeparatedFrom.length === 0
      ? `told apart from all${lines.some((l) => l.absent !== null) ? ' that have figures' : ''}`
      : listNames(rank.notSeparatedFrom.map((id) => nameOf(id))),
  );
}

/** Who came where and what it cost: the same table in the Verdict and in the review. */
export function verdictTable(verdict: Verdict, finding: Finding, plan: Plan, nameOf: NameOf): TableBlock {
  const per = resultUnit(finding.trait) || 'unit';
  return {
    type: 'table',
    columns: [
      column('place'),
      column('contender'),
      numbers(measureLabel(finding)),
      numbers(`products per ${plan.unitNoun}`),
      numbers(`per ${per}`),
      numbers(`per extra ${per}`),
      column('can’t be told from'),
    ],
    rows: verdict.lines.map((l) => ({
      strong: l.rank?.rank === 1,
      cells: [
        { type: 'rank', rank: l.rank?.rank ?? null, tied: l.rank?.tied ?? false },
        {
          type: 'treatment',
          name: nameOf(l.treatment.id),
          order: planIndex(plan).treatmentOrder(l.treatment.id),
          beneath: roleNames[l.role],
        },
        l.mean === null && l.absent !== null
          ? text(l.absent)
          : { type: 'figure', value: l.mean, decimals: decimalsOfFinding(finding) },
        costCell(l),
        l.perResult === null ? text(' ') : { type: 'money', money: l.perResult },
        perExtraCell(l),
        apartCell(l, verdict, finding, nameOf),
      ],
    })),
  };
}

/** Where the money goes: dose, doses per pack, pack and price, for each product. */
export function costTable(verdict: Verdict, plan: Plan): TableBlock | null {
  const products = verdict.lines.flatMap((l) => (l.cost.ok ? l.cost.value.products : []));
  if (products.length === 0) return null;
  const { one } = wordsOfPlan(plan);
  return {
    type: 'table',
    columns: [
      column('price taken from'),
      column('pack'),
      numbers(`a ${one}`),
      numbers(`${plural(one)} in a pack`),
    ],
    rows: products.map((p) => ({
      cells: [
        text(`${p.product.name}${p.product.obtained === 'bought' ? '' : `, ${p.product.obtained}`}`),
        text(amountWords(p.pack.size, p.pack.unit)),
        { type: 'money', money: p.perDose },
        { type: 'figure', value: p.wholeDoses, decimals: 0 },
      ],
    })),
  };
}

/** The verdict in the review. */
export const verdictBlocks = (verdict: Verdict, finding: Finding, plan: Plan, nameOf: NameOf): Block[] => [
  { type: 'heading', level: 2, text: 'Verdict' },
  verdictTable(verdict, finding, plan, nameOf),
  { type: 'paragraph', text: `Best value: ${verdict.bestValue.text}` },
  ...(verdict.costBasis === null
    ? []
    : [{ type: 'paragraph' as const, tone: 'small' as const, text: verdict.costBasis.text }]),
];
