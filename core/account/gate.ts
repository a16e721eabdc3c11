import type { Analysis } from '../analysis/analysis';
import { type Contrast, agreeing, percentOf } from '../analysis/contrast';
import type { Against } from '../plan/against';

/**
 * Two families, one after the other: contenders are told from the control first, and two contenders from each other only
 * where one of the two was. So the chance of any false distinction in a trait stays at the level. Equals are one family;
 * so are the others where nothing could be tested against the control, and where each has a control of its own.
 *
 * A pair that isn't let through has the p of the gate, and limits that say so.
 */
export function gated(analysis: Analysis, peers: boolean, against: readonly Against[]): Analysis {
  const { control, alpha, versusControl } = analysis;
  const own = new Map(versusControl.map((c) => [c.a, c.p]));
  if (peers || [...own.values()].every((p) => p === null)) return analysis;
  const held = (a: string, b: string) =>
    against.some((o) => (o.id === a && o.control === b) || (o.id === b && o.control === a));
  return {
    ...analysis,
    pairs: analysis.pairs.map((c): Contrast => {
      if (c.a === control || c.b === control || c.p === null || held(c.a, c.b)) return c;
      const gate = Math.min(own.get(c.a) ?? 1, own.get(c.b) ?? 1);
      if (gate <= c.p) return c;
      const { estimate, low, high } = { ...c, low: c.low!, high: c.high! };
      const limits = agreeing(c.scale, { estimate, low, high }, gate, alpha);
      return {
        ...c,
        ...limits,
        p: gate,
        // A per cent has limits of its own, which know nothing of the gate.
        percent: c.scale === 'ratio' ? percentOf(estimate, limits.low, limits.high) : null,
        ...(c.scale !== 'ratio' && { back: null }),
      };
    }),
  };
}
