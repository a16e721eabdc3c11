/** As much of gifenc as is used here; the package carries no types. */
declare module 'gifenc' {
  export type Palette = number[][];
  export function quantize(rgba: Uint8Array | Uint8ClampedArray, maxColors: number): Palette;
  export function applyPalette(rgba: Uint8Array | Uint8ClampedArray, palette: Palette): Uint8Array;
  export interface Encoder {
    writeFrame: (
      index: Uint8Array,
      width: number,
      height: number,
      options: { palette: Palette; delay: number },
    ) => void;
    finish: () => void;
    bytes: () => Uint8Array;
  }
  export function GIFEncoder(): Encoder;
}
