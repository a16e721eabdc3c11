import { dayLocale } from '../../../ui/region';
import { formatFigure } from '~core/quantity/format';
import {
  Chart,
  type ChartConfiguration,
  LineController,
  LineElement,
  LinearScale,
  type Plugin,
  PointElement,
} from 'chart.js';
import dayjs from 'dayjs';
import { Line } from 'react-chartjs-2';
import { NIGHT } from '~core/series/placesCompared';
import { useChartFonts } from '../../../ui/useChartFonts';
import { mono, sans } from '../../../ui/theme';
import { cssColour } from '../../../ui/tesserae';
import type { AirLine } from './airData';
import '../../../ui/chart.css';

Chart.register(LineController, LineElement, PointElement, LinearScale);

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
/** Places are told apart by stroke: a colour belongs to a contender. */
const strokes = [
  { colour: '--ink', dash: [] },
  { colour: '--soft', dash: [5, 3] },
  { colour: '--ink', dash: [1, 3] },
  { colour: '--soft', dash: [9, 3, 2, 3] },
] as const;
const strokeOf = (i: number) => strokes[i % strokes.length]!;
const DASHES = ['solid', 'dashed', 'dotted', 'dashes and dots'];

/** A day of the clock on the wall, to the nearest hour: ticks are reckoned with a rounding error. */
function dayWords(ms: number): string {
  const day = new Date(Math.round(ms / HOUR_MS) * HOUR_MS);
  return new Intl.DateTimeFormat(dayLocale(), { day: 'numeric', month: 'short', timeZone: 'UTC' }).format(
    day,
  );
}

/** Nights by the clock, behind the lines. */
const nights: Plugin<'line'> = {
  id: 'nights',
  beforeDatasetsDraw: ({ ctx, chartArea, scales }) => {
    const x = scales.x!;
    ctx.save();
    ctx.fillStyle = `${cssColour('--ink')}12`;
    for (let day = Math.floor(x.min / DAY_MS) - 1; day * DAY_MS < x.max; day++) {
      const from = x.getPixelForValue(Math.max(x.min, day * DAY_MS + NIGHT.from * HOUR_MS));
      const to = x.getPixelForValue(Math.min(x.max, (day + 1) * DAY_MS + NIGHT.to * HOUR_MS));
      if (to > from) ctx.fillRect(from, chartArea.top, to - from, chartArea.bottom - chartArea.top);
    }
    ctx.restore();
  },
};

function config(lines: readonly AirLine[], band: readonly [number | null, number | null] | undefined) {
  const [soft, line] = [cssColour('--soft'), cssColour('--line')];
  const xs = lines.flatMap((l) => [l.points[0]!.x, l.points.at(-1)!.x]);
  const [from, to] = [Math.min(...xs), Math.max(...xs)];
  const edges = (band ?? []).flatMap((y) =>
    y === null
      ? []
      : [
          {
            label: 'wanted',
            data: [
              { x: from, y },
              { x: to, y },
            ],
            borderColor: cssColour('--verdigris'),
            borderDash: [4, 3],
            borderWidth: 1,
            pointRadius: 0,
          },
        ],
  );
  const font = { family: mono, size: 11 };
  const options: ChartConfiguration<'line', { x: number; y: number }[]>['options'] = {
    animation: false,
    responsive: true,
    maintainAspectRatio: false,
    parsing: false,
    normalized: true,
    scales: {
      x: {
        type: 'linear',
        min: Math.floor(from / DAY_MS) * DAY_MS,
        // A whole day at least: one reading stands in it, not on its edge.
        max: Math.max(to, (Math.floor(from / DAY_MS) + 1) * DAY_MS),
        grid: { display: false },
        border: { color: line },
        ticks: {
          color: soft,
          font,
          stepSize: Math.max(1, Math.ceil((to - from) / DAY_MS / 7)) * DAY_MS,
          // The clock on the wall where the logger hung.
          callback: (value) => dayWords(Number(value)),
          includeBounds: false,
        },
      },
      y: {
        grid: { color: line },
        border: { display: false },
        ticks: { color: soft, font },
        title: { display: true, text: lines[0]!.unit, color: soft, font: { family: sans, size: 12 } },
      },
    },
    plugins: { legend: { display: false }, tooltip: { enabled: false } },
  };
  return {
    data: {
      datasets: [
        ...lines.map((l, i) => ({
          label: l.place,
          data: l.points,
          borderColor: cssColour(strokeOf(i).colour),
          borderDash: [...strokeOf(i).dash],
          borderWidth: 1.2,
          showLine: !l.byHand,
          ...(l.byHand && { clip: 6 }),
          pointRadius: l.byHand ? 4 : 0,
          backgroundColor: cssColour(strokeOf(i).colour),
        })),
        ...edges,
      ],
    },
    options,
  };
}

/** One quantity at every place it was read, over the days, nights shaded. */
export function AirChart({
  lines,
  band,
}: {
  lines: readonly AirLine[];
  band: readonly [number | null, number | null] | undefined;
}) {
  const ready = useChartFonts();
  const { name, unit } = lines[0]!;
  const caption = `${name}, ${unit}, ${lines
    .map(
      (l) =>
        `${l.place}: ${formatFigure(l.extent.min, 1)} to ${formatFigure(l.extent.max, 1)}, mean ${formatFigure(l.extent.mean, 1)}`,
    )
    .join('; ')}`;
  if (!ready) return null;
  const { data, options } = config(lines, band);
  return (
    <figure className="figure-box" style={{ margin: '0 0 0.4rem' }}>
      <div style={{ height: 210, position: 'relative', overflow: 'hidden' }}>
        <Line data={data} options={options!} plugins={[nights]} role="img" aria-label={caption} />
      </div>
      {lines.length > 1 && (
        <figcaption className="small">
          {lines.map((l, i) => (
            <span
              key={l.key}
              style={{ color: `var(${strokeOf(i).colour})`, marginRight: '1rem', fontWeight: 600 }}
            >
              {l.place} ({DASHES[i % strokes.length]}){l.byHand && ', by hand (dots)'}
            </span>
          ))}
          <span className="quiet">
            {dayjs(lines[0]!.points[0]!.x).format('YYYY')}; shaded: 22 to 6 by the clock
          </span>
        </figcaption>
      )}
    </figure>
  );
}
