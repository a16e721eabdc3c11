import { expose, transfer } from 'comlink';
import { GIFEncoder, type Palette, applyPalette, quantize } from 'gifenc';
import { type Gains, balance } from '~core/imaging/balance';

/** One picture within a frame. */
interface LapseTile {
  bytes: Uint8Array<ArrayBuffer>;
  label: string;
  gains: Gains | null;
}

export interface LapseFrame {
  tiles: LapseTile[];
  /** written at the foot of the frame */
  caption: string;
}

interface Film {
  gif: ReturnType<typeof GIFEncoder>;
  canvas: OffscreenCanvas;
  tileWidth: number;
  tileHeight: number;
  delayMs: number;
  frames: number;
  palette: Palette;
}

/** Colours hardly change from one picture to the next: they are chosen anew for every so many frames. */
const FRAMES_A_PALETTE = 10;
const GAP = 6;
const FOOT = 26;
/** The colours of the paper and its ink (`app/ui/colours.ts` is for pages; a film is always on light paper). */
const PAPER = '#f7f0e6';
const INK = '#2b2420';

const films = new Map<string, Film>();
let made = 0;

const api = {
  /** Begins a film. @param tiles pictures side by side in each frame */
  begin: (tiles: number, tileWidth: number, tileHeight: number, delayMs: number): string => {
    made += 1;
    const id = `film ${made}`;
    const canvas = new OffscreenCanvas(tiles * tileWidth + (tiles - 1) * GAP, tileHeight + FOOT);
    films.set(id, {
      ...{ gif: GIFEncoder(), canvas, tileWidth, tileHeight, delayMs },
      frames: 0,
      palette: [],
    });
    return id;
  },
  /** Adds a frame; a picture that can't be read leaves its place empty. */
  add: async (id: string, { tiles, caption }: LapseFrame): Promise<void> => {
    const film = films.get(id);
    if (!film) return;
    const { canvas, tileWidth, tileHeight, gif, delayMs } = film;
    const context = canvas.getContext('2d', { willReadFrequently: true })!;
    context.fillStyle = PAPER;
    context.fillRect(0, 0, canvas.width, canvas.height);
    for (const [i, { bytes, gains }] of tiles.entries()) {
      const bitmap = await createImageBitmap(new Blob([bytes])).catch(() => null);
      if (!bitmap) continue;
      const x = i * (tileWidth + GAP);
      // Fills its place, cut at the edges: framing may differ a little from day to day.
      const by = Math.max(tileWidth / bitmap.width, tileHeight / bitmap.height);
      const [w, h] = [tileWidth / by, tileHeight / by];
      context.drawImage(
        bitmap,
        (bitmap.width - w) / 2,
        (bitmap.height - h) / 2,
        w,
        h,
        x,
        0,
        tileWidth,
        tileHeight,
      );
      bitmap.close();
      if (gains) {
        const pixels = context.getImageData(x, 0, tileWidth, tileHeight);
        balance(pixels, gains);
        context.putImageData(pixels, x, 0);
      }
    }
    context.fillStyle = INK;
    context.font = '14px sans-serif';
    context.textBaseline = 'middle';
    const foot = tileHeight + FOOT / 2;
    for (const [i, { label }] of tiles.entries()) {
      const said = i === 0 ? [caption, label].filter(Boolean).join(' · ') : label;
      context.fillText(said, i * (tileWidth + GAP) + 4, foot, tileWidth - 8);
    }
    const { data } = context.getImageData(0, 0, canvas.width, canvas.height);
    if (film.frames % FRAMES_A_PALETTE === 0) film.palette = quantize(data, 256);
    film.frames += 1;
    const { palette } = film;
    gif.writeFrame(applyPalette(data, palette), canvas.width, canvas.height, { palette, delay: delayMs });
  },
  /** Ends a film and gives it, with as many frames as it has. */
  end: (id: string): Uint8Array => {
    const film = films.get(id);
    films.delete(id);
    if (!film) return new Uint8Array();
    film.gif.finish();
    const bytes = film.gif.bytes();
    return transfer(bytes, [bytes.buffer as ArrayBuffer]);
  },
};

export type TimeLapseApi = typeof api;
expose(api);
