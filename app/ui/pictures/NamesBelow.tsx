import { TileMark } from './Picture';

const LINE = 22;
const perLine = (width: number) => Math.max(1, Math.floor(width / 160));

/** How high the names of so many lines are, px. */
export const heightOfNames = (count: number, width: number) => Math.ceil(count / perLine(width)) * LINE + 8;

/** Names of the lines of a picture, below it, where there is no room beside them. */
export function NamesBelow({
  names,
  top,
  width,
}: {
  names: readonly { index: number; name: string }[];
  top: number;
  width: number;
}) {
  const columns = perLine(width);
  return names.map(({ index, name }, i) => {
    const x = 12 + (i % columns) * (width / columns);
    const y = top + 14 + Math.floor(i / columns) * LINE;
    return (
      <g key={name}>
        <TileMark index={index} x={x + 7} y={y - 4} />
        <text x={x + 20} y={y}>
          {name}
        </text>
      </g>
    );
  });
}
