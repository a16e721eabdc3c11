import { scaleLinear } from 'd3-scale';
import { formatFigure } from '../quantity/format';
import { axisBelow, stackedBelow } from './axes';
import { figureMarks } from './figureMarks';
import { type Drawing, type Lane, type Mark, type Room, inkOf } from './marks';

interface Counted {
  code: string;
  lane: string;
  k: number;
  n: number;
}
interface Pooled {
  lane: string;
  /** per cent */
  share: number;
  low: number | null;
  high: number | null;
  counted: string;
}

const [LEFT, RIGHT] = [20, 24];
const [DOT, ROW] = [9, 34];
/** Above so many of a unit dots would be too small to count. */
const MOST_DOTS = 30;

/** k of n: every unit as its dots, those that did filled, and the pooled share on an axis of 0 to 100 %. */
export function proportionDots(
  lanes: readonly Lane[],
  units: readonly Counted[],
  pooled: readonly Pooled[],
  { width }: Room,
): Drawing {
  const right = width - RIGHT;
  const x = scaleLinear([0, 100], [LEFT, right]);
  const stacks = stackedBelow(
    lanes.map((lane) => ({ lane, rows: rowsOf(units.filter((u) => u.lane === lane.id), right - LEFT) })), // prettier-ignore
    8,
    ({ rows }) => 26 + rows.length * ROW + 22,
  );
  const bottom = stacks.bottom + 6;
  const marks = stacks.placed.flatMap(({ item: { lane, rows }, at, height }): Mark[] => {
    const share = pooled.find((p) => p.lane === lane.id);
    const own = inkOf(lane.index);
    const dots = rows.flatMap((row, r) => {
      let from = LEFT;
      return row.flatMap((u) => {
        const here = from;
        from += widthOf(u) + 14;
        return unitDots(u, lane.index, here, at + 26 + r * ROW);
      });
    });
    return [
      { mark: 'text', at: [LEFT, at + 16], text: lane.name, face: 'serif', size: 16, bold: true, ink: own },
      ...dots,
      ...(share
        ? [
            {
              ...{ mark: 'text' as const, at: [right, at + 16] as const, anchor: 'end' as const, face: 'mono' as const }, // prettier-ignore
              text: `${share.counted} · ${formatFigure(share.share, 0)} %`,
            },
            ...figureMarks({ ...share, estimate: share.share }, x, at + height - 12, lane.index),
          ]
        : []),
    ];
  });
  const axis = { ticks: [0, 20, 40, 60, 80, 100], at: x, from: LEFT, to: right, across: bottom, title: '%' };
  return { width, height: bottom + 50, marks: [...marks, ...axisBelow(axis)] };
}

/** Units side by side, in as many rows as they need. */
function rowsOf(units: readonly Counted[], room: number): Counted[][] {
  const rows: Counted[][] = [[]];
  let used = 0;
  for (const u of units) {
    const wide = widthOf(u) + 14;
    if (used + wide > room && used > 0) {
      rows.push([]);
      used = 0;
    }
    rows.at(-1)!.push(u);
    used += wide;
  }
  return rows;
}

const perRow = (n: number) => Math.ceil(n / 2);
const widthOf = ({ n }: Counted) => (n > MOST_DOTS ? 60 : Math.max(36, perRow(n) * DOT + 18));

function unitDots({ code, k, n }: Counted, index: number, x: number, y: number): Mark[] {
  const own = inkOf(index);
  const label = `${code}: ${k}/${n}`;
  const tile: Mark = { mark: 'tile', at: [x + 6, y + 8], index, size: 12, said: label };
  if (n > MOST_DOTS)
    return [tile, { mark: 'text', at: [x + 16, y + 13], text: `${k}/${n}`, face: 'mono', size: 12 }];
  return [
    tile,
    ...Array.from({ length: n }, (_, i): Mark => ({
      mark: 'dot',
      at: [x + 20 + (i % perRow(n)) * DOT, y + 4 + Math.floor(i / perRow(n)) * DOT],
      ...{ radius: 3.4, fill: i < k ? own : 'sheet', stroke: own },
    })),
    { mark: 'text', at: [x, y + 28], text: `${k}/${n}`, face: 'mono', size: 10.5, ink: 'soft' },
  ];
}
