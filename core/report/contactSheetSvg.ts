import type { SheetCell, SheetRow } from './contactSheet';
import { escaped } from './html';

const CELL = { width: 300, height: 225 };
const GAP = 8;
const HEAD = 30;
const SIDE = 74;

/**
 * Contenders side by side, a row for each day, as a picture with the photos in it.
 *
 * @param sourceOf a data URI for each photo; a photo without one is left out
 * @returns SVG text; null where there is none of the photos
 */
export function contactSheetSvg(
  rows: readonly SheetRow[],
  names: readonly string[],
  sourceOf: (cell: SheetCell) => string | null,
  ink: { sheet: string; ink: string },
): string | null {
  const width = SIDE + names.length * (CELL.width + GAP);
  const height = HEAD + rows.length * (CELL.height + GAP);
  const label = (x: number, y: number, said: string) =>
    `<text x="${x}" y="${y}" font-family="Helvetica, Arial, sans-serif" font-size="16" font-weight="bold" fill="${ink.ink}">${escaped(said)}</text>`;
  const photos = rows.flatMap(({ cells }, r) =>
    cells.flatMap((cell) => {
      const source = sourceOf(cell);
      const [x, y] = [SIDE + names.indexOf(cell.name) * (CELL.width + GAP), HEAD + r * (CELL.height + GAP)];
      return source === null
        ? []
        : [
            `<image x="${x}" y="${y}" width="${CELL.width}" height="${CELL.height}" preserveAspectRatio="xMidYMid slice" href="${escaped(source)}"/>`,
          ];
    }),
  );
  if (photos.length === 0) return null;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">`,
    `<rect width="${width}" height="${height}" fill="${ink.sheet}"/>`,
    ...names.map((n, i) => label(SIDE + i * (CELL.width + GAP), HEAD / 2 + 6, n)),
    ...rows.map(({ day }, r) => label(8, HEAD + r * (CELL.height + GAP) + CELL.height / 2, `day ${day}`)),
    ...photos,
    '</svg>',
  ].join('');
}
