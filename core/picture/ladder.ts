import { formatSigned } from '../quantity/format';
import { axisBelow, roomyScale } from './axes';
import type { Drawing, Ink, Mark, Room } from './marks';

export interface LadderRow {
  name: string;
  /** change against the reference, per cent, and its limits; the reference's own are 0 */
  percent: number;
  low: number;
  high: number;
  reference: boolean;
  /** the tile it has in the library */
  tile?: number | undefined;
}

const [TOP, ROW] = [10, 34];

/** Every product's change against the reference on one scale, the most first. */
export function ladder(rows: readonly LadderRow[], reference: string, { width, narrow }: Room): Drawing {
  // On a phone a name stands above its line.
  const [from, to] = narrow ? [16, width - 16] : [190, width - 84];
  const high = narrow ? 46 : ROW;
  const sorted = [...rows].sort((a, b) => b.percent - a.percent);
  const x = roomyScale([0, ...sorted.flatMap((r) => [r.low, r.high])], [from, to], 0.06);
  const bottom = TOP + sorted.length * high + 6;
  const marks = sorted.flatMap((r, i): Mark[] => {
    const y = TOP + i * high + (narrow ? 34 : 20);
    const text = narrow ? y - 16 : y + 4;
    const left = narrow ? from : 8;
    const ink: Ink = r.reference ? 'soft' : r.low > 0 ? 'verdigris' : r.high < 0 ? 'porphyry' : 'ink';
    return [
      ...(r.tile === undefined
        ? []
        : [{ mark: 'tile' as const, at: [left + 7, text - 4] as const, index: r.tile, size: 14 }]),
      { mark: 'text', at: [left + 20, text], text: r.name, bold: true },
      {
        ...{ mark: 'text', at: [narrow ? to : width - 8, text], anchor: 'end', face: 'mono', size: 12 },
        text: r.reference ? 'reference' : `${formatSigned(r.percent, 0)} %`,
      },
      ...(r.reference
        ? []
        : [
            {
              ...{ mark: 'line' as const, from: [x(r.low), y] as const, to: [x(r.high), y] as const },
              ...{
                stroke: ink,
                width: 2.5,
                said: `${r.name}: ${formatSigned(r.low, 0)} to ${formatSigned(r.high, 0)} %`,
              },
            },
          ]),
      { mark: 'rect', at: [x(r.percent) - 5, y - 5], width: 10, height: 10, round: 2, fill: ink },
    ];
  });
  return {
    ...{ width, height: bottom + 48 },
    marks: [
      // Where names stand above their lines, the line of no change leaves them free.
      ...(narrow ? sorted.map((_, i) => TOP + i * high + 22) : [TOP]).map((top): Mark => ({
        ...{ mark: 'line', from: [x(0), top], to: [x(0), narrow ? top + 24 : bottom] },
        ...{ stroke: 'soft', dashed: true },
      })),
      ...marks,
      ...axisBelow({
        ...{ ticks: x.ticks(6), at: x, from, to, across: bottom },
        title: `change against ${reference}, %`,
      }),
    ],
  };
}
