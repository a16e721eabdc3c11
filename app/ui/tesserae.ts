export { type TesseraStyle, tesseraStyle } from '~core/report/tessera';
import { tesseraStyle } from '~core/report/tessera';

/** A, B, C … Z, AA … */
export { letterOf as tesseraLetter } from '~core/plan/letters';

/** Where colours are read from: the page, or an element that stays on the day side. */
let palette: Element | null = null;

/** Draws with the day's colours whatever side the page shows: exported pictures are for paper. */
export function withDayColours<T>(draw: () => T): T {
  palette = document.body.appendChild(document.createElement('div'));
  palette.setAttribute('data-mode', 'light');
  try {
    return draw();
  } finally {
    palette.remove();
    palette = null;
  }
}

/** The colour a CSS variable stands for now, for canvases. */
export function cssColour(variable: string): string {
  return (
    getComputedStyle(palette ?? document.documentElement)
      .getPropertyValue(variable)
      .trim() || '#2a241f'
  );
}

/** Draws the tile on a canvas, centred on a point, sharp at any scale of the context. */
export function drawTessera(
  context: CanvasRenderingContext2D,
  index: number,
  x: number,
  y: number,
  size: number,
): void {
  const { colour, path } = tesseraStyle(index);
  const ink = cssColour(colour);
  const outline = new Path2D();
  outline.roundRect(1, 1, 22, 22, 4);
  context.save();
  context.translate(x - size / 2, y - size / 2);
  context.scale(size / 24, size / 24);
  context.fillStyle = cssColour('--sheet');
  context.fill(outline);
  context.save();
  context.clip(outline);
  context.fillStyle = ink;
  context.fill(new Path2D(path), 'evenodd');
  context.restore();
  context.strokeStyle = ink;
  context.lineWidth = 2;
  context.stroke(outline);
  context.restore();
}
