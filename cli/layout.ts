import { interleaved } from '~core/design/interleave';
import { latinSquares } from '~core/design/latinSquare';
import { completelyRandomised, describeLayoutError, randomisedCompleteBlocks } from '~core/design/randomise';
import { splitPlots } from '~core/design/splitPlot';
import { readArgs, numberOption, requiredNumber } from './options';
import { PlainError } from './plainError';

export const layoutUsage = `palazzo layout --design crd|rcbd|latin|split|interleave --treatments A,B,C --replicates R
  [--columns N] [--settings X,Y] --seed S [--json]
  rows and columns count from 1; split: R main plots (of each setting), all treatments in each`;

const designs = ['crd', 'rcbd', 'latin', 'split', 'interleave'] as const;

const list = (name: string, text: string): string[] => {
  const items = text.split(',').map((t) => t.trim());
  if (items.some((t) => t === '')) throw new PlainError(`--${name} has an empty name in “${text}”.`);
  const twice = items.find((t, i) => items.indexOf(t) !== i);
  if (twice !== undefined) throw new PlainError(`--${name} names “${twice}” twice.`);
  return items;
};

/** Runs `layout` and returns what goes to stdout. */
export function layout(args: string[]): string {
  const { values } = readArgs(args, {
    design: { type: 'string' },
    treatments: { type: 'string' },
    replicates: { type: 'string' },
    columns: { type: 'string' },
    settings: { type: 'string' },
    seed: { type: 'string' },
    json: { type: 'boolean', default: false },
  });
  const design = designs.find((d) => d === values.design);
  if (!design) {
    throw new PlainError(
      values.design === undefined
        ? '--design is missing.'
        : `--design must be one of ${designs.join(', ')}, not “${values.design}”.`,
    );
  }
  if (values.treatments === undefined) throw new PlainError('--treatments is missing.');
  const treatments = list('treatments', values.treatments);
  const settings = values.settings === undefined ? [] : list('settings', values.settings);
  if (settings.length > 0 && design !== 'split') throw new PlainError('--settings go with --design split.');
  const replicates =
    design === 'latin'
      ? (numberOption('replicates', values.replicates, { low: 1, high: 200, whole: true }) ??
        treatments.length)
      : requiredNumber('replicates', values.replicates, { low: 1, high: 200, whole: true });
  const seed = requiredNumber('seed', values.seed, { low: 0, high: 0xffffffff, whole: true });
  const columns =
    numberOption('columns', values.columns, { low: 1, high: 1000, whole: true }) ?? treatments.length;
  const wanted = treatments.length * replicates * Math.max(1, settings.length);
  // Squares stand side by side as far as the columns go, then below each other.
  const rows =
    design === 'latin'
      ? treatments.length *
        Math.ceil(replicates / treatments.length / Math.max(1, Math.floor(columns / treatments.length)))
      : Math.ceil(wanted / columns);
  const cells = Array.from({ length: rows * columns }, (_, i) => ({
    area: '',
    row: Math.floor(i / columns),
    column: i % columns,
  }));
  const input = { treatments, replicates, cells, seed };
  const placed =
    design === 'crd'
      ? completelyRandomised(input)
      : design === 'rcbd'
        ? randomisedCompleteBlocks(input)
        : design === 'latin'
          ? latinSquares(input)
          : design === 'split'
            ? splitPlots({ ...input, settings })
            : interleaved(input);
  if (!placed.ok) throw new PlainError(describeLayoutError(placed.error));
  const sorted = [...placed.value].sort((a, b) => a.row - b.row || a.column - b.column);
  if (values.json) {
    return JSON.stringify({
      seed,
      cells: sorted.map((c) => ({
        row: c.row + 1,
        column: c.column + 1,
        block: c.block,
        treatment: c.treatment,
        ...(c.setting !== undefined && { setting: c.setting }),
      })),
    });
  }
  const width = Math.max(...treatments.map((t) => t.length));
  const lines = Array.from({ length: rows }, (_, row) =>
    Array.from({ length: columns }, (_, column) =>
      (sorted.find((c) => c.row === row && c.column === column)?.treatment ?? '·').padEnd(width),
    )
      .join('  ')
      .trimEnd(),
  );
  return [`${design}, seed ${seed}`, ...lines].join('\n');
}
