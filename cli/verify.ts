import { readFileSync } from 'node:fs';
import { checkFile } from '~core/formats/checkFile';
import { describeImportError } from '~core/formats/dataPackage';
import { isHashOf, shortCode } from '~core/plan/shortCode';
import { readArgs } from './options';
import { PlainError } from './plainError';
import { oneFile } from './table';
import type { Printed } from './main';

export const verifyUsage = `palazzo verify TRIAL.zip [--seal SHA256 or short code] [--json]
  Holds a trial's file against what it says of itself, and against a hash that was posted; ends with 1 where they differ.`;

const seals = {
  ok: 'the plan is the one that was sealed',
  none: 'not sealed, or a copy under codes, of which it can’t be told',
  differs: 'the plan isn’t the one that was sealed',
};

/** Runs `verify`: what goes to stdout, and whether something differs. */
export function verify(args: string[]): Printed {
  const { values, positionals } = readArgs(
    args,
    { json: { type: 'boolean' }, seal: { type: 'string' } },
    true,
  );
  const file = oneFile(positionals);
  let bytes: Uint8Array;
  try {
    bytes = new Uint8Array(readFileSync(file));
  } catch {
    throw new PlainError(`The file “${file}” can't be read.`);
  }
  const read = checkFile(bytes);
  if (!read.ok) throw new PlainError(`${file}: ${describeImportError(read.error)}`);
  const { unsigned, ...check } = read.value;
  const posted = values.seal as string | undefined;
  if (posted !== undefined && !/^[0-9A-Za-z\s-]{16,80}$/.test(posted))
    throw new PlainError('--seal is a SHA-256 of 64 figures, or its short code of 16.');
  const other = posted !== undefined && (check.sealed === null || !isHashOf(posted, check.sealed));
  const seal = other ? ('differs' as const) : check.seal;
  const differs = seal === 'differs' || check.altered.length > 0 || check.bulk.altered.length > 0;
  if (values.json) return { status: differs ? 1 : 0, stdout: JSON.stringify({ ...check, seal, unsigned }) };
  const list = (what: string, all: readonly string[]) => all.map((x) => `  ${what}: ${x}`);
  const text = [
    `seal: ${other ? `not the one that was posted${check.sealed === null ? '; the file has none' : ''}` : seals[seal]}`,
    ...(check.sealed === null ? [] : [`  SHA-256 ${check.sealed}, code ${shortCode(check.sealed)}`]),
    `log: ${check.lines} lines, ${unsigned ? 'of which the file says nothing itself' : check.altered.length === 0 ? 'as the file says of itself' : 'not as the file says of itself'}`,
    ...list('differs', check.altered),
    `pictures and readings: ${check.bulk.checked} held against the log`,
    ...list('differs', check.bulk.altered),
    `all of plan and log: SHA-256 ${check.signed}, code ${shortCode(check.signed)}`,
    'Whoever changes a file can change what it says of itself: only a hash from elsewhere tells that.',
  ];
  return { status: differs ? 1 : 0, stdout: text.join('\n') };
}
