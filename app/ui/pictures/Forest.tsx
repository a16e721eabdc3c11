import { fonts } from '../colours';
import { Picture, TileMark, inkOf } from './Picture';
import { stackedBelow } from './lanes';

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

const [WIDTH, NAME, FROM, TO] = [640, 150, 170, 430];

/** Every trait against the control, each on a scale of its own: right of the line is better. */
export function Forest({ traits, control, label, file }: Props) {
  const middle = (FROM + TO) / 2;
  const stacks = stackedBelow(traits, 34, (t) => 34 + t.rows.length * 22);
  const top = stacks.bottom;
  return (
    <Picture
      width={WIDTH}
      height={top + 8}
      label={label}
      file={file}
      caption={`Against ${control}, right of the line is better. Each trait has a scale of its own; a line is the interval that holds for all contenders together.`}
    >
      <text x={FROM} y={18} fill="var(--soft)">
        ← worse
      </text>
      <text x={TO} y={18} textAnchor="end" fill="var(--soft)">
        better →
      </text>
      <line x1={middle} x2={middle} y1={26} y2={top} stroke="var(--soft)" strokeDasharray="4 3" />
      {stacks.placed.map(({ item: { name, decides, rows }, at }) => {
        const reach = Math.max(
          1e-12,
          ...rows.flatMap((r) => [r.estimate, r.low ?? 0, r.high ?? 0].map(Math.abs)),
        );
        const x = (v: number) => middle + (v / reach) * ((TO - FROM) / 2 - 8);
        return (
          <g key={name}>
            <text x={12} y={at + 16} fontFamily={fonts.serif} fontSize={15} fontWeight={600}>
              {name}
              {decides ? ' · decides' : ''}
            </text>
            {rows.map((r, i) => {
              const y = at + 34 + i * 22;
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
                      y1={y - 4}
                      y2={y - 4}
                      stroke={inkOf(r.index)}
                      strokeWidth={2.5}
                    />
                  )}
                  <rect
                    x={x(r.estimate) - 4}
                    y={y - 8}
                    width={8}
                    height={8}
                    fill={r.low === null ? 'var(--sheet)' : inkOf(r.index)}
                    stroke={inkOf(r.index)}
                  />
                  <text x={TO + 12} y={y} fontFamily={fonts.mono} fontSize={11.5}>
                    {r.said}
                  </text>
                </g>
              );
            })}
            <line
              x1={NAME - 138}
              x2={WIDTH - 12}
              y1={at + 28 + rows.length * 22}
              y2={at + 28 + rows.length * 22}
              stroke="var(--line)"
            />
          </g>
        );
      })}
    </Picture>
  );
}
