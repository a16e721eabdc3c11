import { germination as germinationOf } from '~core/stats/germination';
import { comparedFigures, orNull } from './curves';
import { readArgs, requiredNumber, shareOption } from './options';
import { PlainError } from './plainError';
import { compareProportions } from './proportions';
import { DataFile, common, figure, lines, needed, oneFile } from './table';

export const germinationUsage = `palazzo germination FILE --treatment T --unit U --day COL --count COL --sown COL --control C
  [--alpha 0.05] [--seed 1] [--json]`;

interface Pot {
  treatment: string;
  sown: number;
  up: { day: number; count: number }[];
}

/** Runs `germination` and returns what goes to stdout. */
export function germination(args: string[]): string {
  const { values, positionals } = readArgs(
    args,
    { ...common, day: { type: 'string' }, count: { type: 'string' }, sown: { type: 'string' } },
    true,
  );
  const data = new DataFile(oneFile(positionals));
  const at = {
    treatment: data.column(needed('treatment', values.treatment)),
    unit: data.column(needed('unit', values.unit)),
    day: data.column(needed('day', values.day)),
    count: data.column(needed('count', values.count)),
    sown: data.column(needed('sown', values.sown)),
  };
  const control = needed('control', values.control);
  const alpha = shareOption('alpha', values.alpha);
  const seed = requiredNumber('seed', values.seed, { low: 0, high: 2 ** 32 - 1, whole: true });
  const pots = new Map<string, Pot>();
  for (let i = 0; i < data.size; i++) {
    const [unit, treatment] = [data.label(i, at.unit), data.label(i, at.treatment)];
    const day = data.number(i, at.day);
    if (day < 0) data.refuse(i, at.day, 'is before the start.');
    const [count, sown] = [data.count(i, at.count), data.count(i, at.sown)];
    if (sown === 0) data.refuse(i, at.sown, 'nothing was sown.');
    const known = pots.get(unit);
    if (known && known.treatment !== treatment) {
      throw new PlainError(
        `Unit “${unit}” is listed under two treatments: ${known.treatment} and ${treatment}.`,
      );
    }
    if (known && known.sown !== sown)
      data.refuse(i, at.sown, `says ${sown}, but ${known.sown} were sown in unit “${unit}” above.`);
    const own = known ?? { treatment, sown, up: [] };
    pots.set(unit, own);
    own.up.push({ day, count });
    if (own.up.reduce((s, u) => s + u.count, 0) > sown)
      data.refuse(i, at.count, `more came up in unit “${unit}” than the ${sown} sown.`);
  }
  const units = [...pots].map(([unit, { treatment, sown, up }]) => ({
    unit,
    treatment,
    ...germinationOf(up, sown),
  }));
  const percent = compareProportions(
    [...pots].map(([unit, { treatment, sown, up }]) => ({
      ...{ unit, treatment, place: '' },
      value: { k: up.reduce((s, u) => s + u.count, 0), n: sown },
    })),
    control,
    { alpha, seed, strata: false },
  );
  const meanTime = comparedFigures(
    'meanTime',
    units.map((u) => ({ ...u, value: u.meanTime })),
    control,
    alpha,
  );
  if (values.json) return JSON.stringify({ units, percent, meanTime: orNull(meanTime) });
  return lines(
    ['unit', 'treatment', '%', 'mean time', 't50', 'sd'],
    units.map((u) => [u.unit, u.treatment, ...[u.percent, u.meanTime, u.t50, u.sdTime].map(figure)]),
  );
}
