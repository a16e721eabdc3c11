import { axisTitle } from '~core/report/findingSvg';
import { formatFigure } from '~core/quantity/format';
import {
  Chart,
  LinearScale,
  PointElement,
  ScatterController,
  Tooltip,
  type ChartConfiguration,
  type Plugin,
} from 'chart.js';
import type { Finding, FindingUnit } from '~core/account/finding';
import { soleControl } from '~core/account/outcomes';
import { cssColour, drawTessera, tesseraStyle, withDayColours } from './tesserae';
import { mono, sans, serif } from './theme';

Chart.register(ScatterController, LinearScale, PointElement, Tooltip);

interface Point {
  x: number;
  y: number;
  unit: FindingUnit;
}

export interface ChartInput {
  finding: Finding;
  /** treatment ids and names in the order of the lanes */
  lanes: { id: string; name: string; index: number }[];
  /** what a value stands for */
  per: string;
  /** names are hidden: nothing marks the control */
  blind?: boolean;
  /** canvas pixels per CSS pixel */
  scale: number;
}

const TILE = 14;
const TILE_STEP = TILE + 1;
const AXIS_HEIGHT = 66;

/** Heights inside a lane, from its top, in CSS pixels; a lane is as high as its highest stack needs. */
function laneOf(highestStack: number) {
  const tiles = 26 + TILE_STEP * (highestStack - 1) + TILE / 2;
  return { label: 13, tiles, interval: tiles + 22, height: tiles + 42 };
}

/** Units of nearly the same value are stacked, so that every one is seen. @returns unit and its level, from 0 */
function stacked(units: readonly FindingUnit[], tileWidth: number): { unit: FindingUnit; level: number }[] {
  const placed: { unit: FindingUnit; level: number }[] = [];
  for (const unit of [...units].sort((a, b) => a.value - b.value)) {
    const near = placed.filter((p) => Math.abs(p.unit.value - unit.value) < tileWidth).map((p) => p.level);
    let level = 0;
    while (near.includes(level)) level += 1;
    placed.push({ unit, level });
  }
  return placed;
}

/** Where everything stands for a width: the value axis, the stacks and the lanes. */
function arrange({ finding, lanes }: Pick<ChartInput, 'finding' | 'lanes'>, width: number) {
  const [min, max] = axisSpan(finding);
  const tileWidth = ((max - min) * TILE_STEP) / Math.max(200, width - 40);
  const stacks = lanes.map((lane) =>
    stacked(
      finding.units.filter((u) => u.treatmentId === lane.id),
      tileWidth,
    ),
  );
  const lane = laneOf(1 + Math.max(0, ...stacks.flat().map((s) => s.level)));
  return { min, max, stacks, lane };
}

/** The span of the value axis, with room beside the outermost tile. */
function axisSpan(finding: Finding): [number, number] {
  const values = [
    ...finding.units.map((u) => u.value),
    ...finding.leftOut.flatMap((u) => (u.value === null ? [] : [u.value])),
    ...(finding.trait.direction === 'band'
      ? [finding.trait.bandLow!, finding.trait.bandHigh!]
      : finding.analysis.summaries.flatMap((t) => (t.low === null ? [] : [t.low, t.high!]))),
  ];
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const room = (high - low || Math.abs(high) || 1) * 0.07;
  return [low - room, high + room];
}

/** Draws what Chart.js has no element for: the band, the control's line, lane names, means and intervals. */
function annotations(
  { finding, lanes, blind }: ChartInput,
  inLane: ReturnType<typeof laneOf>,
): Plugin<'scatter'> {
  const { analysis, trait, smallestDifference } = finding;
  const isBand = trait.direction === 'band';
  const sole = blind ? null : soleControl(finding);
  const control = analysis.summaries.find((t) => t.name === sole);
  return {
    id: 'palazzo',
    beforeDraw: ({ ctx, width, height }) => {
      ctx.save();
      ctx.fillStyle = cssColour('--sheet');
      ctx.fillRect(0, 0, width, height);
      ctx.restore();
    },
    beforeDatasetsDraw: (chart) => {
      const { ctx, chartArea: area, scales } = chart;
      const x = (v: number) => scales.x!.getPixelForValue(v);
      ctx.save();
      const band: [number, number] | null = isBand
        ? [trait.bandLow!, trait.bandHigh!]
        : smallestDifference === null || !control
          ? null
          : [control.estimate - smallestDifference, control.estimate + smallestDifference];
      if (band) {
        const from = Math.max(x(band[0]), area.left);
        ctx.fillStyle = cssColour('--sunk');
        ctx.fillRect(from, area.top, Math.min(x(band[1]), area.right) - from, area.height);
      }
      if (!isBand && control) {
        ctx.strokeStyle = cssColour(tesseraStyle(lanes.find((l) => l.id === sole)?.index ?? 0).colour);
        ctx.setLineDash([4, 3]);
        ctx.beginPath();
        ctx.moveTo(x(control.estimate), area.top);
        ctx.lineTo(x(control.estimate), area.bottom);
        ctx.stroke();
      }
      ctx.restore();
    },
    afterDatasetsDraw: (chart) => {
      const { ctx, chartArea: area, scales } = chart;
      const x = (v: number) => scales.x!.getPixelForValue(v);
      const y = (v: number) => scales.y!.getPixelForValue(v);
      ctx.save();
      lanes.forEach((lane, i) => {
        for (const point of chart.getDatasetMeta(i).data)
          drawTessera(ctx, lane.index, point.x, point.y, TILE);
        const colour = cssColour(tesseraStyle(lane.index).colour);
        ctx.fillStyle = colour;
        ctx.font = `600 16px ${serif}`;
        ctx.textBaseline = 'middle';
        ctx.fillText(lane.name, area.left + 10, y(i * inLane.height + inLane.label));
        const t = analysis.summaries.find((c) => c.name === lane.id);
        if (!t || isBand || t.shown !== undefined) return;
        ctx.strokeStyle = colour;
        const line = y(i * inLane.height + inLane.interval);
        if (t.low !== null) {
          ctx.lineWidth = 2.5;
          ctx.beginPath();
          ctx.moveTo(x(t.low), line);
          ctx.lineTo(x(t.high!), line);
          ctx.stroke();
        }
        ctx.lineWidth = 3.5;
        ctx.beginPath();
        ctx.moveTo(x(t.estimate), line - 7);
        ctx.lineTo(x(t.estimate), line + 7);
        ctx.stroke();
      });
      ctx.restore();
    },
  };
}

/** Chart.js configuration: every unit as its tile, by lane; mean and interval below the tiles. */
export function findingChartConfig(input: ChartInput, width: number): ChartConfiguration<'scatter', Point[]> {
  const { finding, lanes, per, scale } = input;
  const { min, max, stacks, lane: inLane } = arrange(input, width);
  const { trait } = finding;
  return {
    type: 'scatter',
    data: {
      datasets: lanes.map((lane, i) => ({
        label: lane.name,
        data: stacks[i]!.map(({ unit, level }) => ({
          x: unit.value,
          y: i * inLane.height + inLane.tiles - level * TILE_STEP,
          unit,
        })),
        // The tiles are drawn below, as paths: sharp on any screen and in print.
        pointStyle: false as const,
        pointRadius: TILE / 2,
        pointHitRadius: 10,
      })),
    },
    options: {
      animation: false,
      responsive: false,
      devicePixelRatio: scale,
      layout: { padding: { right: 14, top: 4 } },
      scales: {
        y: { min: 0, max: lanes.length * inLane.height, reverse: true, display: false },
        x: {
          min,
          max,
          border: { color: cssColour('--line') },
          grid: { display: false },
          ticks: {
            font: { family: mono, size: 13 },
            color: cssColour('--soft'),
            includeBounds: false,
            maxTicksLimit: 7,
          },
          title: {
            display: true,
            align: 'end',
            text: axisTitle(trait, per),
            font: { family: sans, size: 14 },
            color: cssColour('--soft'),
          },
        },
      },
      plugins: {
        tooltip: {
          callbacks: {
            label: (item) => {
              const { unit } = item.raw as Point;
              return `${unit.code}: ${formatFigure(unit.value, trait.decimals)} ${trait.unit}`;
            },
          },
        },
      },
    },
    plugins: [annotations(input, inLane)],
  };
}

/** Height a chart needs for its lanes at a width, CSS pixels. */
export function chartHeight(input: Pick<ChartInput, 'finding' | 'lanes'>, width: number): number {
  return AXIS_HEIGHT + input.lanes.length * arrange(input, width).lane.height;
}

/** The fonts a canvas draws with must be there first. */
export async function chartFonts(): Promise<void> {
  await Promise.all([
    document.fonts.load(`600 16px ${serif}`),
    document.fonts.load(`14px ${sans}`),
    document.fonts.load(`13px ${mono}`),
  ]);
}

/** The chart as a PNG data URI, four pixels a point: sharp in print. */
export async function findingPng(input: Omit<ChartInput, 'scale'>, width = 640): Promise<string> {
  await chartFonts();
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = chartHeight(input, width);
  return withDayColours(() => {
    const chart = new Chart(canvas, findingChartConfig({ ...input, scale: 4 }, width));
    const uri = chart.toBase64Image('image/png', 1);
    chart.destroy();
    return uri;
  });
}

export { Chart };
