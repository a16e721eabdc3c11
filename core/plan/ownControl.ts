import type { Factor } from '../model/plan';

/** A combination of levels and how many products it is given. */
interface Combined {
  levels: Readonly<Record<string, string>>;
  products: readonly unknown[];
}

/**
 * In a factorial each combination is held against its own control: the same levels, but for the last factor whose
 * plain (first) level leaves a product out.
 *
 * @returns the control's place in the list; null for a combination that no plainer one stands beside
 * @example ownControl(all, factors, base · additive) // base · none, not water · none
 */
export function ownControl<T extends Combined>(
  all: readonly T[],
  factors: readonly Factor[],
  of: T,
): T | null {
  for (const factor of [...factors].reverse()) {
    const plain = { ...of.levels, [factor.name]: factor.levels[0]! };
    const control = all.find(
      (t) =>
        t !== of &&
        t.products.length < of.products.length &&
        factors.every((f) => t.levels[f.name] === plain[f.name]),
    );
    if (control) return control;
  }
  return null;
}

/**
 * The role of a combination: without products it is an untreated control, also where another one is; with some and
 * as the control of another, a base control.
 */
export function roleInFactorial<T extends Combined>(
  all: readonly T[],
  factors: readonly Factor[],
  of: T,
): 'untreated' | 'base' | 'test' {
  if (of.products.length === 0) return 'untreated';
  return all.some((t) => t !== of && ownControl(all, factors, t) === of) ? 'base' : 'test';
}
