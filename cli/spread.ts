import { brownForsythe } from '~core/stats/brownForsythe';
import { readArgs } from './options';
import { PlainError } from './plainError';
import {
  DataFile,
  type UnitRow,
  byUnit,
  common,
  figure,
  groupsOf,
  lines,
  meanOf,
  needed,
  oneFile,
  pText,
  wantControl,
} from './table';

export const spreadUsage = `palazzo spread FILE --treatment T --response COL [--control C] [--unit U] [--json]`;

const sdOf = (xs: readonly number[]): number | null => {
  if (xs.length < 2) return null;
  const m = meanOf(xs);
  return Math.sqrt(xs.reduce((s, x) => s + (x - m) ** 2, 0) / (xs.length - 1));
};

/** Measured values of a file, one a unit. */
export function responsesOf(
  data: DataFile,
  values: {
    treatment?: string | undefined;
    response?: string | undefined;
    unit?: string | undefined;
    block?: string | undefined;
  },
): UnitRow<number>[] {
  const treatmentAt = data.column(needed('treatment', values.treatment));
  const responseAt = data.column(needed('response', values.response));
  const unitAt = values.unit === undefined ? null : data.column(values.unit);
  const blockAt = values.block === undefined ? null : data.column(values.block);
  const rows = Array.from({ length: data.size }, (_, i) => i).flatMap((i): UnitRow<number>[] => {
    const row = {
      treatment: data.label(i, treatmentAt),
      unit: unitAt === null ? `row ${i}` : data.label(i, unitAt),
      place: blockAt === null ? '' : data.label(i, blockAt),
    };
    const value = data.response(i, responseAt);
    return value === null ? [] : [{ ...row, value }];
  });
  const units = byUnit(rows, meanOf);
  const placeOf = new Map<string, string>();
  for (const u of units) {
    const known = placeOf.get(u.unit);
    if (known !== undefined && known !== u.place)
      throw new PlainError(`Unit “${u.unit}” is listed in two blocks: ${known} and ${u.place}.`);
    placeOf.set(u.unit, u.place);
  }
  if (units.length === 0) throw new PlainError('There are no values to compare.');
  return units;
}

/** Runs `spread` and returns what goes to stdout. */
export function spread(args: string[]): string {
  const { values, positionals } = readArgs(args, { ...common, response: { type: 'string' } }, true);
  const groups = groupsOf(responsesOf(new DataFile(oneFile(positionals)), values));
  if (values.control !== undefined) wantControl(groups, values.control);
  if (groups.size < 2) throw new PlainError('Two treatments or more are needed.');
  const treatments = [...groups].map(([name, own]) => {
    const xs = own.map((u) => u.value);
    const [mean, sd] = [meanOf(xs), sdOf(xs)];
    return { name, n: xs.length, sd, cvPercent: sd !== null && mean > 0 ? (100 * sd) / mean : null };
  });
  const test = brownForsythe([...groups.values()].map((own) => own.map((u) => u.value)));
  if (values.json) return JSON.stringify({ treatments, brownForsythe: test });
  return [
    lines(
      ['treatment', 'units', 'sd', 'sd, % of the mean'],
      treatments.map((t) => [t.name, String(t.n), figure(t.sd), figure(t.cvPercent)]),
    ),
    '',
    `Brown–Forsythe: F(${test.df1}, ${test.df2}) = ${figure(test.f)}, p ${pText(test.p)}`,
  ].join('\n');
}
