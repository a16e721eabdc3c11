import type { Paid } from '../account/paid';
import { listNames } from '../quantity/format';
import type { NameOf } from '../model/nameOf';
import { type Fact, type Statement, statement } from './statement';

const days = (n: number) => `${n} ${n === 1 ? 'day' : 'days'}`;

/**
 * Whether costs are of what was given, by the log, or of what was planned, for all alike.
 *
 * @returns null where nothing is given
 * @example costBasis(paid, nameOf)?.text // 'Products as given, by the log: A 3 batches.'
 */
export function costBasis({ basis, lines, notLogged, batches }: Paid, nameOf: NameOf): Statement | null {
  const dosed = [...lines.values()].filter((l) => l.treatment.products.length > 0);
  if (dosed.length === 0) return null;
  const facts = dosed.map((l): Fact => ({
    is: 'given',
    a: l.treatment.id,
    by: basis,
    batches: batches.get(l.treatment.id) ?? 0,
  }));
  if (basis === 'log') {
    const sentences = dosed.map((l) => {
      const n = batches.get(l.treatment.id) ?? 0;
      return `${nameOf(l.treatment.id)} ${n} ${n === 1 ? 'batch' : 'batches'}`;
    });
    return statement('costBasis', `Products as given, by the log: ${listNames(sentences)}.`, facts);
  }
  if (dosed.every((l) => (batches.get(l.treatment.id) ?? 0) === 0))
    return statement('costBasis', 'Products as planned; no batch is in the log.', facts);
  // Of each contender the product the log tells least of.
  const short = [...new Set(notLogged.map((m) => m.treatmentId))].map((id) => {
    const own = notLogged.filter((m) => m.treatmentId === id);
    const least = own.reduce((a, b) => (b.days / b.planned < a.days / a.planned ? b : a));
    return `${nameOf(id)} on ${least.days} of ${days(least.planned)}`;
  });
  return statement(
    'costBasis',
    `Products as planned, for all: the log tells of too little to go by it (${listNames(short)}).`,
    facts,
  );
}
