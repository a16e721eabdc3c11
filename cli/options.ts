import { parseArgs, type ParseArgsConfig } from 'node:util';
import { PlainError } from './plainError';

type Options = NonNullable<ParseArgsConfig['options']>;

/** Reads a command's options; an unknown or doubled one is a plain error. */
export function readArgs<O extends Options>(args: string[], options: O, positionals = false) {
  try {
    return parseArgs({ args, options, allowPositionals: positionals, strict: true });
  } catch (e) {
    throw new PlainError((e as Error).message.split('\n')[0]!);
  }
}

interface Range {
  low?: number;
  high?: number;
  whole?: boolean;
}

/** An option's number, or undefined when it was left out. */
export function numberOption(name: string, text: string | undefined, range: Range = {}): number | undefined {
  if (text === undefined) return undefined;
  const value = Number(text);
  const fits =
    text.trim() !== '' &&
    Number.isFinite(value) &&
    (!range.whole || Number.isInteger(value)) &&
    value >= (range.low ?? -Infinity) &&
    value <= (range.high ?? Infinity);
  if (!fits) {
    const kind = range.whole ? 'a whole number' : 'a number';
    const from = range.low !== undefined ? ` from ${range.low}` : '';
    const to = range.high !== undefined ? ` to ${range.high}` : '';
    throw new PlainError(`--${name} must be ${kind}${from}${to}, not “${text}”.`);
  }
  return value;
}

/** An option's number that has to be there. */
export function requiredNumber(name: string, text: string | undefined, range?: Range): number {
  const value = numberOption(name, text, range);
  if (value === undefined) throw new PlainError(`--${name} is missing.`);
  return value;
}

/** A number strictly between 0 and 1. */
export function shareOption(name: string, text: string): number {
  const value = Number(text);
  if (!(value > 0 && value < 1)) throw new PlainError(`--${name} must lie between 0 and 1, not “${text}”.`);
  return value;
}
