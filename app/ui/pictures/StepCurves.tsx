import { plural } from '~core/quantity/format';
import { scaleLinear } from 'd3-scale';
import { AxisBelow, AxisLeft, Picture, TileMark, inkOf } from './Picture';
import { type Lane, keptApart } from './lanes';
import { NamesBelow, heightOfNames } from './NamesBelow';
import { usePictureWidth } from './usePictureWidth';

interface Curve {
  lane: string;
  /** share of units it hasn't happened to, from each day on */
  steps: readonly { day: number; share: number }[];
  /** units it hadn't happened to when last looked at */
  open: readonly { code: string; day: number }[];
}

interface Props {
  lanes: readonly Lane[];
  curves: readonly Curve[];
  until: number;
  label: string;
  file: string;
  unitNoun: string;
}

const [HEIGHT, LEFT, TOP, BOTTOM] = [360, 56, 34, 310];

/** Days until: what share of the units had it by each day, a step at each day it was seen. */
export function StepCurves({ lanes, curves, until, label, file, unitNoun }: Props) {
  const { width, narrow } = usePictureWidth();
  const right = width - (narrow ? 30 : 150);
  const x = scaleLinear([0, Math.max(1, until)], [LEFT, right]).nice(6);
  const y = scaleLinear([0, 100], [BOTTOM, TOP]);
  const had = (share: number) => 100 * (1 - share);
  const ends = keptApart(curves.map((c) => ({ key: c.lane, y: y(had(c.steps.at(-1)?.share ?? 1)) })));
  return (
    <Picture
      width={width}
      height={HEIGHT + (narrow ? heightOfNames(lanes.length, width) : 0)}
      label={label}
      file={file}
      caption={`A step is a ${unitNoun} that was seen to have it; a stroke across is one without it when last looked at.`}
    >
      <AxisLeft
        ticks={[0, 25, 50, 75, 100]}
        at={y}
        from={TOP}
        to={right}
        across={LEFT}
        title={`% of the ${plural(unitNoun)} that had it`}
      />
      <AxisBelow ticks={x.ticks(6)} at={x} from={LEFT} to={right} across={BOTTOM} title="day" />
      {curves.map((c) => {
        const lane = lanes.find((l) => l.id === c.lane)!;
        const path = c.steps.reduce((d, s) => `${d}H${x(s.day)}V${y(had(s.share))}`, `M${x(0)} ${y(0)}`);
        const shareAt = (day: number) => c.steps.filter((s) => s.day <= day).at(-1)?.share ?? 1;
        const end = ends.get(c.lane)!;
        return (
          <g key={c.lane}>
            <path d={`${path}H${x(until)}`} fill="none" stroke={inkOf(lane.index)} strokeWidth={2.5} />
            {c.open.map((o) => (
              <line
                key={o.code}
                x1={x(o.day)}
                x2={x(o.day)}
                y1={y(had(shareAt(o.day))) - 6}
                y2={y(had(shareAt(o.day))) + 6}
                stroke={inkOf(lane.index)}
                strokeWidth={1.5}
              />
            ))}
            <TileMark index={lane.index} x={right + 16} y={end} />
            {!narrow && (
              <text x={right + 28} y={end + 4}>
                {lane.name}
              </text>
            )}
          </g>
        );
      })}
      {narrow && <NamesBelow names={lanes} top={HEIGHT} width={width} />}
    </Picture>
  );
}
