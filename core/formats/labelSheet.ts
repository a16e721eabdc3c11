import { type Result, err, ok } from '../model/result';
import type { Paper } from '../quantity/regionUnits';

/** Paper sizes in millimetres. ISO 216 A4; US Letter 8.5 × 11 in (ANSI/ASME Y14.1). */
export const papers: Record<Paper, { widthMm: number; heightMm: number }> = {
  A4: { widthMm: 210, heightMm: 297 },
  Letter: { widthMm: 215.9, heightMm: 279.4 },
};

/** A sheet of labels: how many across and down, and the margins of the sheet. */
export interface LabelSheet {
  paper: Paper;
  columns: number;
  rows: number;
  /** from the paper's edge to the first label; the same at the opposite edge */
  marginTopMm: number;
  marginLeftMm: number;
  /** between labels */
  gapMm: number;
}

export const defaultSheet: LabelSheet = {
  paper: 'A4',
  columns: 3,
  rows: 7,
  marginTopMm: 15,
  marginLeftMm: 7,
  gapMm: 2.5,
};

export interface LabelBox {
  /** from 0 */
  page: number;
  xMm: number;
  yMm: number;
  widthMm: number;
  heightMm: number;
}

type LabelSheetError = { tag: 'tooSmall'; widthMm: number; heightMm: number };

export const describeLabelSheetError = (e: LabelSheetError): string =>
  `Labels would be ${Math.max(0, Math.round(e.widthMm))} × ${Math.max(0, Math.round(e.heightMm))} mm; they need 38 × 18 mm. Fewer rows or columns, or smaller margins.`;

/** What a code, a tile and a QR code need to be read. */
const LEAST = { widthMm: 38, heightMm: 18 };

/**
 * Where each label stands, row by row, page after page.
 *
 * @param skip labels already used on the first sheet
 * @returns one box a label in millimetres, or the size the labels would have when it is too small to print on
 * @example labelBoxes(defaultSheet, 21) // all on page 0, each 63.7 × 36 mm
 */
export function labelBoxes(sheet: LabelSheet, count: number, skip = 0): Result<LabelBox[], LabelSheetError> {
  const { widthMm, heightMm } = papers[sheet.paper];
  const w = (widthMm - 2 * sheet.marginLeftMm - (sheet.columns - 1) * sheet.gapMm) / sheet.columns;
  const h = (heightMm - 2 * sheet.marginTopMm - (sheet.rows - 1) * sheet.gapMm) / sheet.rows;
  if (w < LEAST.widthMm || h < LEAST.heightMm) return err({ tag: 'tooSmall', widthMm: w, heightMm: h });
  const perPage = sheet.columns * sheet.rows;
  return ok(
    Array.from({ length: count }, (_, i) => {
      const at = i + skip;
      const onPage = at % perPage;
      return {
        page: Math.floor(at / perPage),
        xMm: sheet.marginLeftMm + (onPage % sheet.columns) * (w + sheet.gapMm),
        yMm: sheet.marginTopMm + Math.floor(onPage / sheet.columns) * (h + sheet.gapMm),
        widthMm: w,
        heightMm: h,
      };
    }),
  );
}
