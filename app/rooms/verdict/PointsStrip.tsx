import type { CardCell } from '~core/scorecard/card';
import { formatFigure } from '~core/quantity/format';
import { useTileOf } from '../../ui/Tiles';

const WIDTH = 120;
const at = (points: number) => 6 + (points / 10) * (WIDTH - 12);

/** Points from 0 to 10 on a strip, with what is uncertain about them. */
export function PointsStrip({ cell, index, name }: { cell: CardCell; index: number; name: string }) {
  const ink = `var(${useTileOf()(index).colour})`;
  if (cell.points === null) return <span className="small quiet">{cell.said}</span>;
  // Where anything from 0 to 10 may be true, a figure would be a claim.
  const open = cell.low !== null && cell.high! - cell.low > 10 - 1e-9;
  const figure = open ? 'can’t be told' : formatFigure(cell.points, 1);
  const label = `${name}: ${open ? figure : `${figure} points`}${cell.said ? `, ${cell.said}` : ''}`;
  return (
    <svg viewBox={`0 0 ${WIDTH} 34`} role="img" aria-label={label} className="points-strip">
      <title>{label}</title>
      <line x1={6} x2={WIDTH - 6} y1={24} y2={24} stroke="var(--line)" />
      {[0, 5, 10].map((t) => (
        <line key={t} x1={at(t)} x2={at(t)} y1={20} y2={28} stroke="var(--line)" />
      ))}
      {cell.low !== null && (
        <line x1={at(cell.low)} x2={at(cell.high!)} y1={24} y2={24} stroke={ink} strokeWidth={4} />
      )}
      {!open && <circle cx={at(cell.points)} cy={24} r={5.5} fill={ink} />}
      <text
        x={open ? WIDTH / 2 : Math.min(WIDTH - 14, Math.max(14, at(cell.points)))}
        y={12}
        textAnchor="middle"
        fontSize={12}
        fontFamily="var(--mono)"
        fill="var(--ink)"
      >
        {figure}
      </text>
    </svg>
  );
}
