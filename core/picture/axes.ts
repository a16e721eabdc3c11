import { scaleLinear } from 'd3-scale';
import type { Mark } from './marks';

interface Axis {
  ticks: readonly number[];
  at: (value: number) => number;
  from: number;
  to: number;
  /** where the axis lies */
  across: number;
  title: string;
  say?: (value: number) => string;
}

const plain = (v: number) => String(Number(v.toPrecision(6))).replace('-', '−');
const tick = { mark: 'text', face: 'mono', size: 12, ink: 'soft' } as const;

/** A value axis below a picture. */
export const axisBelow = ({ ticks, at, from, to, across, title, say = plain }: Axis): Mark[] => [
  { mark: 'line', from: [from, across], to: [to, across], stroke: 'line' },
  ...ticks.flatMap((t): Mark[] => [
    { mark: 'line', from: [at(t), across], to: [at(t), across + 5], stroke: 'line' },
    { ...tick, at: [at(t), across + 19], text: say(t), anchor: 'middle' },
  ]),
  { mark: 'text', at: [to, across + 38], text: title, anchor: 'end', ink: 'soft' },
];

/** A value axis at the left of a picture, with its lines across. */
export const axisLeft = ({ ticks, at, from, to, across, title, say = plain }: Axis): Mark[] => [
  ...ticks.flatMap((t): Mark[] => [
    { mark: 'line', from: [across, at(t)], to: [to, at(t)], stroke: 'line' },
    { ...tick, at: [across - 8, at(t) + 4], text: say(t), anchor: 'end' },
  ]),
  { mark: 'text', at: [across, from - 10], text: title, ink: 'soft' },
];

/** A scale over values, with room beside the outermost. @param share of the span at each side */
export function roomyScale(values: readonly number[], range: [number, number], share: number) {
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const room = (high - low || Math.abs(high) || 1) * share;
  return scaleLinear([low - room, high + room], range);
}

/** Things of different heights stacked below each other, with where each begins and where the last ends. */
export function stackedBelow<T>(items: readonly T[], top: number, heightOf: (item: T) => number) {
  const placed: { item: T; at: number; height: number }[] = [];
  for (const item of items) {
    const last = placed.at(-1);
    placed.push({ item, at: last ? last.at + last.height : top, height: heightOf(item) });
  }
  const last = placed.at(-1);
  return { placed, bottom: last ? last.at + last.height : top };
}

/** Names at the ends of lines, moved down as far as they would overlap. @returns where each stands, by its key */
function keptApart(ends: readonly { key: string; y: number }[], gap = 18): Map<string, number> {
  const placed = new Map<string, number>();
  let last = -Infinity;
  for (const { key, y } of [...ends].sort((a, b) => a.y - b.y)) {
    last = Math.max(y, last + gap);
    placed.set(key, last);
  }
  return placed;
}

const LINE = 22;
const perLine = (width: number) => Math.max(1, Math.floor(width / 160));

/** Names of lines below a picture, where there is no room beside them. */
function namesBelow(
  names: readonly { index: number; name: string }[],
  top: number,
  width: number,
): { marks: Mark[]; height: number } {
  const columns = perLine(width);
  return {
    height: Math.ceil(names.length / columns) * LINE + 8,
    marks: names.flatMap(({ index, name }, i): Mark[] => {
      const x = 12 + (i % columns) * (width / columns);
      const y = top + 14 + Math.floor(i / columns) * LINE;
      return [
        { mark: 'tile', at: [x + 7, y - 4], index },
        { mark: 'text', at: [x + 20, y], text: name },
      ];
    }),
  };
}

/** Names at the ends of lines: beside them where there is room, below the picture where there isn't. */
export function namedEnds(
  ends: readonly { key: string; name: string; index: number; y: number }[],
  at: { right: number; width: number; height: number; narrow: boolean },
): { marks: Mark[]; height: number } {
  const apart = keptApart(ends);
  const tiles = ends.flatMap(({ key, name, index }): Mark[] => [
    { mark: 'tile', at: [at.right + 16, apart.get(key)!], index },
    ...(at.narrow
      ? []
      : [{ mark: 'text' as const, at: [at.right + 28, apart.get(key)! + 4] as const, text: name }]),
  ]);
  if (!at.narrow) return { marks: tiles, height: at.height };
  const below = namesBelow(ends, at.height, at.width);
  return { marks: [...tiles, ...below.marks], height: at.height + below.height };
}
