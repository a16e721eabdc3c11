import { type Gains, balance } from '~core/imaging/balance';
import type { SheetRow } from '~core/report/contactSheet';
import { contactSheetPicture, sheetCell } from '~core/report/contactSheetPicture';
import { getBlob } from '../../store/bulk';
import { pngUri } from '../../ui/pictures/picture';

/**
 * A photo as a picture no larger than so many pixels a side.
 * @param gains what its colours are balanced by, found on its grey card
 * @returns a data URI; empty where the photo isn't on this device
 */
export async function photoPicture(
  sha256: string,
  most: number,
  gains: Gains | null = null,
): Promise<string> {
  const blob = await getBlob(sha256);
  const bitmap = blob && (await createImageBitmap(new Blob([Uint8Array.from(blob.bytes)])).catch(() => null));
  if (!bitmap) return '';
  const by = Math.min(1, most / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [Math.round(bitmap.width * by), Math.round(bitmap.height * by)];
  const context = canvas.getContext('2d', { willReadFrequently: gains !== null })!;
  context.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  if (gains) {
    const pixels = context.getImageData(0, 0, canvas.width, canvas.height);
    balance(pixels, gains);
    context.putImageData(pixels, 0, 0);
  }
  return canvas.toDataURL('image/jpeg', 0.88);
}

/**
 * Contenders side by side, a row for each day, as one picture.
 * @returns a data URI; empty where none of the photos is on this device
 */
export async function sheetPicture(rows: readonly SheetRow[], names: readonly string[]): Promise<string> {
  const cells = rows.flatMap((r) => r.cells);
  const sources = await Promise.all(
    // Wide or high, it fills its place at twice the points.
    cells.map(async (c) => [c, await photoPicture(c.sha256, 3 * sheetCell.width, c.gains)] as const),
  );
  const of = new Map(sources);
  const drawing = contactSheetPicture(rows, names, (c) => of.get(c) || null);
  return drawing ? pngUri(drawing, 1) : '';
}
