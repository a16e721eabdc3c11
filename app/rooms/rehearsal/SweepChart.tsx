import {
  CategoryScale,
  Chart,
  LineController,
  LineElement,
  LinearScale,
  PointElement,
  type ChartConfiguration,
} from 'chart.js';
import { Line } from 'react-chartjs-2';
import type { RehearsalResult } from '~core/design/rehearsal';
import { cssColour } from '../../ui/tesserae';
import { useChartFonts } from '../../ui/useChartFonts';
import { mono, sans } from '../../ui/theme';
import '../../ui/chart.css';

Chart.register(LineController, LineElement, PointElement, LinearScale, CategoryScale);

function config(
  sweep: RehearsalResult['sweep'],
): Pick<ChartConfiguration<'line', { x: number; y: number }[]>, 'data' | 'options' | 'plugins'> {
  const soft = cssColour('--soft');
  const line = cssColour('--line');
  const series = (colour: string, dash: number[], pick: (s: (typeof sweep)[number]) => number) => ({
    data: sweep.map((s) => ({ x: s.percent, y: 100 * pick(s) })),
    borderColor: cssColour(colour),
    backgroundColor: cssColour(colour),
    borderDash: dash,
    borderWidth: 2,
    pointRadius: 4,
  });
  return {
    data: {
      datasets: [
        series('--verdigris', [], (s) => s.outcome.right),
        series('--soft', [3, 4], (s) => s.outcome.tooClose),
        series('--porphyry', [8, 3], (s) => s.outcome.falseWinner),
      ],
    },
    options: {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      layout: { padding: { right: 90, top: 8 } },
      plugins: { legend: { display: false }, tooltip: { enabled: false } },
      scales: {
        x: {
          type: 'linear',
          min: 0,
          title: {
            display: true,
            text: 'true difference, %',
            color: soft,
            font: { family: sans },
          },
          ticks: { color: soft, font: { family: mono } },
          grid: { display: false },
          border: { color: line },
        },
        y: {
          min: 0,
          max: 100,
          title: { display: true, text: 'of 100 runs', color: soft, font: { family: sans } },
          ticks: { color: soft, font: { family: mono }, stepSize: 20 },
          grid: { color: line },
          border: { display: false },
        },
      },
    },
    plugins: [
      {
        id: 'names',
        // Each line is named at its end instead of in a legend.
        afterDraw: (chart) => {
          const names = ['right', 'too close', 'false'];
          const ends = names
            .map((name, i) => ({ name, i, at: chart.getDatasetMeta(i).data.at(-1) }))
            .filter((e) => e.at)
            .sort((a, b) => a.at!.y - b.at!.y);
          let last = -Infinity;
          chart.ctx.save();
          chart.ctx.font = `600 14px ${sans}`;
          chart.ctx.textBaseline = 'middle';
          for (const { name, i, at } of ends) {
            const y = Math.max(at!.y, last + 16);
            last = y;
            chart.ctx.fillStyle = chart.data.datasets[i]!.borderColor as string;
            chart.ctx.fillText(name, at!.x + 10, y);
          }
          chart.ctx.restore();
        },
      },
    ],
  };
}

/** Chance of each outcome over a sweep of true differences. */
export function SweepChart({ sweep }: { sweep: RehearsalResult['sweep'] }) {
  const ready = useChartFonts();
  const sentence = sweep
    .map((s) => `${s.percent} %: right in ${Math.round(100 * s.outcome.right)}`)
    .join('; ');
  return (
    <figure className="figure-box" style={{ margin: 0 }}>
      <div style={{ position: 'relative', height: 240 }}>
        {ready && (
          <Line {...config(sweep)} role="img" aria-label={`Of 100 runs at a difference of ${sentence}.`} />
        )}
      </div>
    </figure>
  );
}
