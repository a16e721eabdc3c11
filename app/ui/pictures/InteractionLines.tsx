import { scaleLinear } from 'd3-scale';
import { fonts } from '../colours';
import { keptApart } from './lanes';
import { AxisLeft, Picture, TileMark, inkOf } from './Picture';
import { NamesBelow, heightOfNames } from './NamesBelow';
import { usePictureWidth } from './usePictureWidth';

interface Props {
  /** along the axis, and one line each */
  names: readonly [string, string];
  cells: readonly { levels: readonly [string, string]; mean: number; n: number }[];
  what: string;
  label: string;
  file: string;
}

const [HEIGHT, LEFT, TOP, BOTTOM] = [340, 56, 34, 280];

/** Two factors: lines that run side by side say the one works the same with every level of the other. */
export function InteractionLines({ names, cells, what, label, file }: Props) {
  const { width, narrow } = usePictureWidth();
  const right = width - (narrow ? 30 : 150);
  const along = [...new Set(cells.map((c) => c.levels[0]))];
  const lines = [...new Set(cells.map((c) => c.levels[1]))];
  const means = cells.map((c) => c.mean);
  const room = (Math.max(...means) - Math.min(...means) || Math.abs(means[0] ?? 1) || 1) * 0.15;
  const y = scaleLinear([Math.min(...means) - room, Math.max(...means) + room], [BOTTOM, TOP]).nice(5);
  const x = (i: number) => LEFT + ((i + 0.5) * (right - LEFT)) / along.length;
  const of = (a: string, b: string) => cells.find((c) => c.levels[0] === a && c.levels[1] === b);
  const ends = keptApart(lines.map((l) => ({ key: l, y: y(of(along.at(-1)!, l)?.mean ?? means[0]!) })));
  return (
    <Picture
      width={width}
      height={HEIGHT + (narrow ? heightOfNames(lines.length, width) : 0)}
      label={label}
      file={file}
      caption={`Means of ${names[0]} × ${names[1]}. Lines side by side: the one works the same with every level of the other.`}
    >
      <AxisLeft ticks={y.ticks(5)} at={y} from={TOP} to={right} across={LEFT} title={what} />
      {along.map((a, i) => (
        <text key={a} x={x(i)} y={BOTTOM + 22} textAnchor="middle" fill="var(--soft)">
          {a}
        </text>
      ))}
      <text x={right} y={BOTTOM + 44} textAnchor="end" fill="var(--soft)">
        {names[0]}
      </text>
      <text
        x={narrow ? right : right + 10}
        y={TOP - 10}
        fill="var(--soft)"
        fontFamily={fonts.sans}
        textAnchor={narrow ? 'end' : 'start'}
      >
        {names[1]}
      </text>
      {lines.map((l, index) => {
        const points = along.flatMap((a, i) => {
          const cell = of(a, l);
          return cell ? [{ x: x(i), y: y(cell.mean) }] : [];
        });
        const end = ends.get(l)!;
        return (
          <g key={l}>
            <path
              d={points.map((p, i) => `${i === 0 ? 'M' : 'L'}${p.x} ${p.y}`).join('')}
              fill="none"
              stroke={inkOf(index)}
              strokeWidth={2.5}
            />
            {points.map((p) => (
              <TileMark key={p.x} index={index} x={p.x} y={p.y} />
            ))}
            <TileMark index={index} x={right + 17} y={end} />
            {!narrow && (
              <text x={right + 30} y={end + 4}>
                {l}
              </text>
            )}
          </g>
        );
      })}
      {narrow && (
        <NamesBelow names={lines.map((name, index) => ({ index, name }))} top={HEIGHT} width={width} />
      )}
    </Picture>
  );
}
