import { z } from 'zod';
import { numberIn } from '~core/quantity/number';
import { oxideFactor } from '~core/mixing/chemistry';
import { microElements } from '~core/model/element';
import { elementList } from '../form/elementList';

/** Trace elements of a label, per cent. */
export const micros = elementList(microElements, 100, 'a per cent. Write: Fe 0.1, Zn 0.02.');

/** Weights of level spoons: “4.7 4.8 4.75”. */
export const spoonMasses = z
  .string()
  .trim()
  .transform((text, ctx) => {
    const masses = text === '' ? [] : text.split(/\s*;\s*|\s+|,\s+/).map(numberIn);
    if (masses.some((m) => m === null || m <= 0)) {
      ctx.addIssue({
        code: 'custom',
        message: 'Weights in g with spaces between them: 4.7 4.8 4.75 4.8 4.7.',
      });
      return z.NEVER;
    }
    return masses as number[];
  });

/** “P as P₂O₅” back to how the label prints it, and the other way round: figures as typed and as kept. */
export const unlessSame = (
  value: number | null,
  as: 'oxide' | 'element',
  element: 'P' | 'K' | 'Ca' | 'Mg' | 'S',
) => {
  const inOxide = element === 'P' || element === 'K';
  if (value === null || (as === 'oxide') === inOxide) return value;
  return inOxide ? value / oxideFactor[element] : value * oxideFactor[element];
};
/** A figure as the label prints it. */
export const figureOf = (
  value: number | null | undefined,
  as: 'oxide' | 'element',
  element: 'P' | 'K' | 'Ca' | 'Mg' | 'S',
) => {
  if (value == null) return '';
  const inOxide = element === 'P' || element === 'K';
  if ((as === 'oxide') === inOxide) return String(value);
  const printed = inOxide ? value * oxideFactor[element] : value / oxideFactor[element];
  return String(Number(printed.toPrecision(6)));
};
