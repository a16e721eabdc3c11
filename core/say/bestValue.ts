import { type Money, formatMoney, sayMoney } from '../quantity/money';
import { kindOf } from '../model/traitKinds';
import { resultUnit } from '../plan/divisor';
import { listNames, sentenceCase } from '../quantity/format';
import type { Finding } from '../account/finding';
import { type Held, againstControl, heldOf, outcomeOf, soleControl } from '../account/outcomes';
import type { VerdictLine } from '../verdict/verdict';
import { heldFacts } from './headline';
import { sayReservation } from './sayContrast';
import type { NameOf } from '../model/nameOf';
import { type Fact, type Statement, statement } from './statement';

/** Whether money per unit of this trait means something: it is an amount, and more of it is what one buys the product for. */
export const isYield = ({ trait }: Finding): boolean =>
  trait.direction === 'higher' && ['continuous', 'count'].includes(kindOf(trait).observes);

/** Who gives most for the money, and why; nobody where it isn't earned or can't be told. */
export interface BestValue extends Statement {
  treatmentId: string | null;
}

const nobody = (text: string, facts: readonly Fact[] = []): BestValue => ({
  treatmentId: null,
  ...statement('bestValue', text, facts),
});

/** A contender that was shown to be better than the control, with what a unit of it costs. */
interface Priced {
  held: Held;
  line: VerdictLine;
  money: Money;
}

/**
 * Who gives most for the money among those shown to be better than the control: more for less before more for more; one
 * that another beats at no higher cost is never it. The control where nothing earned its price.
 */
export function bestValue(
  finding: Finding,
  lines: readonly VerdictLine[],
  nameOf: NameOf,
  unitNoun: string,
): BestValue {
  const unit = resultUnit(finding.trait) || finding.trait.name.toLowerCase();
  if (finding.analysis.spread !== 'shown')
    return nobody('Without a spread to go by these figures can’t say what a product is worth.');
  if (kindOf(finding.trait).observes !== 'event' && finding.trait.direction !== 'higher')
    return nobody(`Money per ${unit} means nothing for a trait where more isn’t better.`);
  if (finding.lost.length > 0 && finding.peers)
    return nobody(
      'The control has no figure, so what one more is worth can’t be said; money per result stands in the table.',
    );
  if (finding.peers)
    return nobody(
      'There is no control, so what one more is worth can’t be said; money per result stands in the table.',
      [{ is: 'noControl' }],
    );
  const controlId = soleControl(finding);
  if (controlId === null)
    return nobody('Each stands against its own control: what one more costs is said of each in the table.');
  const control = nameOf(controlId);
  const held = heldOf(finding);
  const { better, open, untested } = againstControl(finding);
  const facts = heldFacts(finding, held);
  if (untested.length > 0)
    return nobody(
      `Can’t be told: ${listNames(untested.map((h) => nameOf(h.id)))} couldn’t be tested against ${control}.`,
      facts,
    );
  if (better.length === 0) {
    // Worth nothing is a finding of its own: it takes intervals without room for a difference that matters.
    if (open.some((h) => h.outcome.verdict !== 'alike'))
      return nobody(
        `Can’t be told: nothing was shown to be better than ${control}, and too little was seen to say that nothing earns its price.`,
        facts,
      );
    return {
      treatmentId: controlId,
      ...statement(
        'bestValue',
        `${control}: nothing did better by what matters, so nothing earned its price.`,
        facts,
      ),
    };
  }
  return amongBetter(finding, lines, better, { controlId, nameOf, unit, unitNoun });
}

/** Whether what it gives more is as much as matters, as a sentence behind; empty where it is. */
function sizeOf(finding: Finding, best: readonly Priced[], nameOf: NameOf): string {
  const text = sayReservation(
    finding,
    best.map((p) => p.held.outcome),
    nameOf,
  );
  return text === '' ? '' : ` ${sentenceCase(text.slice(2))}.`;
}

function amongBetter(
  finding: Finding,
  lines: readonly VerdictLine[],
  better: readonly Held[],
  {
    controlId,
    nameOf,
    unit,
    unitNoun,
  }: { controlId: string; nameOf: NameOf; unit: string; unitNoun: string },
): BestValue {
  const control = nameOf(controlId);
  const facts = heldFacts(finding, better);
  const lineOf = (id: string) => lines.find((l) => l.treatment.id === id)!;
  const base = lineOf(controlId).cost;
  const unpriced = [...better.map((h) => h.id), controlId].filter((id) => !lineOf(id).cost.ok);
  const priced = better.flatMap((h): Priced[] => {
    const line = lineOf(h.id);
    return line.cost.ok ? [{ held: h, line, money: line.cost.value.perUnit }] : [];
  });
  const currencies = new Set(
    [...priced.map((p) => p.money), ...(base.ok ? [base.value.perUnit] : [])]
      .filter((m) => m.minor !== 0)
      .map((m) => m.currency),
  );
  if (unpriced.length > 0 || !base.ok)
    return nobody(`Open until ${listNames(unpriced.map(nameOf))} can be priced.`, facts);
  if (currencies.size > 1) {
    const names = listNames(better.map((h) => nameOf(h.id)));
    return nobody(`Open until ${names} can be priced in the same currency.`, facts);
  }
  // One that another beats at no higher cost is never the best.
  const left = priced.filter(
    (p) =>
      !priced.some((o) => {
        const outcome = outcomeOf(finding, o.held.id, p.held.id);
        return outcome?.verdict === 'better' && outcome.ahead === o.held.id && o.money.minor <= p.money.minor;
      }),
  );
  const each = `a ${unitNoun}`;
  const alone = better.length === 1 ? 'it alone beat' : 'of those that beat';
  const say = (best: readonly Priced[], text: string): BestValue => ({
    treatmentId: best.length === 1 ? best[0]!.held.id : null,
    ...statement('bestValue', `${text}${sizeOf(finding, best, nameOf)}`, [
      ...facts,
      ...(best.length === 1 ? [{ is: 'best' as const, a: best[0]!.held.id }] : []),
      ...best.map((p): Fact => ({ is: 'costs', a: p.held.id, minor: p.money.minor })),
    ]),
  });
  const names = (list: readonly Priced[]) => listNames(list.map((p) => nameOf(p.held.id)));
  const cheapestOf = (list: readonly Priced[]) => {
    const least = Math.min(...list.map((p) => p.money.minor));
    return list.filter((p) => p.money.minor === least);
  };
  const forLess = left.filter((p) => p.money.minor <= base.value.perUnit.minor);
  if (forLess.length > 0) {
    const best = cheapestOf(forLess);
    const money = formatMoney(best[0]!.money);
    const against = formatMoney(base.value.perUnit);
    return say(
      best,
      best[0]!.money.minor < base.value.perUnit.minor
        ? `${names(best)}: more than ${control} for less money, ${money} ${each} against ${against}.`
        : `${names(best)}: more than ${control} for the same money, ${money} ${each}.`,
    );
  }
  if (!isYield(finding) || left.some((p) => p.line.perExtra === null)) {
    // What a step of a score, or being ahead by ranks alone, is worth nobody can say.
    const best = cheapestOf(left);
    return say(
      best,
      `${names(best)}: ${better.length === 1 ? alone : 'the cheapest of those that beat'} ${control}, ${formatMoney(best[0]!.money)} ${each}.`,
    );
  }
  const best = left.reduce((a, b) =>
    b.line.perExtra!.perExtra.minor < a.line.perExtra!.perExtra.minor ? b : a,
  );
  const { perExtra, best: low, worst: high } = best.line.perExtra!;
  const range = low && high ? ` (${sayMoney(low)} to ${sayMoney(high)})` : '';
  return say(
    [best],
    `${nameOf(best.held.id)}: ${sayMoney(perExtra)}${range} for each ${unit} more than ${control}.`,
  );
}
