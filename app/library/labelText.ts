import { numberIn } from '~core/quantity/number';
import { oxideFactor } from '~core/mixing/chemistry';
import { microElements } from '~core/model/element';
import { err, ok } from '~core/model/result';
import { elementList } from '../form/elementList';
import { typedList } from '../form/schemaFields';

/** Trace elements of a label, per cent. */
export const micros = elementList(microElements, 100, 'a per cent. Write: Fe 0.1, Zn 0.02.');

/** Weights of level spoons: “4.7 4.8 4.75”. */
export const spoonMasses = typedList<number>((text) => {
  const masses = text === '' ? [] : text.split(/\s*;\s*|\s+|,\s+/).map(numberIn);
  return masses.some((m) => m === null || m <= 0)
    ? err('Weights in g with spaces between them: 4.7 4.8 4.75 4.8 4.7.')
    : masses.length > 20
      ? err('Up to 20 weights.')
      : ok(masses as number[]);
}, ' ');

type Printed = 'oxide' | 'element';
type Printable = 'P' | 'K' | 'Ca' | 'Mg' | 'S';
const isKeptAs = (as: Printed, element: Printable) =>
  (as === 'oxide') === (element === 'P' || element === 'K');

/** A figure as the label prints it, as it is kept: P and K as oxides, the others as elements. */
export const keptFigure = <N extends number | null>(value: N, as: Printed, element: Printable): N =>
  value === null || isKeptAs(as, element)
    ? value
    : ((as === 'element' ? value / oxideFactor[element] : value * oxideFactor[element]) as N);

/** A figure as it is kept, as the label prints it. */
export const printedFigure = <N extends number | null>(value: N, as: Printed, element: Printable): N => {
  if (value === null || isKeptAs(as, element)) return value;
  const printed = as === 'element' ? value * oxideFactor[element] : value / oxideFactor[element];
  return Number(printed.toPrecision(6)) as N;
};
