import type { ElementSymbol } from '../model/element';

/**
 * Standard atomic weights, g/mol. Source: IUPAC, abridged to five figures (Prohaska et al., Pure and Applied
 * Chemistry 94, 2022); for elements given as an interval the conventional value.
 */
export const atomicWeight: Record<ElementSymbol | 'O' | 'H' | 'C', number> = {
  H: 1.008,
  B: 10.81,
  C: 12.011,
  N: 14.007,
  O: 15.999,
  Na: 22.99,
  Mg: 24.305,
  Si: 28.085,
  P: 30.974,
  S: 32.06,
  Cl: 35.45,
  K: 39.098,
  Ca: 40.078,
  Mn: 54.938,
  Fe: 55.845,
  Cu: 63.546,
  Zn: 65.38,
  Mo: 95.95,
};

const a = atomicWeight;

/**
 * Grams of the element in a gram of the oxide that labels print.
 * @example oxideFactor.P // 0.4364 (P₂O₅)
 */
export const oxideFactor = {
  P: (2 * a.P) / (2 * a.P + 5 * a.O),
  K: (2 * a.K) / (2 * a.K + a.O),
  Ca: a.Ca / (a.Ca + a.O),
  Mg: a.Mg / (a.Mg + a.O),
  S: a.S / (a.S + 3 * a.O),
} as const;

/** Molar mass of HCO₃⁻, g/mol. */
export const bicarbonateWeight = a.H + a.C + 3 * a.O;
