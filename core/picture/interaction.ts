import { axisLeft, namedEnds, roomyScale } from './axes';
import { type Drawing, type Mark, type Room, inkOf, throughPoints } from './marks';

interface Interaction {
  /** along the axis, and one line each */
  names: readonly [string, string];
  cells: readonly { levels: readonly [string, string]; mean: number }[];
  what: string;
}

const [HEIGHT, LEFT, TOP, BOTTOM] = [340, 56, 34, 280];

/** Two factors: lines that run side by side say the one works the same with every level of the other. */
export function interactionLines({ names, cells, what }: Interaction, { width, narrow }: Room): Drawing {
  const right = width - (narrow ? 30 : 150);
  const along = [...new Set(cells.map((c) => c.levels[0]))];
  const lines = [...new Set(cells.map((c) => c.levels[1]))];
  const y = roomyScale(
    cells.map((c) => c.mean),
    [BOTTOM, TOP],
    0.15,
  ).nice(5);
  const x = (i: number) => LEFT + ((i + 0.5) * (right - LEFT)) / along.length;
  const pointsOf = (line: string) =>
    along.flatMap((a, i) => {
      const cell = cells.find((c) => c.levels[0] === a && c.levels[1] === line);
      return cell ? [[x(i), y(cell.mean)] as const] : [];
    });
  const ends = namedEnds(
    lines.map((name, index) => ({ key: name, name, index, y: pointsOf(name).at(-1)![1] })),
    { right, width, height: HEIGHT, narrow },
  );
  return {
    ...{ width, height: ends.height },
    marks: [
      ...axisLeft({ ticks: y.ticks(5), at: y, from: TOP, to: right, across: LEFT, title: what }),
      ...along.map((a, i): Mark => ({
        ...{ mark: 'text', at: [x(i), BOTTOM + 22], text: a, anchor: 'middle', ink: 'soft' },
      })),
      { mark: 'text', at: [right, BOTTOM + 44], text: names[0], anchor: 'end', ink: 'soft' },
      {
        ...{ mark: 'text', at: [narrow ? right : right + 10, TOP - 10], text: names[1], ink: 'soft' },
        anchor: narrow ? 'end' : 'start',
      },
      ...lines.flatMap((name, index): Mark[] => {
        const points = pointsOf(name);
        return [
          { mark: 'path', d: throughPoints(points), stroke: inkOf(index), width: 2.5 },
          ...points.map((at): Mark => ({ mark: 'tile', at, index })),
        ];
      }),
      ...ends.marks,
    ],
  };
}
