import { listNames, sentenceCase } from '~core/quantity/format';
import type { Role } from './box';
import type { Exchange } from './exchange';

/** What a paired device is for. */
export const roleWords: Record<Role, string> = {
  log: 'keeps the bench',
  taste: 'tastes only',
  help: 'helps only: coded jars and tasks',
};

const trials = (n: number) => (n === 1 ? 'one trial' : `${n} trials`);
const lines = (n: number) => (n === 1 ? 'one line' : `${n} lines`);

/**
 * What came of the last exchange, in sentences. “Put into the letter-box” is not “kept over there”: that is said once the
 * other device has said so.
 *
 * @param others devices that are paired here
 * @example sayExchange({ …, sent: 0, open: [] }, 1) // 'What is here is kept on the other devices too.'
 */
export function sayExchange(
  { received, aside, clashes, waiting, open, fault }: Exchange,
  others: number,
): string {
  if (fault !== null) return fault;
  const came = [
    ...(received > 0 ? [`${received === 1 ? 'one letter' : `${received} letters`} taken in`] : []),
    ...(waiting > 0 ? [`${lines(waiting)} waiting for your word in the log`] : []),
    ...(clashes > 0 ? [`${trials(clashes)} waiting for your choice`] : []),
    ...(aside > 0 ? [`${aside === 1 ? 'one letter' : `${aside} letters`} set aside`] : []),
  ];
  const lies = open.filter((o) => o.trials > 0);
  const asked = open.filter((o) => o.waiting > 0);
  return [
    ...(came.length > 0 ? [`${sentenceCase(listNames(came))}.`] : []),
    ...lies.map(
      (o) =>
        `${sentenceCase(trials(o.trials))} for ${o.name || 'the other device'} ${o.trials === 1 ? 'lies' : 'lie'} in the letter-box, sealed, until Palazzo is open there: clear nothing here before.`,
    ),
    ...asked.map(
      (o) =>
        `${sentenceCase(lines(o.waiting))} from here ${o.waiting === 1 ? 'waits' : 'wait'} for a word at ${o.name || 'the other device'}.`,
    ),
    ...(open.length === 0 && others > 0 ? ['What is here is kept on the other devices too.'] : []),
  ].join(' ');
}
