import { fonts } from '../colours';
import { Picture, TileMark, inkOf } from './Picture';
import { stackedBelow } from './lanes';
import { usePictureWidth } from './usePictureWidth';

export interface ForestRow {
  key: string;
  /** contender's place in the plan */
  index: number;
  name: string;
  /** distances from no effect, better to the right; null where nothing could be tested */
  estimate: number;
  low: number | null;
  high: number | null;
  said: string;
}

interface Props {
  traits: readonly { name: string; decides: boolean; rows: readonly ForestRow[] }[];
  control: string;
  label: string;
  file: string;
}

/** Every trait against the control, each on a scale of its own: right of the line is better. */
export function Forest({ traits, control, label, file }: Props) {
  const { width, narrow } = usePictureWidth();
  // On a phone the lines stand below their names and figures.
  const [from, to] = narrow ? [12, width - 12] : [170, 430];
  const [high, below] = narrow ? [40, 16] : [22, 0];
  const middle = (from + to) / 2;
  const stacks = stackedBelow(traits, 34, (t) => 34 + t.rows.length * high);
  const top = stacks.bottom;
  return (
    <Picture
      width={width}
      height={top + 8}
      label={label}
      file={file}
      caption={`Against ${control}, right of the line is better. Each trait has a scale of its own; a line is the interval that holds for all contenders together.`}
    >
      <text x={from} y={18} fill="var(--soft)">
        ← worse
      </text>
      <text x={to} y={18} textAnchor="end" fill="var(--soft)">
        better →
      </text>
      <line x1={middle} x2={middle} y1={26} y2={top} stroke="var(--soft)" strokeDasharray="4 3" />
      {stacks.placed.map(({ item: { name, decides, rows }, at }) => {
        const reach = Math.max(
          1e-12,
          ...rows.flatMap((r) => [r.estimate, r.low ?? 0, r.high ?? 0].map(Math.abs)),
        );
        const x = (v: number) => middle + (v / reach) * ((to - from) / 2 - 8);
        return (
          <g key={name}>
            <text x={12} y={at + 16} fontFamily={fonts.serif} fontSize={15} fontWeight={600}>
              {name}
              {decides ? ' · decides' : ''}
            </text>
            {rows.map((r, i) => {
              const y = at + 34 + i * high;
              const line = y - 4 + below;
              return (
                <g key={r.key}>
                  <TileMark index={r.index} x={20} y={y - 4} size={13} />
                  <text x={32} y={y} clipPath="none">
                    {r.name.length > 19 ? `${r.name.slice(0, 18)}…` : r.name}
                  </text>
                  {r.low !== null && (
                    <line
                      x1={x(r.low)}
                      x2={x(r.high!)}
                      y1={line}
                      y2={line}
                      stroke={inkOf(r.index)}
                      strokeWidth={2.5}
                    />
                  )}
                  <rect
                    x={x(r.estimate) - 4}
                    y={line - 4}
                    width={8}
                    height={8}
                    fill={r.low === null ? 'var(--sheet)' : inkOf(r.index)}
                    stroke={inkOf(r.index)}
                  />
                  <text
                    x={narrow ? to : to + 12}
                    y={y}
                    textAnchor={narrow ? 'end' : 'start'}
                    fontFamily={fonts.mono}
                    fontSize={11.5}
                  >
                    {r.said}
                  </text>
                </g>
              );
            })}
            <line
              x1={12}
              x2={width - 12}
              y1={at + 28 + rows.length * high}
              y2={at + 28 + rows.length * high}
              stroke="var(--line)"
            />
          </g>
        );
      })}
    </Picture>
  );
}
