/** An amount as a tool can measure it. */
export interface Rounded {
  wanted: number;
  /** the nearest step; 0 when less than half a step was wanted */
  measured: number;
  step: number;
  /** per cent of what was wanted, signed */
  errorPercent: number;
}

/** Over this error, per cent, a bigger batch or a stock solution is proposed (common practice). */
export const DOSE_ERROR_LIMIT = 2;

const tidy = (x: number) => Number(x.toPrecision(12));

/**
 * The nearest whole number of steps.
 *
 * @param wanted g, mL or pieces
 * @param step smallest step of the tool, in the same unit; null: exact
 * @example roundToStep(2.4, 1) // { measured: 2, errorPercent: −16.7, … }
 */
export function roundToStep(wanted: number, step: number | null): Rounded {
  if (step === null) return { wanted, measured: tidy(wanted), step: 0, errorPercent: 0 };
  // tidy: 0.3 / 0.1 is a hair under three steps in binary.
  const measured = tidy(Math.round(tidy(wanted / step)) * step);
  return {
    wanted,
    measured,
    step,
    errorPercent: wanted > 0 ? tidy((100 * (measured - wanted)) / wanted) : 0,
  };
}

/** The least volume of at least `fromL` in which so much per litre comes within the limit of a whole number of steps. */
function nextWithin(perL: number, step: number, fromL: number, limit: number): number {
  const [low, high] = [1 + limit, 1 - limit];
  // k steps are within the limit from k·step/(perL·low) to k·step/(perL·high).
  const k = Math.max(1, Math.ceil(tidy((fromL * perL * high) / step)));
  return Math.max(fromL, (k * step) / (perL * low));
}

/**
 * The smallest batch in which every amount is within the error limit.
 *
 * @param amounts what a litre needs (g or mL) and the step it is measured in
 * @param fromL volume that is needed anyway, L
 * @param limitPercent largest error allowed
 * @returns L, rounded up to a tenth of a litre where that still holds; null beyond `mostL`
 * @example smallestBatch([{ perL: 0.634, step: 1 }], 3.785) // 4.7
 */
export function smallestBatch(
  amounts: readonly { perL: number; step: number | null }[],
  fromL: number,
  { limitPercent = DOSE_ERROR_LIMIT, mostL = 10_000 }: { limitPercent?: number; mostL?: number } = {},
): number | null {
  const stepped = amounts.flatMap((a) =>
    a.step !== null && a.perL > 0 ? [{ perL: a.perL, step: a.step }] : [],
  );
  const limit = limitPercent / 100;
  const good = (litres: number) =>
    stepped.every((a) => Math.abs(roundToStep(a.perL * litres, a.step).errorPercent) <= limitPercent + 1e-9);
  let litres = fromL;
  for (;;) {
    const needed = Math.max(...stepped.map((a) => nextWithin(a.perL, a.step, litres, limit)), litres);
    if (needed > mostL) return null;
    if (needed <= litres) break;
    litres = needed;
  }
  for (const grain of [1, 0.5, 0.1, 0.01, 0.001]) {
    const neat = tidy(Math.ceil(tidy(litres / grain)) * grain);
    // A neat figure may add a little; more than a twentieth isn't neat any more.
    if (neat <= mostL && neat <= litres * 1.05 && good(neat)) return neat;
  }
  return good(litres) ? litres : null;
}
