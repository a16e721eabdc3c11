import { formatFigure } from '~core/quantity/format';
import type { Plan } from '~core/model/plan';
import { planIndex } from '~core/plan/planIndex';
import { fonts } from '../colours';
import { Picture, TileMark } from './Picture';
import { stackedBelow } from './lanes';
import { usePictureWidth } from './usePictureWidth';

interface Props {
  plan: Plan;
  /** by unit: in standard errors, null where nothing is left over */
  residuals: ReadonlyMap<string, number | null>;
  label: string;
  file: string;
}

const [CELL_W, CELL_H] = [66, 46];

/** The plan from above, each unit by how far it lies from what contender and block let one expect. */
export function ResidualPlan({ plan, residuals, label, file }: Props) {
  const { width } = usePictureWidth();
  const of = planIndex(plan);
  const scaleOf = (area: Plan['areas'][number]) => Math.min(1, (width - 24) / (area.columns * CELL_W));
  const { placed, bottom } = stackedBelow(plan.areas, 8, (a) => 34 + a.rows * CELL_H * scaleOf(a));
  const areas = placed.map(({ item: area, at }) => ({ area, at, scale: scaleOf(area) }));
  const said = (r: number) => `${r > 0 ? '+' : r < 0 ? '−' : ''}${formatFigure(Math.abs(r), 1)}`;
  return (
    <Picture
      width={width}
      height={bottom + 4}
      label={label}
      file={file}
      caption="What is left over in each place, in standard errors: + grew more than its contender and block let one expect, − less. A pattern says that the place played a part."
    >
      {areas.map(({ area, at, scale }) => (
        <g key={area.id}>
          <text x={12} y={at + 16} fill="var(--soft)">
            {area.name}
          </text>
          {plan.units.flatMap((u) => {
            if (u.position.areaId !== area.id || !residuals.has(u.id)) return [];
            const r = residuals.get(u.id) ?? null;
            const x = 12 + u.position.column * CELL_W * scale;
            const y = at + 24 + u.position.row * CELL_H * scale;
            const [w, h] = [CELL_W * scale - 3, CELL_H * scale - 3];
            return [
              <g key={u.id}>
                <title>{`${u.code} ${r === null ? '' : said(r)}`}</title>
                <rect
                  x={x}
                  y={y}
                  width={w}
                  height={h}
                  fill={r === null || r >= 0 ? 'var(--ochre)' : 'var(--lapis)'}
                  fillOpacity={Math.min(0.55, Math.abs(r ?? 0) * 0.18)}
                  stroke="var(--line)"
                />
                <TileMark index={of.treatmentOrder(u.treatmentId)} x={x + 10} y={y + 11} size={12} />
                <text
                  x={x + w - 4}
                  y={y + h - 6}
                  textAnchor="end"
                  fontFamily={fonts.mono}
                  fontSize={12 * Math.max(0.8, scale)}
                >
                  {r === null ? '' : said(r)}
                </text>
              </g>,
            ];
          })}
        </g>
      ))}
    </Picture>
  );
}
