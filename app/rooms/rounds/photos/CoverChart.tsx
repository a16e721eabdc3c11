import { formatFigure } from '~core/quantity/format';
import type { Plan } from '~core/model/plan';
import { UnitLines } from '../../../ui/UnitLines';
import type { Photo } from './photoData';

/** Cover of every unit over the days, coloured by contender. */
export function CoverChart({ plan, photos }: { plan: Plan; photos: readonly Photo[] }) {
  const lines = plan.units.flatMap((unit) => {
    const points = photos.flatMap((p) =>
      p.unitId === unit.id && p.cover ? [{ x: p.day, y: p.cover.coverPercent }] : [],
    );
    return points.length === 0 ? [] : [{ unit, points }];
  });
  return (
    <UnitLines
      plan={plan}
      lines={lines}
      what="cover, %"
      most={100}
      label={`Cover of ${lines.length} units by day, from ${lines.map((l) => `${l.unit.code} ${formatFigure(l.points.at(-1)!.y, 0)} %`).join(', ')}`}
    />
  );
}
