import { createContext, useContext } from 'react';
import { type TesseraStyle, tesseraStyle } from './tesserae';

/** The tile each treatment of the trial wears, by its place in the plan; none outside a trial. */
export const Tiles = createContext<readonly number[]>([]);

/** What gives a treatment's tile by its place in the plan. */
export function useTileOf(): (index: number) => TesseraStyle {
  const tiles = useContext(Tiles);
  return (index) => tesseraStyle(tiles[index] ?? index);
}
