import {
  Chart,
  type ChartConfiguration,
  LineController,
  LineElement,
  LinearScale,
  PointElement,
} from 'chart.js';
import { Line } from 'react-chartjs-2';
import type { Plan, Unit } from '~core/model/plan';
import { mono, sans } from './theme';
import { cssColour } from './tesserae';
import { useTileOf } from './Tiles';
import { useChartFonts } from './useChartFonts';
import './chart.css';

Chart.register(LineController, LineElement, PointElement, LinearScale);

interface Props {
  plan: Plan;
  /** a line for each unit, by day of the trial */
  lines: readonly { unit: Unit; points: { x: number; y: number }[] }[];
  /** what the figures are, with their unit */
  what: string;
  /** highest figure there can be; left out: as the figures go */
  most?: number;
  /** steps from day to day, as what adds up does */
  stepped?: boolean;
  label: string;
}

/** Every unit’s line over the days, coloured by contender. */
export function UnitLines({ plan, lines, what, most, stepped = false, label }: Props) {
  const tileOf = useTileOf();
  const ready = useChartFonts();
  if (lines.length === 0 || !ready) return null;
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
        ...(most !== undefined && { max: most }),
        title: { display: true, text: what, color: soft, font: { family: sans } },
        ticks: { color: soft, font },
        grid: { color: line },
        border: { display: false },
      },
    },
  };
  const data = {
    datasets: lines.map(({ unit, points }) => {
      const colour = cssColour(tileOf(plan.treatments.findIndex((t) => t.id === unit.treatmentId)).colour);
      return {
        label: unit.code,
        data: points,
        borderColor: colour,
        backgroundColor: colour,
        borderWidth: 1.2,
        pointRadius: 2.5,
        stepped,
      };
    }),
  };
  return (
    <div className="chart-box" style={{ height: 220 }}>
      <Line data={data} options={options} role="img" aria-label={label} />
    </div>
  );
}
