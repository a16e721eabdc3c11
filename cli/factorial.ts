import { type FactorialRow, describeFactorialError, factorial as analyse } from '~core/stats/factorial';
import { readArgs } from './options';
import { PlainError } from './plainError';
import {
  DataFile,
  type UnitRow,
  byUnit,
  common,
  figure,
  lines,
  meanOf,
  needed,
  oneFile,
  pText,
} from './table';

export const factorialUsage = `palazzo factorial FILE --factors A,B[,C] --response COL [--block B] [--unit U]
  [--main A --plot COL] [--json]`;

/** Factors by their columns. */
function factorsOf(text: string): string[] {
  const names = text
    .split(',')
    .map((n) => n.trim())
    .filter((n) => n !== '');
  if (names.length < 2 || names.length > 3)
    throw new PlainError('--factors names two or three columns: A,B or A,B,C.');
  const twice = names.find((n, i) => names.indexOf(n) !== i);
  if (twice !== undefined) throw new PlainError(`Factor “${twice}” is named twice.`);
  return names;
}

/** Rows with a value as units, block and plot written in their place. */
function rowsOf(
  data: DataFile,
  factors: readonly string[],
  values: {
    response?: string | undefined;
    block?: string | undefined;
    plot?: string | undefined;
    unit?: string | undefined;
  },
): FactorialRow[] {
  const columns = factors.map((f) => data.column(f));
  const responseAt = data.column(needed('response', values.response));
  const optional = (name: string | undefined) => (name === undefined ? null : data.column(name));
  const [blockAt, plotAt, unitAt] = [optional(values.block), optional(values.plot), optional(values.unit)];
  const rows = Array.from({ length: data.size }, (_, i) => i).flatMap((i): UnitRow<number>[] => {
    const levels = columns.map((c) => data.label(i, c));
    const block = blockAt === null ? null : data.label(i, blockAt);
    const plot = plotAt === null ? null : data.label(i, plotAt);
    const unit = unitAt === null ? `row ${i}` : data.label(i, unitAt);
    const value = data.response(i, responseAt);
    if (value === null) return [];
    return [{ treatment: JSON.stringify(levels), unit, place: JSON.stringify([block, plot]), value }];
  });
  const units = byUnit(rows, meanOf);
  const placeOf = new Map<string, string>();
  for (const u of units) {
    const known = placeOf.get(u.unit);
    if (known !== undefined && known !== u.place)
      throw new PlainError(`Unit “${u.unit}” is listed in two places.`);
    placeOf.set(u.unit, u.place);
  }
  return units.map(({ treatment, place, value }) => {
    const [block, plot] = JSON.parse(place) as [string | null, string | null];
    return {
      levels: JSON.parse(treatment) as string[],
      value,
      ...(block !== null && { block }),
      ...(plot !== null && { plot }),
    };
  });
}

/** Runs `factorial` and returns what goes to stdout. */
export function factorial(args: string[]): string {
  const { unit, json } = common;
  const { values, positionals } = readArgs(
    args,
    {
      ...{ unit, json, factors: { type: 'string' }, response: { type: 'string' }, block: { type: 'string' } },
      ...{ main: { type: 'string' }, plot: { type: 'string' }, alpha: common.alpha, seed: common.seed },
    },
    true,
  );
  const factors = factorsOf(needed('factors', values.factors));
  const { main } = values;
  if (main !== undefined && !factors.includes(main)) {
    throw new PlainError(`--main “${main}” isn't one of the factors: ${factors.join(', ')}.`);
  }
  if (main !== undefined && values.plot === undefined)
    throw new PlainError('--plot is missing: it names the whole plots of --main.');
  if (main === undefined && values.plot !== undefined)
    throw new PlainError('--main is missing: which factor were the plots given?');
  const rows = rowsOf(new DataFile(oneFile(positionals)), factors, values);
  if (rows.length === 0) throw new PlainError('There are no values to compare.');
  const analysed = analyse(factors, rows, main === undefined ? null : factors.indexOf(main));
  if (!analysed.ok) throw new PlainError(describeFactorialError(analysed.error, main));
  if (values.json) return JSON.stringify({ terms: analysed.value });
  return lines(
    ['term', 'F', 'df', 'df of the error', 'p'],
    analysed.value.map((t) => [t.term, figure(t.f), String(t.df1), String(t.df2), pText(t.p)]),
  );
}
