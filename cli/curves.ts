import { areaUnder, atTimes, logisticFit, relativeGrowthRate } from '~core/stats/curves';
import { describeComparisonError } from '~core/stats/comparison';
import { compareTreatments } from '~core/stats/compareTreatments';
import { comparisonShape } from './compare';
import { readArgs, shareOption } from './options';
import { PlainError } from './plainError';
import { DataFile, common, figure, lines, needed, oneFile } from './table';

export const curvesUsage = `palazzo curves FILE --treatment T --unit U --time COL --response COL --control C
  [--alpha 0.05] [--json]`;

/** A unit with a figure of its own. */
export interface UnitFigure {
  unit: string;
  treatment: string;
  value: number | null;
}

/** Units' figures compared as `compare` does; null where too few have one. */
export function comparedFigures(
  response: string,
  units: readonly UnitFigure[],
  control: string,
  alpha: number,
) {
  const rows = units.flatMap(({ treatment, value }) => (value === null ? [] : [{ treatment, value }]));
  const result = compareTreatments({ rows, control, alpha });
  return result.ok ? comparisonShape(response, result.value) : { error: result.error };
}

/** A comparison, or null where the figures don't carry one. */
export const orNull = <T extends object>(found: T): Exclude<T, { error: unknown }> | null =>
  'error' in found ? null : (found as Exclude<T, { error: unknown }>);

/** Runs `curves` and returns what goes to stdout. */
export function curves(args: string[]): string {
  const { values, positionals } = readArgs(
    args,
    { ...common, time: { type: 'string' }, response: { type: 'string' } },
    true,
  );
  const data = new DataFile(oneFile(positionals));
  const at = {
    treatment: data.column(needed('treatment', values.treatment)),
    unit: data.column(needed('unit', values.unit)),
    time: data.column(needed('time', values.time)),
    response: data.column(needed('response', values.response)),
  };
  const control = needed('control', values.control);
  const alpha = shareOption('alpha', values.alpha);
  const units = new Map<string, { treatment: string; points: { time: number; value: number }[] }>();
  for (let i = 0; i < data.size; i++) {
    const [unit, treatment] = [data.label(i, at.unit), data.label(i, at.treatment)];
    const time = data.number(i, at.time);
    const value = data.response(i, at.response);
    const known = units.get(unit);
    if (known && known.treatment !== treatment) {
      throw new PlainError(
        `Unit “${unit}” is listed under two treatments: ${known.treatment} and ${treatment}.`,
      );
    }
    const own = known ?? { treatment, points: [] };
    units.set(unit, own);
    if (value !== null) own.points.push({ time, value });
  }
  const fitted = [...units].map(([unit, { treatment, points }]) => {
    const sorted = atTimes(points);
    return {
      unit,
      treatment,
      area: areaUnder(sorted),
      relativeGrowthRate: relativeGrowthRate(sorted),
      logistic: logisticFit(sorted),
    };
  });
  const area = comparedFigures(
    'area',
    fitted.map((u) => ({ ...u, value: u.area })),
    control,
    alpha,
  );
  if ('error' in area) throw new PlainError(describeComparisonError(area.error));
  const rate = comparedFigures(
    'relativeGrowthRate',
    fitted.map((u) => ({ ...u, value: u.relativeGrowthRate })),
    control,
    alpha,
  );
  if (values.json) return JSON.stringify({ units: fitted, area, relativeGrowthRate: orNull(rate) });
  return [
    lines(
      ['unit', 'treatment', 'area', 'growth rate', 'asymptote', 'rate', 'midpoint'],
      fitted.map((u) => [
        u.unit,
        u.treatment,
        figure(u.area),
        figure(u.relativeGrowthRate),
        ...[u.logistic?.asymptote, u.logistic?.rate, u.logistic?.midpoint].map((x) => figure(x ?? null)),
      ]),
    ),
    '',
    lines(
      ['area against control', 'difference', 'low', 'high', 'p'],
      area.versusControl.map((c) => [c.name, ...[c.difference, c.low, c.high, c.p].map(figure)]),
    ),
  ].join('\n');
}
