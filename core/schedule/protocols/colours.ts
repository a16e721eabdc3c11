/** Colours as written scales, palest or rawest first, so that two people see the same step (practice). */
const scales = {
  leaf: [
    'mostly yellow or brown',
    'pale, or yellow between the veins',
    'light green all over',
    'even mid green',
    'even deep green',
  ],
  lawn: ['straw-coloured', 'yellow-green', 'light green', 'mid green', 'deep green'],
  fruit: [
    'green all over',
    'first colour shows',
    'half coloured',
    'three quarters coloured',
    'coloured all over',
  ],
} as const;

/**
 * The colours that are looked at on a crop: of fruit that ripens, of a lawn, else of leaves.
 * @example colourScale('cherry tomato')[0] // 'green all over'
 */
export function colourScale(crop: string): readonly string[] {
  if (/\b(lawn|grass|turf|sward)/i.test(crop)) return scales.lawn;
  if (/tomato|chilli|pepper|berr(y|ies)|aubergine|eggplant|melon|pumpkin/i.test(crop)) return scales.fruit;
  return scales.leaf;
}
