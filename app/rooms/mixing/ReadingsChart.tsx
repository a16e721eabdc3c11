import { dayLocale } from '../../ui/region';
import {
  Chart,
  type ChartConfiguration,
  Filler,
  LineController,
  LineElement,
  LinearScale,
  PointElement,
} from 'chart.js';
import { Line } from 'react-chartjs-2';
import type { TargetBand } from '~core/model/plan';
import { useChartFonts } from '../../ui/useChartFonts';
import { mono, sans } from '../../ui/theme';
import { cssColour } from '../../ui/tesserae';
import { useTileOf } from '../../ui/Tiles';
import type { Vessel } from '~core/mixing/vessels';
import '../../ui/chart.css';

Chart.register(LineController, LineElement, PointElement, LinearScale, Filler);

type Point = { x: number; y: number };

function config(
  points: Point[],
  band: readonly [number | null, number | null],
  title: string,
  colour: string,
): Pick<ChartConfiguration<'line', Point[]>, 'data' | 'options'> {
  const [soft, line, ink] = [cssColour('--soft'), cssColour('--line'), cssColour(colour)];
  const xs = points.map((p) => p.x);
  const [from, to] = [Math.min(...xs), Math.max(...xs)];
  const values = [...points.map((p) => p.y), ...band.filter((b) => b !== null)];
  const pad = Math.max(0.1, (Math.max(...values) - Math.min(...values)) * 0.15);
  const edge = (y: number) => [
    { x: from, y },
    { x: to, y },
  ];
  const [low, high] = band;
  const flat = { pointRadius: 0, borderWidth: 1, borderDash: [4, 3], borderColor: cssColour('--verdigris') };
  return {
    data: {
      datasets: [
        { data: points, borderColor: ink, backgroundColor: ink, borderWidth: 1.5, pointRadius: 4 },
        ...(low === null ? [] : [{ ...flat, data: edge(low) }]),
        ...(high === null
          ? []
          : [
              {
                ...flat,
                data: edge(high),
                fill: low === null ? false : '-1',
                backgroundColor: `${cssColour('--verdigris')}1c`,
              },
            ]),
      ],
    },
    options: {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      plugins: { legend: { display: false }, tooltip: { enabled: false } },
      scales: {
        x: {
          type: 'linear',
          ticks: {
            color: soft,
            font: { family: mono },
            maxTicksLimit: 5,
            callback: (v) =>
              new Intl.DateTimeFormat(dayLocale(), { day: 'numeric', month: 'short' }).format(Number(v)),
          },
          grid: { display: false },
          border: { color: line },
        },
        y: {
          min: Math.max(0, Math.min(...values) - pad),
          max: Math.max(...values) + pad,
          title: { display: true, text: title, color: soft, font: { family: sans } },
          ticks: { color: soft, font: { family: mono }, maxTicksLimit: 6 },
          grid: { color: line },
          border: { display: false },
        },
      },
    },
  };
}

/** Strength and pH over time, every reading a dot, the band behind. */
export function ReadingsChart({ vessel, band }: { vessel: Vessel; band: TargetBand }) {
  const series = [
    { key: 'ec', title: 'EC (strength), mS/cm', band: [band.ecLow, band.ecHigh] },
    { key: 'ph', title: 'pH', band: [band.phLow, band.phHigh] },
  ] as const;
  if (vessel.readings.ec.length + vessel.readings.ph.length === 0) {
    return (
      <p className="quiet" style={{ marginTop: '1rem' }}>
        No reading of this vessel yet. At the start and at each change is enough to see the drift.
      </p>
    );
  }
  return (
    <>
      {series.map(({ key, title, band: limits }) => {
        const readings = vessel.readings[key];
        return (
          readings.length > 0 && (
            <OneChart
              key={`${vessel.key} ${key}`}
              points={readings.map((r) => ({ x: Date.parse(r.at), y: r.value }))}
              band={limits}
              title={title}
              index={vessel.index}
              said={`${title}: ${readings.length} readings, from ${readings[0]!.value} to ${readings.at(-1)!.value}`}
            />
          )
        );
      })}
    </>
  );
}

function OneChart({
  points,
  band,
  title,
  index,
  said,
}: {
  points: Point[];
  band: readonly [number | null, number | null];
  title: string;
  index: number;
  said: string;
}) {
  const tileOf = useTileOf();
  const ready = useChartFonts();
  return (
    <div className="chart-box" style={{ height: 190, marginTop: '1rem' }}>
      {ready && <Line {...config(points, band, title, tileOf(index).colour)} role="img" aria-label={said} />}
    </div>
  );
}
