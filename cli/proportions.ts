import { dispersion, pooledCounts } from '~core/stats/dispersion';
import { holm } from '~core/stats/holm';
import { fisherExact } from '~core/stats/fisherExact';
import { mantelHaenszel } from '~core/stats/mantelHaenszel';
import { newcombe, wilson } from '~core/stats/proportion';
import { type KOfN, proportionPermutation } from '~core/stats/proportionPermutation';
import { readArgs, requiredNumber, shareOption } from './options';
import {
  DataFile,
  type UnitRow,
  byUnit,
  common,
  figure,
  groupsOf,
  lines,
  needed,
  oneFile,
  pText,
  wantControl,
} from './table';

export const proportionsUsage = `palazzo proportions FILE --treatment T --k COL --n COL --control C
  [--unit U] [--stratum S] [--alpha 0.05] [--seed 1] [--json]`;

const pooled = (units: readonly UnitRow<KOfN>[]): KOfN => pooledCounts(units.map((u) => u.value));

/** Units within treatment and stratum. */
function dispersionOf(units: readonly UnitRow<KOfN>[]): number | null {
  const cells = new Map<string, KOfN[]>();
  for (const u of units) {
    const key = JSON.stringify([u.treatment, u.place]);
    cells.set(key, [...(cells.get(key) ?? []), u.value]);
  }
  return dispersion([...cells.values()]);
}

/** k of n, compared as `cli.md` says. */
export function compareProportions(
  units: readonly UnitRow<KOfN>[],
  control: string,
  { alpha, seed, strata }: { alpha: number; seed: number; strata: boolean },
) {
  const groups = groupsOf(units);
  wantControl(groups, control);
  const treatments = [...groups].map(([name, own]) => {
    const { k, n } = pooled(own);
    return { name, units: own.length, ...wilson(k, n, alpha) };
  });
  const of = (name: string) => treatments.find((t) => t.name === name)!;
  const places = [...new Set(units.map((u) => u.place))];
  const against = [...groups.keys()].filter((name) => name !== control);
  const compared = against.map((name) => {
    const [a, b] = [of(name), of(control)];
    const inPlace = (group: string, place: string) => groups.get(group)!.filter((u) => u.place === place);
    return {
      name,
      ...newcombe(a, b),
      pFisher: fisherExact(a.k, a.n, b.k, b.n),
      pPermutation: proportionPermutation(
        places.map((place) => ({
          a: inPlace(name, place).map((u) => u.value),
          b: inPlace(control, place).map((u) => u.value),
        })),
        seed,
      ),
      cmh: strata
        ? mantelHaenszel(
            places.map((place) => ({
              treatment: pooled(inPlace(name, place)),
              control: pooled(inPlace(control, place)),
            })),
          )
        : null,
    };
  });
  const byUnits = compared.every((c) => c.pPermutation !== null);
  const adjusted = holm(compared.map((c) => (byUnits ? c.pPermutation : c.pFisher)));
  return {
    alpha,
    treatments,
    dispersion: dispersionOf(units),
    versusControl: compared.map(({ cmh, ...c }, i) => ({ ...c, pHolm: adjusted[i]!, cmh })),
  };
}

/** Runs `proportions` and returns what goes to stdout. */
export function proportions(args: string[]): string {
  const { values, positionals } = readArgs(
    args,
    { ...common, k: { type: 'string' }, n: { type: 'string' }, stratum: { type: 'string' } },
    true,
  );
  const data = new DataFile(oneFile(positionals));
  const at = {
    treatment: data.column(needed('treatment', values.treatment)),
    k: data.column(needed('k', values.k)),
    n: data.column(needed('n', values.n)),
    unit: values.unit === undefined ? null : data.column(values.unit),
    stratum: values.stratum === undefined ? null : data.column(values.stratum),
  };
  const control = needed('control', values.control);
  const rows = Array.from({ length: data.size }, (_, i): UnitRow<KOfN> => {
    const [k, n] = [data.count(i, at.k), data.count(i, at.n)];
    if (k > n) data.refuse(i, at.k, `${k} of ${n} can't be.`);
    return {
      treatment: data.label(i, at.treatment),
      unit: at.unit === null ? `row ${i}` : data.label(i, at.unit),
      place: at.stratum === null ? '' : data.label(i, at.stratum),
      value: { k, n },
    };
  });
  const units = byUnit(rows, (all) => ({
    k: all.reduce((s, x) => s + x.k, 0),
    n: all.reduce((s, x) => s + x.n, 0),
  }));
  const compared = compareProportions(units, control, {
    alpha: shareOption('alpha', values.alpha),
    seed: requiredNumber('seed', values.seed, { low: 0, high: 2 ** 32 - 1, whole: true }),
    strata: at.stratum !== null,
  });
  if (values.json) return JSON.stringify(compared);
  return [
    lines(
      ['treatment', 'units', 'k/n', 'share', 'low', 'high'],
      compared.treatments.map((t) => [
        t.name,
        String(t.units),
        `${t.k}/${t.n}`,
        ...[t.proportion, t.low, t.high].map(figure),
      ]),
    ),
    '',
    lines(
      ['against control', 'difference', 'low', 'high', 'p Fisher', 'p units', 'p Holm'],
      compared.versusControl.map((c) => [
        c.name,
        ...[c.difference, c.low, c.high].map(figure),
        ...[c.pFisher, c.pPermutation, c.pHolm].map(pText),
      ]),
    ),
  ].join('\n');
}
