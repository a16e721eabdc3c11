import { numberIn } from '~core/quantity/number';
import type { ElementSymbol } from '~core/model/element';
import { err, ok } from '~core/model/result';
import { typedAs } from './schemaFields';

/**
 * Elements with a figure each, as small print and water reports have them: “Fe 0.1, Zn 0.02”. Points or
 * commas, with or without a % sign.
 *
 * @param allowed which elements may stand there
 * @param most the largest figure that can be meant
 * @param meant what a part should have been, with an example: “mg/L. Write: Ca 40, Mg 8.”
 */
export const elementList = <E extends ElementSymbol>(allowed: readonly E[], most: number, meant: string) =>
  typedAs<Partial<Record<E, number>>>(
    (text) => {
      const out: Partial<Record<E, number>> = {};
      for (const part of text.split(/[,;]\s+|;|,(?=\s*[A-Z])/).filter((p) => p.trim() !== '')) {
        const [, symbol, figure] = /^\s*([A-Za-z]{1,2})\s*([\d.,]+)\s*%?\s*$/.exec(part) ?? [];
        const element = allowed.find((e) => e.toLowerCase() === symbol?.toLowerCase());
        const value = figure ? numberIn(figure) : null;
        if (!element || value === null || value < 0 || value > most)
          return err(`“${part.trim()}” isn’t an element and ${meant}`);
        out[element] = value;
      }
      return ok(out);
    },
    (list) =>
      Object.entries(list)
        .map(([e, v]) => `${e} ${v}`)
        .join(', '),
  );
