import { permutationTest } from '~core/stats/permutation';
import { readArgs, requiredNumber } from './options';
import { responsesOf } from './spread';
import { DataFile, common, figure, groupsOf, lines, needed, oneFile, pText, wantControl } from './table';

export const permuteUsage = `palazzo permute FILE --treatment T --response COL --control C
  [--block B] [--unit U] [--seed 1] [--json]`;

/** Runs `permute` and returns what goes to stdout. */
export function permute(args: string[]): string {
  const { values, positionals } = readArgs(
    args,
    { ...common, response: { type: 'string' }, block: { type: 'string' } },
    true,
  );
  const units = responsesOf(new DataFile(oneFile(positionals)), values);
  const groups = groupsOf(units);
  const control = needed('control', values.control);
  wantControl(groups, control);
  const seed = requiredNumber('seed', values.seed, { low: 0, high: 2 ** 32 - 1, whole: true });
  const blocks = [...new Set(units.map((u) => u.place))];
  const versusControl = [...groups.keys()]
    .filter((name) => name !== control)
    .map((name) => {
      const inBlock = (group: string, block: string) =>
        groups
          .get(group)!
          .filter((u) => u.place === block)
          .map((u) => u.value);
      const permutation = permutationTest(
        blocks.map((b) => ({ a: inBlock(name, b), b: inBlock(control, b) })),
        seed,
      )!;
      return {
        name,
        difference: permutation.difference,
        arrangements: permutation.arrangements,
        exact: permutation.exact,
        p: permutation.p,
      };
    });
  if (values.json) return JSON.stringify({ versusControl });
  return lines(
    ['against control', 'difference', 'arrangements', 'p'],
    versusControl.map((c) => [
      c.name,
      figure(c.difference),
      `${c.arrangements}${c.exact ? '' : ' drawn'}`,
      pText(c.p),
    ]),
  );
}
