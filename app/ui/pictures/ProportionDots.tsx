import { formatFigure } from '~core/quantity/format';
import { scaleLinear } from 'd3-scale';
import { type Lane, stackedBelow } from './lanes';
import { fonts } from '../colours';
import { AxisBelow, Picture, TileMark, inkOf } from './Picture';
import { usePictureWidth } from './usePictureWidth';

export interface CountedUnit {
  id: string;
  code: string;
  lane: string;
  k: number;
  n: number;
}

interface Props {
  lanes: readonly Lane[];
  units: readonly CountedUnit[];
  /** pooled share of each lane, per cent, with its limits where there are any */
  pooled: readonly {
    lane: string;
    share: number;
    low: number | null;
    high: number | null;
    counted: string;
  }[];
  label: string;
  file: string;
  unitNoun: string;
}

const [LEFT, RIGHT] = [20, 24];
const DOT = 9;
/** Above so many of a unit dots would be too small to count. */
const MOST_DOTS = 30;

/** k of n: every unit as its dots, those that did filled, and the pooled share on an axis of 0 to 100 %. */
export function ProportionDots({ lanes, units, pooled, label, file, unitNoun }: Props) {
  const { width } = usePictureWidth();
  const right = width - RIGHT;
  const x = scaleLinear([0, 100], [LEFT, right]);
  const stacks = stackedBelow(
    lanes.map((lane) => ({
      lane,
      rows: rowsOf(
        units.filter((u) => u.lane === lane.id),
        right - LEFT,
      ),
    })),
    8,
    ({ rows }) => 26 + rows.length * 34 + 22,
  );
  const bottom = stacks.bottom + 6;
  return (
    <Picture
      width={width}
      height={bottom + 50}
      label={label}
      file={file}
      caption={`Each group of dots is a ${unitNoun}, filled where it did; the line is the pooled share and its interval.`}
    >
      {stacks.placed.map(({ item: { lane, rows }, at, height }) => {
        const share = pooled.find((p) => p.lane === lane.id);
        const line = at + height - 12;
        return (
          <g key={lane.id}>
            <text
              x={LEFT}
              y={at + 16}
              fontFamily={fonts.serif}
              fontSize={16}
              fontWeight={600}
              fill={inkOf(lane.index)}
            >
              {lane.name}
            </text>
            {share && (
              <text x={right} y={at + 16} textAnchor="end" fontFamily={fonts.mono}>
                {share.counted} · {formatFigure(share.share, 0)} %
              </text>
            )}
            {rows.map((row, r) => {
              let from = LEFT;
              return row.map((u) => {
                const here = from;
                from += widthOf(u) + 14;
                return <UnitDots key={u.id} unit={u} index={lane.index} x={here} y={at + 26 + r * 34} />;
              });
            })}
            {share && (
              <g>
                {share.low !== null && (
                  <line
                    x1={x(share.low)}
                    x2={x(share.high!)}
                    y1={line}
                    y2={line}
                    stroke={inkOf(lane.index)}
                    strokeWidth={2.5}
                  />
                )}
                <line
                  x1={x(share.share)}
                  x2={x(share.share)}
                  y1={line - 7}
                  y2={line + 7}
                  stroke={inkOf(lane.index)}
                  strokeWidth={3.5}
                />
              </g>
            )}
          </g>
        );
      })}
      <AxisBelow ticks={[0, 20, 40, 60, 80, 100]} at={x} from={LEFT} to={right} across={bottom} title="%" />
    </Picture>
  );
}

/** Units side by side, in as many rows as they need. */
function rowsOf(units: readonly CountedUnit[], room: number): CountedUnit[][] {
  const rows: CountedUnit[][] = [[]];
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
const widthOf = ({ n }: CountedUnit) => (n > MOST_DOTS ? 60 : Math.max(36, perRow(n) * DOT + 18));

function UnitDots({ unit, index, x, y }: { unit: CountedUnit; index: number; x: number; y: number }) {
  const { k, n } = unit;
  const ink = inkOf(index);
  return (
    <g>
      <title>{`${unit.code}: ${k}/${n}`}</title>
      <TileMark index={index} x={x + 6} y={y + 8} size={12} />
      {n > MOST_DOTS ? (
        <text x={x + 16} y={y + 13} fontFamily={fonts.mono} fontSize={12}>
          {k}/{n}
        </text>
      ) : (
        Array.from({ length: n }, (_, i) => (
          <circle
            key={i}
            cx={x + 20 + (i % perRow(n)) * DOT}
            cy={y + 4 + Math.floor(i / perRow(n)) * DOT}
            r={3.4}
            fill={i < k ? ink : 'var(--sheet)'}
            stroke={ink}
          />
        ))
      )}
      <text x={x} y={y + 28} fontSize={10.5} fill="var(--soft)" fontFamily={fonts.mono}>
        {n > MOST_DOTS ? '' : `${k}/${n}`}
      </text>
    </g>
  );
}
