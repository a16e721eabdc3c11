import { TILE_COLOURS } from '../model/product';
import type { paper } from './paper';

/** A colour by its name; a contender's is that of its tile. */
export type Ink = keyof typeof paper;
export type Face = 'serif' | 'sans' | 'mono';
type Point = readonly [x: number, y: number];

/** What a picture is made of: the same for screen, file, paper and page. Lengths in CSS pixels. */
export type Mark = { /** said of it where it is pointed at */ said?: string; opacity?: number } & (
  | {
      mark: 'rect';
      at: Point;
      width: number;
      height: number;
      fill: Ink;
      stroke?: Ink;
      round?: number;
      /** how much of the fill is seen, 0 to 1 */
      tint?: number;
    }
  | { mark: 'line'; from: Point; to: Point; stroke: Ink; width?: number; dashed?: boolean }
  | { mark: 'path'; d: string; stroke: Ink; width: number }
  | { mark: 'dot'; at: Point; radius: number; fill: Ink | null; stroke: Ink; width?: number }
  | {
      mark: 'text';
      at: Point;
      text: string;
      face?: Face;
      size?: number;
      bold?: boolean;
      anchor?: 'start' | 'middle' | 'end';
      ink?: Ink;
    }
  /** a contender's tile, by the middle */
  | { mark: 'tile'; at: Point; index: number; size?: number }
  /** a photo that fills its place */
  | { mark: 'photo'; at: Point; width: number; height: number; source: string }
);

/** A picture whose words keep their size, whatever it is printed on. */
export interface Drawing {
  width: number;
  height: number;
  marks: readonly Mark[];
}

/** A contender in a picture, in the plan's order. */
export interface Lane {
  id: string;
  name: string;
  index: number;
}

/** A picture as wide as there is room; where that is narrow, names stand below it. */
export interface Room {
  width: number;
  narrow: boolean;
}

/** As wide as pictures are drawn and saved where there is room. */
export const usualRoom: Room = { width: 640, narrow: false };

/** The colour of a contender: they begin anew after the eighth. */
export const inkOf = (index: number): Ink => `tile-${index % TILE_COLOURS}` as Ink;

/** A line through points. @example throughPoints([[0, 1], [2, 3]]) // 'M0 1L2 3' */
export const throughPoints = (points: readonly Point[]): string =>
  points.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x} ${y}`).join('');
