const DEGREE = 13;
const nodes = Array.from({ length: DEGREE + 1 }, (_, i) => Math.cos((Math.PI * i) / DEGREE));
/** barycentric weights of Chebyshev points of the second kind */
const weights = nodes.map((_, i) => (i % 2 === 0 ? 1 : -1) * (i === 0 || i === DEGREE ? 0.5 : 1));

/**
 * A costly smooth function, tabulated on panels as they are first asked for and interpolated between
 * Chebyshev points: a probability needed thousands of times is worked out a few dozen times.
 *
 * @param f smooth on [0, ∞) at the scale of a panel
 * @param panel width of a panel
 * @returns f, to about 1e-13 of its range where it is smooth at that scale
 * Source: Berrut and Trefethen, SIAM Review 46 (2004), 501–517 (memory).
 */
export function smoothTable(f: (x: number) => number, panel = 0.5): (x: number) => number {
  const panels = new Map<number, Float64Array>();
  return (x) => {
    const at = Math.floor(x / panel);
    let values = panels.get(at);
    if (!values) {
      values = Float64Array.from(nodes, (t) => f((at + (t + 1) / 2) * panel));
      panels.set(at, values);
    }
    const t = 2 * (x / panel - at) - 1;
    let above = 0;
    let below = 0;
    for (let i = 0; i <= DEGREE; i++) {
      const distance = t - nodes[i]!;
      if (distance === 0) return values[i]!;
      const w = weights[i]! / distance;
      above += w * values[i]!;
      below += w;
    }
    return above / below;
  };
}
