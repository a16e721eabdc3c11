import { type Result, err, ok } from '../model/result';
import { type NumberFault, describeNumberFault, readNumber } from './number';
import { formatFigure } from './format';
import { moneyLocale } from './region';

/** Money in minor units (cents) with its ISO 4217 currency. Minor units may be fractional in a unit price. */
export interface Money {
  minor: number;
  currency: string;
}

/** Digits after the point a currency uses, e.g. EUR 2, JPY 0. */
export function minorDigits(currency: string): number {
  try {
    return (
      new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions().maximumFractionDigits ??
      2
    );
  } catch {
    return 2;
  }
}

/**
 * Money as text, with more digits where the sum is small: a gram of result often costs a fraction of a cent.
 * @example formatMoney({ minor: 1250, currency: 'EUR' }) // '€12.50'
 */
export function formatMoney(money: Money): string {
  const digits = minorDigits(money.currency);
  const amount = money.minor / 10 ** digits;
  const size = Math.abs(amount);
  const extra =
    size > 0 && size < 1 ? Math.min(6, Math.max(digits, 2 - Math.floor(Math.log10(size)))) : digits;
  return new Intl.NumberFormat(moneyLocale(), {
    style: 'currency',
    currency: money.currency,
    minimumFractionDigits: extra,
    maximumFractionDigits: extra,
  }).format(amount);
}

/** What hundredths of a currency are called, where everybody says it. */
const hundredths: Record<string, string> = { EUR: ' ct', USD: '¢', CAD: '¢', AUD: '¢', NZD: '¢', GBP: 'p' };

/**
 * Small money as a person says it; more figures stand in tables.
 * @example sayMoney({ minor: 1.04, currency: 'EUR' }) // '1.0 ct'
 */
export function sayMoney(money: Money): string {
  const called = hundredths[money.currency];
  const size = Math.abs(money.minor);
  if (called === undefined || size === 0 || size >= 10) return formatMoney(money);
  return `${formatFigure(money.minor, size >= 0.1 ? 1 : 1 - Math.floor(Math.log10(size)))}${called}`;
}

/**
 * The same money in another currency, by rates the reviewer typed; null where there is none for it.
 * @param exchange so much of the wanted currency for one of another
 */
export function inCurrency(
  money: Money,
  currency: string,
  exchange: readonly { currency: string; rate: number }[],
): Money | null {
  if (money.currency === currency) return money;
  const rate = exchange.find((e) => e.currency === money.currency)?.rate;
  // Minor units: a yen has none, a dinar three digits of them.
  return rate === undefined
    ? null
    : { minor: money.minor * rate * 10 ** (minorDigits(currency) - minorDigits(money.currency)), currency };
}

/** Reads a price as typed, into whole minor units. @example toMinor(12.5, 'EUR') // 1250 */
export const toMinor = (amount: number, currency: string): number =>
  Math.round(amount * 10 ** minorDigits(currency));

/** Minor units back to the amount a person types. */
export const fromMinor = (minor: number, currency: string): number => minor / 10 ** minorDigits(currency);

const signs: Record<string, string> = { '€': 'EUR', '£': 'GBP', $: 'USD', '¥': 'JPY' };

/** Which currency a sign means; a bench's own dollar, crown or yen is meant by its sign. */
function currencyBySign(sign: string, home: string): string | null {
  if (/^[A-Z]{3}$/.test(sign)) return sign;
  const own = new Intl.NumberFormat('en', {
    style: 'currency',
    currency: home,
    currencyDisplay: 'narrowSymbol',
  })
    .formatToParts(0)
    .find((p) => p.type === 'currency')?.value;
  return own === sign ? home : (signs[sign] ?? null);
}

const SIGN = '[€£$¥]|[A-Z]{3}';
/** A sum as it may end a text: a sign before or after it, or none. */
const SUM = new RegExp(`^(?:(.*\\S)\\s+)?(?:(${SIGN})\\s?)?([\\d.,’']*\\d)(?:\\s?(${SIGN}))?$`, 'u');

/**
 * A text that may end in a sum, as people write it: “Foglia 12.90”, “Foglia 24 €”, “£7”.
 *
 * @param home the currency where no sign says another, ISO 4217
 * @returns what stands before it, and the sum; null where the text doesn't end in one; or what is wrong with it
 * @example readSum('Foglia 24 €', 'USD') // { ok: true, value: { before: 'Foglia', amount: 24, currency: 'EUR' } }
 */
export function readSum(
  text: string,
  home: string,
): Result<{ before: string; amount: number; currency: string } | null, string> {
  const match = SUM.exec(text.trim());
  if (!match) return ok(null);
  const [, before = '', first, figure, last] = match;
  const sign = first ?? last;
  const currency = sign === undefined ? home : currencyBySign(sign, home);
  if (currency === null || (first !== undefined && last !== undefined)) return ok(null);
  const amount = readNumber(figure!);
  if (!amount.ok) return err(describeNumberFault(amount.error));
  return ok({ before, amount: amount.value, currency });
}

/**
 * A price in a currency, with its sign or without.
 * @returns the amount; another currency’s sign isn’t understood
 * @example readPrice('€1.20', 'EUR') // { ok: true, value: 1.2 }
 */
export function readPrice(text: string, currency: string): Result<number, NumberFault> {
  const sum = readSum(text, currency);
  return sum.ok && sum.value?.before === '' && sum.value.currency === currency
    ? ok(sum.value.amount)
    : readNumber(text);
}
