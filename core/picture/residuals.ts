import type { Plan } from '../model/plan';
import { planIndex } from '../plan/planIndex';
import { formatFigure } from '../quantity/format';
import { stackedBelow } from './axes';
import type { Drawing, Mark, Room } from './marks';

const [CELL_W, CELL_H] = [66, 46];
/** A position is drawn so many times larger at most, where there is room. */
const MOST = 1.7;
const figure = (r: number | null) =>
  r === null ? '' : `${r > 0 ? '+' : r < 0 ? '−' : ''}${formatFigure(Math.abs(r), 1)}`;

/**
 * The plan from above, each unit by how far it lies from what contender and block let one expect.
 * @param residuals by unit: in standard errors, null where nothing is left over
 */
export function residualPlan(
  plan: Plan,
  residuals: ReadonlyMap<string, number | null>,
  { width }: Room,
): Drawing {
  const of = planIndex(plan);
  const scaleOf = (area: Plan['areas'][number]) => Math.min(MOST, (width - 24) / (area.columns * CELL_W));
  const { placed, bottom } = stackedBelow(plan.areas, 8, (a) => 34 + a.rows * CELL_H * scaleOf(a));
  const marks = placed.flatMap(({ item: area, at }): Mark[] => {
    const scale = scaleOf(area);
    const [w, h] = [CELL_W * scale - 3, CELL_H * scale - 3];
    const units = plan.units.filter((u) => u.position.areaId === area.id && residuals.has(u.id));
    return [
      { mark: 'text', at: [12, at + 16], text: area.name, ink: 'soft' },
      ...units.flatMap((u): Mark[] => {
        const r = residuals.get(u.id) ?? null;
        const x = 12 + u.position.column * CELL_W * scale;
        const y = at + 24 + u.position.row * CELL_H * scale;
        return [
          {
            ...{ mark: 'rect', at: [x, y], width: w, height: h, stroke: 'line' },
            fill: r === null || r >= 0 ? 'ochre' : 'lapis',
            ...{ tint: Math.min(0.55, Math.abs(r ?? 0) * 0.18), said: `${u.code} ${figure(r)}` },
          },
          { mark: 'tile', at: [x + 10, y + 11], index: of.treatmentOrder(u.treatmentId), size: 12 },
          {
            ...{ mark: 'text', at: [x + w - 4, y + h - 6], text: figure(r), anchor: 'end' },
            ...{ face: 'mono', size: 12 * Math.min(1.2, Math.max(0.8, scale)) },
          },
        ];
      }),
    ];
  });
  return { width, height: bottom + 4, marks };
}
