import { type Drawing, type Ink, type Mark, inkOf } from './marks';

/**
 * A picture whose contenders were drawn by their place in the plan, with the tiles they wear.
 * @param tiles of each treatment, by its place: `tilesOf`
 */
export function inTiles(drawing: Drawing, tiles: readonly number[]): Drawing {
  if (tiles.every((tile, i) => tile === i)) return drawing;
  const inks = new Map<Ink, Ink>(tiles.map((tile, i) => [inkOf(i), inkOf(tile)]));
  const ink = <T extends Ink | null>(own: T): T => ((own && inks.get(own)) ?? own) as T;
  const worn = (m: Mark): Mark => {
    switch (m.mark) {
      case 'rect':
        return { ...m, fill: ink(m.fill), ...(m.stroke && { stroke: ink(m.stroke) }) };
      case 'line':
      case 'path':
        return { ...m, stroke: ink(m.stroke) };
      case 'dot':
        return { ...m, fill: ink(m.fill), stroke: ink(m.stroke) };
      case 'text':
        return m.ink ? { ...m, ink: ink(m.ink) } : m;
      case 'tile':
        return { ...m, index: tiles[m.index] ?? m.index };
      default:
        return m;
    }
  };
  return { ...drawing, marks: drawing.marks.map(worn) };
}
