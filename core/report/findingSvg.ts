import type { Finding, FindingUnit } from '../account/finding';
import { soleControl } from '../account/outcomes';
import type { Trait } from '../model/plan';
import { printable } from './printable';
import { tesseraStyle } from './tessera';

/** What a picture is drawn in. */
export interface PictureInk {
  sheet: string;
  sunk: string;
  ink: string;
  soft: string;
  line: string;
  /** colours of the tiles, in the contenders' order; they begin anew after the last */
  tiles: readonly string[];
}

interface Shape {
  finding: Finding;
  /** contenders in the plan's order */
  lanes: readonly { id: string; name: string; index: number }[];
  /** what a value stands for */
  per: string;
  /** nothing marks the control */
  unmarked: boolean;
  ink: PictureInk;
  fonts?: typeof plainFonts;
}

const WIDTH = 640;
const [LEFT, RIGHT, TILE] = [20, 24, 14];
/** Faces every maker of PDFs has. */
const plainFonts = {
  serif: 'Georgia, serif',
  sans: 'Helvetica, Arial, sans-serif',
  mono: 'Courier, monospace',
};

/** The page’s own faces, for a picture that stands in the page. */
export const pageFonts = {
  serif: 'Fraunces Variable, Fraunces, Georgia, serif',
  sans: 'Source Sans 3 Variable, Source Sans 3, system-ui, sans-serif',
  mono: 'Source Sans 3 Variable, Source Sans 3, system-ui, sans-serif',
};

const escaped = (text: string) => printable(text).replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

/** Round steps between two figures, about so many. @example ticksBetween(0, 10, 5) // [0, 2, 4, 6, 8, 10] */
export function ticksBetween(low: number, high: number, about: number): number[] {
  const raw = (high - low) / about;
  if (!(raw > 0) || !Number.isFinite(raw)) return [low];
  const power = 10 ** Math.floor(Math.log10(raw));
  const step = power * ([1, 2, 5, 10].find((m) => m * power >= raw) ?? 10);
  const from = Math.ceil(low / step - 1e-9);
  const to = Math.floor(high / step + 1e-9);
  return Array.from({ length: to - from + 1 }, (_, i) => Number(((from + i) * step).toPrecision(12)));
}

/** Units of nearly the same value stacked, so that every one is seen. */
function stacked(units: readonly FindingUnit[], near: number): { unit: FindingUnit; level: number }[] {
  const placed: { unit: FindingUnit; level: number }[] = [];
  for (const unit of [...units].sort((a, b) => a.value - b.value)) {
    const taken = placed.filter((p) => Math.abs(p.unit.value - unit.value) < near).map((p) => p.level);
    let level = 0;
    while (taken.includes(level)) level += 1;
    placed.push({ unit, level });
  }
  return placed;
}

/** What stands at the axis of a finding's picture. @example axisTitle(trait, 'tray') // 'cut weight, g per tray' */
export const axisTitle = (trait: Trait, per: string): string =>
  `${trait.name.toLowerCase()}${trait.unit ? `, ${trait.unit}` : ''}${trait.per ? '' : ` per ${per}`}`;

/**
 * A finding as a picture of its own, where there is no screen to draw on: every unit as its contender's tile, the figure
 * and its interval below, the control's line and the band of differences too small to matter behind.
 *
 * @returns SVG text, 640 wide
 */
export function findingSvg({ finding, lanes, per, unmarked, ink, fonts = plainFonts }: Shape): string {
  const { analysis, trait, units, smallestDifference } = finding;
  const shown = lanes.filter((l) => analysis.summaries.some((s) => s.name === l.id));
  const colour = (index: number) => ink.tiles[index % ink.tiles.length]!;
  const band = trait.direction === 'band' ? [trait.bandLow!, trait.bandHigh!] : null;
  const values = [
    ...units.map((u) => u.value),
    ...(band ?? analysis.summaries.flatMap((s) => (s.low === null ? [] : [s.low, s.high!]))),
  ];
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const room = (most - least || Math.abs(most) || 1) * 0.07;
  const [min, max] = [least - room, most + room];
  const x = (v: number) => LEFT + ((v - min) / (max - min)) * (WIDTH - LEFT - RIGHT);
  const near = ((max - min) * (TILE + 1)) / (WIDTH - LEFT - RIGHT);
  const stacks = shown.map((l) => stacked(units.filter((u) => u.treatmentId === l.id), near)); // prettier-ignore
  const highest = 1 + Math.max(0, ...stacks.flat().map((s) => s.level));
  const lane = 68 + (highest - 1) * (TILE + 1);
  const bottom = 8 + shown.length * lane;
  const sole = unmarked ? null : soleControl(finding);
  const control = analysis.summaries.find((s) => s.name === sole);
  const shade: [number, number] | null = band
    ? [band[0]!, band[1]!]
    : !control || smallestDifference === null
      ? null
      : [control.estimate - smallestDifference, control.estimate + smallestDifference];
  const out: string[] = [];
  if (shade) {
    const [from, to] = shade.map((v) => Math.min(WIDTH - RIGHT, Math.max(LEFT, x(v)))) as [number, number];
    out.push(`<rect x="${from}" y="4" width="${to - from}" height="${bottom - 4}" fill="${ink.sunk}"/>`);
  }
  if (!band && control && control.shown === undefined) {
    const at = x(control.estimate);
    out.push(
      `<line x1="${at}" x2="${at}" y1="4" y2="${bottom}" stroke="${colour(shown.find((l) => l.id === sole)?.index ?? 0)}" stroke-dasharray="4 3"/>`,
    );
  }
  shown.forEach((l, i) => {
    const top = 8 + i * lane;
    const own = colour(l.index);
    out.push(
      `<text x="${LEFT + 10}" y="${top + 18}" font-family="${fonts.serif}" font-size="16" font-weight="bold" fill="${own}">${escaped(l.name)}</text>`,
    );
    const { path } = tesseraStyle(l.index);
    for (const { unit, level } of stacks[i]!) {
      const [cx, cy] = [x(unit.value) - TILE / 2, top + lane - 46 - level * (TILE + 1)];
      out.push(
        `<g transform="translate(${cx} ${cy}) scale(${TILE / 24})"><rect x="1" y="1" width="22" height="22" rx="4" fill="${ink.sheet}"/><path d="${path}" fill="${own}" fill-rule="evenodd"/><rect x="1" y="1" width="22" height="22" rx="4" fill="none" stroke="${own}" stroke-width="2"/></g>`,
      );
    }
    const s = analysis.summaries.find((t) => t.name === l.id)!;
    if (band || s.shown !== undefined) return;
    const line = top + lane - 18;
    if (s.low !== null)
      out.push(
        `<line x1="${x(s.low)}" x2="${x(s.high!)}" y1="${line}" y2="${line}" stroke="${own}" stroke-width="2.5"/>`,
      );
    out.push(
      `<line x1="${x(s.estimate)}" x2="${x(s.estimate)}" y1="${line - 7}" y2="${line + 7}" stroke="${own}" stroke-width="3.5"/>`,
    );
  });
  out.push(`<line x1="${LEFT}" x2="${WIDTH - RIGHT}" y1="${bottom}" y2="${bottom}" stroke="${ink.line}"/>`);
  for (const t of ticksBetween(min, max, 6))
    out.push(
      `<text x="${x(t)}" y="${bottom + 20}" text-anchor="middle" font-family="${fonts.mono}" font-size="12" fill="${ink.soft}">${String(t).replace('-', '−')}</text>`,
    );
  const what = axisTitle(trait, per);
  out.push(
    `<text x="${WIDTH - RIGHT}" y="${bottom + 40}" text-anchor="end" font-family="${fonts.sans}" font-size="13" fill="${ink.soft}">${escaped(what)}</text>`,
  );
  const height = bottom + 52;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${height}" viewBox="0 0 ${WIDTH} ${height}"><rect width="${WIDTH}" height="${height}" fill="${ink.sheet}"/>${out.join('')}</svg>`;
}
