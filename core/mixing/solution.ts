import { type ElementSymbol, elements } from '../model/element';
import type { SourceWater } from '../model/mixingSetUp';
import type { AmountUnit, Product } from '../model/product';
import { atomicWeight, bicarbonateWeight } from './chemistry';
import { type ElementAmounts, addElements, elementsIn, noElements, timesElements } from './elements';
import { type Strength, meqAt, strengthOf } from './strength';

/** So much of a product in each litre. */
export interface DosePerL {
  product: Product;
  amount: number;
  unit: AmountUnit;
}

/** Ions of a solution in milliequivalents per litre, nitrogen of unstated form left out. */
export interface Ions {
  cations: number;
  anions: number;
  /** mmol/L of nitrogen whose form no label says */
  unstatedNitrogen: number;
}

/** What is in a litre. */
export interface Solution {
  mgPerL: Record<ElementSymbol, number>;
  mmolPerL: Record<ElementSymbol, number>;
  /** mg/L of nitrogen by form */
  nitrogen: ElementAmounts['nitrogen'];
  ions: Ions;
  strength: Strength;
  /** products whose part in it can't be worked out: no analysis, or no density for a dose by volume */
  unknown: Product[];
}

/**
 * Charges of a composition, meq/L. Cations K⁺, Ca²⁺, Mg²⁺, Na⁺, NH₄⁺; anions NO₃⁻, H₂PO₄⁻, SO₄²⁻, Cl⁻, HCO₃⁻.
 * Urea and trace elements carry none that counts; phosphate counts as H₂PO₄⁻, as it is below pH 7.
 */
export function ionsOf({ of, nitrogen }: ElementAmounts, bicarbonateMgPerL = 0): Ions {
  const mmol = (e: ElementSymbol) => of[e] / atomicWeight[e];
  return {
    cations: mmol('K') + 2 * mmol('Ca') + 2 * mmol('Mg') + mmol('Na') + nitrogen.ammonium / atomicWeight.N,
    anions:
      nitrogen.nitrate / atomicWeight.N +
      mmol('P') +
      2 * mmol('S') +
      mmol('Cl') +
      bicarbonateMgPerL / bicarbonateWeight,
    unstatedNitrogen: nitrogen.unstated / atomicWeight.N,
  };
}

/** What water brings before anything is added; nothing where its analysis isn't known. */
export function waterElements(water: SourceWater | null): ElementAmounts {
  const none = noElements();
  if (!water) return none;
  const of = { ...none.of, ...water.elementsMgPerL } as ElementAmounts['of'];
  // Nitrogen in tap and well water is nitrate; ammonium is hardly ever there.
  return { of, nitrogen: { ...none.nitrogen, nitrate: of.N } };
}

/**
 * Works out a solution from what is in each litre of it, water included.
 *
 * @param doses amounts per litre of solution
 * @param water its analysis; null for pure water
 * @example solutionOf([{ product: tenPercentN, amount: 1, unit: 'g' }], null).mgPerL.N // 100
 */
export function solutionOf(doses: readonly DosePerL[], water: SourceWater | null): Solution {
  let dissolved = noElements();
  const unknown: Product[] = [];
  for (const d of doses) {
    const grams = elementsIn(d.product, d.amount, d.unit);
    if (grams) dissolved = addElements(dissolved, timesElements(grams, 1000));
    else unknown.push(d.product);
  }
  const total = addElements(waterElements(water), dissolved);
  const ions = ionsOf(total, water?.bicarbonateMgPerL ?? 0);
  return {
    mgPerL: total.of,
    mmolPerL: Object.fromEntries(
      elements.map((e) => [e, total.of[e] / atomicWeight[e]]),
    ) as Solution['mmolPerL'],
    nitrogen: total.nitrogen,
    ions,
    strength:
      water?.ec == null
        ? strengthOf(ions, 0, unknown.length > 0)
        : strengthOf(ionsOf(dissolved), meqAt(water.ec), unknown.length > 0),
    unknown,
  };
}
