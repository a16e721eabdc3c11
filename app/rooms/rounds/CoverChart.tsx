import {
  Chart,
  type ChartConfiguration,
  LineController,
  LineElement,
  LinearScale,
  PointElement,
} from 'chart.js';
import { Line } from 'react-chartjs-2';
import type { Plan } from '~core/model/plan';
import { mono, sans } from '../../ui/theme';
import { cssColour, tesseraStyle } from '../../ui/tesserae';
import { useChartFonts } from '../../ui/useChartFonts';
import type { Photo } from './photoData';
import '../../ui/chart.css';

Chart.register(LineController, LineElement, PointElement, LinearScale);

/** Cover of every unit over the days, coloured by contender. */
export function CoverChart({ plan, photos }: { plan: Plan; photos: readonly Photo[] }) {
  const ready = useChartFonts();
  const units = plan.units.flatMap((u) => {
    const points = photos.flatMap((p) =>
      p.unitId === u.id && p.cover ? [{ x: p.day, y: p.cover.coverPercent }] : [],
    );
    return points.length === 0 ? [] : [{ unit: u, points }];
  });
  if (units.length === 0 || !ready) return null;
  const [soft, line] = [cssColour('--soft'), cssColour('--line')];
  const font = { family: mono, size: 11 };
  const options: ChartConfiguration<'line', { x: number; y: number }[]>['options'] = {
    animation: false,
    responsive: true,
    maintainAspectRatio: false,
    plugins: { legend: { display: false }, tooltip: { enabled: false } },
    scales: {
      x: {
        type: 'linear',
        title: { display: true, text: 'day', color: soft, font: { family: sans } },
        ticks: { color: soft, font, precision: 0 },
        grid: { display: false },
        border: { color: line },
      },
      y: {
        min: 0,
        max: 100,
        title: { display: true, text: 'cover, %', color: soft, font: { family: sans } },
        ticks: { color: soft, font },
        grid: { color: line },
        border: { display: false },
      },
    },
  };
  const data = {
    datasets: units.map(({ unit, points }) => {
      const colour = cssColour(
        tesseraStyle(plan.treatments.findIndex((t) => t.id === unit.treatmentId)).colour,
      );
      return {
        label: unit.code,
        data: points,
        borderColor: colour,
        backgroundColor: colour,
        borderWidth: 1.2,
        pointRadius: 2.5,
      };
    }),
  };
  return (
    <div className="chart-box" style={{ height: 220 }}>
      <Line
        data={data}
        options={options}
        role="img"
        aria-label={`Cover of ${units.length} units by day, from ${units.map((u) => `${u.unit.code} ${u.points.at(-1)!.y.toFixed(0)} %`).join(', ')}`}
      />
    </div>
  );
}
