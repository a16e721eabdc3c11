import { type Gains, balance } from '~core/imaging/balance';
import type { SheetRow } from '~core/report/contactSheet';
import { getBlob } from '../../store/bulk';
import { cssColour, withDayColours } from '../../ui/tesserae';

const CELL = { width: 300, height: 225 };
const GAP = 8;
const HEAD = 30;
const SIDE = 74;

async function draw(
  context: CanvasRenderingContext2D,
  sha256: string,
  gains: Gains | null,
  x: number,
  y: number,
): Promise<void> {
  const blob = await getBlob(sha256);
  if (!blob) return;
  const bitmap = await createImageBitmap(new Blob([Uint8Array.from(blob.bytes)])).catch(() => null);
  if (!bitmap) return;
  const by = Math.max(CELL.width / bitmap.width, CELL.height / bitmap.height);
  const [w, h] = [CELL.width / by, CELL.height / by];
  const [fromX, fromY] = [(bitmap.width - w) / 2, (bitmap.height - h) / 2];
  context.drawImage(bitmap, fromX, fromY, w, h, x, y, CELL.width, CELL.height);
  bitmap.close();
  if (!gains) return;
  const pixels = context.getImageData(x, y, CELL.width, CELL.height);
  balance(pixels, gains);
  context.putImageData(pixels, x, y);
}

/**
 * Contenders side by side, a row for each day, as one picture.
 * @returns a data URI; empty where none of the pictures is on this device
 */
export async function contactSheetPicture(
  rows: readonly SheetRow[],
  names: readonly string[],
): Promise<string> {
  const canvas = document.createElement('canvas');
  canvas.width = SIDE + names.length * (CELL.width + GAP);
  canvas.height = HEAD + rows.length * (CELL.height + GAP);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  const [ink, paper] = withDayColours(() => [cssColour('--ink'), cssColour('--sheet')]);
  context.fillStyle = paper!;
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.fillStyle = ink!;
  context.font = '600 16px sans-serif';
  context.textBaseline = 'middle';
  names.forEach((name, i) => context.fillText(name, SIDE + i * (CELL.width + GAP), HEAD / 2, CELL.width));
  for (const [r, { day, cells }] of rows.entries()) {
    const y = HEAD + r * (CELL.height + GAP);
    context.fillStyle = ink!;
    context.fillText(`day ${day}`, 8, y + CELL.height / 2, SIDE - 12);
    for (const cell of cells) {
      const x = SIDE + names.indexOf(cell.name) * (CELL.width + GAP);
      await draw(context, cell.sha256, cell.gains, x, y);
    }
  }
  return canvas.toDataURL('image/png');
}

/**
 * A photo as a picture no larger than so many pixels a side.
 * @returns a data URI; empty where the photo isn't on this device
 */
export async function photoPicture(sha256: string, most: number): Promise<string> {
  const blob = await getBlob(sha256);
  const bitmap = blob && (await createImageBitmap(new Blob([Uint8Array.from(blob.bytes)])).catch(() => null));
  if (!bitmap) return '';
  const by = Math.min(1, most / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [Math.round(bitmap.width * by), Math.round(bitmap.height * by)];
  canvas.getContext('2d')!.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  return canvas.toDataURL('image/jpeg', 0.88);
}
