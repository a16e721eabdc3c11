import { stackedBelow } from './axes';
import { type Drawing, type Mark, type Room, inkOf } from './marks';

interface ForestRow {
  /** contender's place in the plan */
  index: number;
  name: string;
  /** distances from no effect, better to the right; null where nothing could be tested */
  estimate: number;
  low: number | null;
  high: number | null;
  said: string;
}
interface ForestTrait {
  name: string;
  decides: boolean;
  rows: readonly ForestRow[];
}

const clipped = (name: string) => (name.length > 26 ? `${name.slice(0, 25)}…` : name);

/** Every trait against the control, each on a scale of its own: right of the line is better. */
export function forest(traits: readonly ForestTrait[], { width, narrow }: Room): Drawing {
  // On a phone the lines stand below their names and figures.
  const [from, to] = narrow ? [12, width - 12] : [224, width - 120];
  const [high, below] = narrow ? [40, 16] : [22, 0];
  const middle = (from + to) / 2;
  const { placed, bottom } = stackedBelow(traits, 34, (t) => 34 + t.rows.length * high);
  const rowMarks = (r: ForestRow, x: (v: number) => number, y: number): Mark[] => {
    const line = y - 4 + below;
    const own = inkOf(r.index);
    const [estimate, low, upper] = [x(r.estimate), r.low, r.high];
    return [
      { mark: 'tile', at: [20, y - 4], index: r.index, size: 13 },
      { mark: 'text', at: [32, y], text: clipped(r.name) },
      ...(low === null
        ? []
        : [
            {
              ...{ mark: 'line' as const, from: [x(low), line] as const, to: [x(upper!), line] as const },
              ...{ stroke: own, width: 2.5 },
            },
          ]),
      {
        ...{ mark: 'rect', at: [estimate - 4, line - 4], width: 8, height: 8, stroke: own },
        fill: low === null ? 'sheet' : own,
      },
      {
        ...{ mark: 'text', at: [narrow ? to : to + 12, y], text: r.said, face: 'mono', size: 11.5 },
        anchor: narrow ? 'end' : 'start',
      },
    ];
  };
  const head = { mark: 'text', ink: 'soft' } as const;
  return {
    ...{ width, height: bottom + 8 },
    marks: [
      { ...head, at: [from, 18], text: '← worse' },
      { ...head, at: [to, 18], text: 'better →', anchor: 'end' },
      ...placed.flatMap(({ item: { name, decides, rows }, at }): Mark[] => {
        const reach = Math.max(
          1e-12,
          ...rows.flatMap((r) => [r.estimate, r.low ?? 0, r.high ?? 0].map(Math.abs)),
        );
        const x = (v: number) => middle + (v / reach) * ((to - from) / 2 - 8);
        const end = at + 28 + rows.length * high;
        return [
          // The line of no effect leaves the traits' names free.
          { mark: 'line', from: [middle, at + 20], to: [middle, end], stroke: 'soft', dashed: true },
          {
            ...{ mark: 'text', at: [12, at + 16], face: 'serif', size: 15, bold: true },
            text: `${name}${decides ? ' · decides' : ''}`,
          },
          ...rows.flatMap((r, i) => rowMarks(r, x, at + 34 + i * high)),
          { mark: 'line', from: [12, end], to: [width - 12, end], stroke: 'line' },
        ];
      }),
    ],
  };
}
