import { TILE_COLOURS } from '../model/product';

/**
 * The mosaic tile of each treatment: a colour, a pattern and a letter, so that it reads in colour, in
 * black and white and to colour-blind eyes. One geometry serves screen, canvas and print.
 */
export interface TesseraStyle {
  /** CSS variable that holds the colour, e.g. `--tile-2` */
  colour: string;
  /** SVG path on a 24 × 24 field, filled with the colour */
  path: string;
  pattern: string;
}

const patterns: [name: string, path: string][] = [
  ['solid', 'M0 0H24V24H0Z'],
  ['diagonal', 'M0 8 8 0H0ZM0 20 20 0h-6L0 14ZM0 24H4L24 4V0h-2L0 22ZM10 24 24 10v6l-8 8ZM22 24l2-2v2Z'],
  ['dots', circles([6, 6], [18, 6], [6, 18], [18, 18], [12, 12])],
  ['checks', 'M0 0H8V8H0ZM16 0h8V8h-8ZM8 8h8v8H8ZM0 16H8v8H0ZM16 16h8v8h-8Z'],
  ['waves', waves([1, 9, 17])],
  ['bars', 'M2 0H7V24H2ZM10 0h5V24H10ZM18 0h5V24H18Z'],
  ['diamonds', 'M12 1 17 6 12 11 7 6ZM12 13l5 5-5 5-5-5ZM0 7l5 5-5 5ZM24 7v10l-5-5Z'],
  ['frame', 'M0 0H24V24H0ZM5 5V19H19V5ZM9 9h6v6H9Z'],
];

function circles(...centres: [number, number][]): string {
  const r = 3.1;
  return centres
    .map(([x, y]) => `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`)
    .join('');
}

function waves(tops: number[]): string {
  return tops.map((y) => `M0 ${y + 3}L6 ${y}l6 4 6-4 6 3v4l-6-3-6 4-6-4-6 3Z`).join('');
}

/** Style of the n-th treatment (from 0); after eight the patterns shift against the colours. */
export function tesseraStyle(index: number): TesseraStyle {
  const round = Math.floor(index / TILE_COLOURS);
  const [pattern, path] = patterns[(index + 3 * round) % TILE_COLOURS]!;
  return { colour: `--tile-${index % TILE_COLOURS}`, path, pattern };
}
