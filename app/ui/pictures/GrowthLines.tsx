import { plural } from '~core/quantity/format';
import { scaleLinear } from 'd3-scale';
import { AxisBelow, AxisLeft, Picture, TileMark, inkOf } from './Picture';
import { type Lane, keptApart } from './lanes';
import { NamesBelow, heightOfNames } from './NamesBelow';
import { usePictureWidth } from './usePictureWidth';

interface Props {
  lanes: readonly Lane[];
  curves: readonly {
    unit: string;
    code: string;
    lane: string;
    points: readonly { day: number; value: number }[];
  }[];
  /** mean of each lane, day by day */
  means: readonly { id: string; points: readonly { day: number; mean: number }[] }[];
  what: string;
  label: string;
  file: string;
  unitNoun: string;
}

const [HEIGHT, LEFT, TOP, BOTTOM] = [400, 56, 34, 345];

/** Again and again: every unit's line over the days, thin; the mean of each contender thick, with its tile at each day. */
export function GrowthLines({ lanes, curves, means: lines, what, label, file, unitNoun }: Props) {
  const { width, narrow } = usePictureWidth();
  const end = width - (narrow ? 30 : 150);
  const days = [...new Set(curves.flatMap((c) => c.points.map((p) => p.day)))].sort((a, b) => a - b);
  const values = curves.flatMap((c) => c.points.map((p) => p.value));
  const x = scaleLinear([Math.min(...days), Math.max(...days)], [LEFT + 6, end]);
  const y = scaleLinear([Math.min(0, ...values), Math.max(...values)], [BOTTOM, TOP]).nice(6);
  const means = lanes.flatMap((lane) => {
    const points = lines.find((l) => l.id === lane.id)?.points ?? [];
    return points.length > 0 ? [{ lane, points }] : [];
  });
  const ends = keptApart(means.map((m) => ({ key: m.lane.id, y: y(m.points.at(-1)!.mean) })));
  const path = (points: readonly { day: number; value: number }[]) =>
    points.map((p, i) => `${i === 0 ? 'M' : 'L'}${x(p.day)} ${y(p.value)}`).join('');
  return (
    <Picture
      width={width}
      height={HEIGHT + (narrow ? heightOfNames(means.length, width) : 0)}
      label={label}
      file={file}
      caption={`Each thin line is a ${unitNoun}; the thick one is the mean of a contender on days on which all of its ${plural(unitNoun)} that were alive were measured.`}
    >
      <AxisLeft ticks={y.ticks(6)} at={y} from={TOP} to={end} across={LEFT} title={what} />
      <AxisBelow
        ticks={days.length <= 9 ? days : x.ticks(7)}
        at={x}
        from={LEFT}
        to={end}
        across={BOTTOM}
        title="day"
      />
      {curves.map((c) => {
        const lane = lanes.find((l) => l.id === c.lane);
        return lane && c.points.length > 0 ? (
          <path
            key={c.unit}
            d={path([...c.points].sort((a, b) => a.day - b.day))}
            fill="none"
            stroke={inkOf(lane.index)}
            strokeWidth={1}
            opacity={0.45}
          >
            <title>{c.code}</title>
          </path>
        ) : null;
      })}
      {means.map(({ lane, points }) => (
        <g key={lane.id}>
          <path
            d={path(points.map((p) => ({ day: p.day, value: p.mean })))}
            fill="none"
            stroke={inkOf(lane.index)}
            strokeWidth={3}
          />
          {points.map((p) => (
            <TileMark key={p.day} index={lane.index} x={x(p.day)} y={y(p.mean)} size={12} />
          ))}
          <TileMark index={lane.index} x={end + (narrow ? 16 : 22)} y={ends.get(lane.id)!} />
          {!narrow && (
            <text x={end + 34} y={ends.get(lane.id)! + 4}>
              {lane.name}
            </text>
          )}
        </g>
      ))}
      {narrow && <NamesBelow names={means.map((m) => m.lane)} top={HEIGHT} width={width} />}
    </Picture>
  );
}
