import { axisBelow, roomyScale } from './axes';
import { type Drawing, type Mark, type Room, inkOf } from './marks';

const [LEFT, RIGHT, TOP, LANE] = [48, 24, 14, 64];
const TILE = 16;
/** Two tiles nearer than so much of their width stand one over the other. */
const NEAR = 0.8;

/** Values of contenders as tiles on one line each, without a mean or an interval: what an eye has to go by. */
export function callPicture(
  values: readonly (readonly number[])[],
  names: readonly string[],
  title: string,
  { width }: Room,
): Drawing {
  const right = width - RIGHT;
  const x = roomyScale(values.flat(), [LEFT + TILE, right - TILE], 0.08);
  const bottom = TOP + values.length * LANE;
  const lanes = values.flatMap((own, index): Mark[] => {
    const base = TOP + (index + 1) * LANE - 14;
    const placed: { at: number; level: number }[] = [];
    for (const v of [...own].sort((a, b) => a - b)) {
      const at = x(v);
      const taken = placed.filter((p) => Math.abs(p.at - at) < TILE * NEAR).map((p) => p.level);
      placed.push({ at, level: [0, 1, 2, 3, 4, 5, 6, 7].find((l) => !taken.includes(l)) ?? 0 });
    }
    return [
      { mark: 'line', from: [LEFT, base + 2], to: [right, base + 2], stroke: 'line', width: 1.5 },
      {
        ...{
          mark: 'text',
          at: [12, base - 4],
          text: names[index] ?? '',
          face: 'serif',
          size: 17,
          bold: true,
        },
        ink: inkOf(index),
      },
      ...placed.map((p): Mark => ({
        mark: 'tile',
        at: [p.at, base - TILE / 2 - p.level * (TILE + 1)],
        index,
        size: TILE,
      })),
    ];
  });
  const axis = {
    ticks: x.ticks(width < 480 ? 4 : 6),
    at: x,
    from: LEFT,
    to: right,
    across: bottom + 4,
    title,
  };
  return { width, height: bottom + 50, marks: [...lanes, ...axisBelow(axis)] };
}
