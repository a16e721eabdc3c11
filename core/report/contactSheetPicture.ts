import type { Drawing, Mark } from '../picture/marks';
import type { SheetCell, SheetRow } from './contactSheet';

/** The place of one photo on the sheet, px. */
export const sheetCell = { width: 300, height: 225 };
const GAP = 8;
const HEAD = 30;
const SIDE = 74;

/**
 * Contenders side by side, a row for each day, as a picture with the photos in it.
 * @param sourceOf a data URI for each photo; a photo without one is left out
 * @returns null where there is none of the photos
 */
export function contactSheetPicture(
  rows: readonly SheetRow[],
  names: readonly string[],
  sourceOf: (cell: SheetCell) => string | null,
): Drawing | null {
  const left = (column: number) => SIDE + column * (sheetCell.width + GAP);
  const top = (row: number) => HEAD + row * (sheetCell.height + GAP);
  const label = (x: number, y: number, text: string): Mark => ({
    ...{ mark: 'text', at: [x, y], text, size: 16, bold: true },
  });
  const photos = rows.flatMap(({ cells }, r) =>
    cells.flatMap((cell): Mark[] => {
      const source = sourceOf(cell);
      return source === null
        ? []
        : [{ mark: 'photo', at: [left(names.indexOf(cell.name)), top(r)], ...sheetCell, source }];
    }),
  );
  if (photos.length === 0) return null;
  return {
    width: left(names.length),
    height: top(rows.length),
    marks: [
      ...names.map((n, i) => label(left(i), HEAD / 2 + 6, n)),
      ...rows.map(({ day }, r) => label(8, top(r) + sheetCell.height / 2, `day ${day}`)),
      ...photos,
    ],
  };
}
