import { kindsOfTruth } from '/work/main/core/testing/truthGrid';
import { tryOut } from '/work/main/core/truth/tried';
const kind = kindsOfTruth[0]!;
const runs = 1200;
for (const design of ['random', 'blocks'] as const)
  for (const k of [2, 3, 4, 6])
    for (const n of design === 'random' ? ([3, 4, 6, '3v6', '6v3'] as const) : [3, 4, 6]) {
      const units = Array.from({ length: k }, (_, i) =>
        n === '3v6' ? (i ? 6 : 3) : n === '6v3' ? (i ? 3 : 6) : (n as number),
      );
      const m = (scatters: number[], far = 0) => ({
        trait: kind.trait,
        design,
        units,
        levels: units.map((_, i) => (i === 1 ? 50 + far : 50)),
        scatter: 5,
        scatters,
      });
      const one = (f: (i: number) => number, far = 0) => {
        const r = tryOut(
          m(
            units.map((_, i) => f(i)),
            far,
          ),
          { runs, seed: 4 },
        );
        return far ? r.found : r.beat;
      };
      const p = (x: number) => (100 * x).toFixed(1).padStart(6);
      console.log(
        design,
        'arms',
        k,
        'n',
        n,
        'null',
        p(one(() => 1)),
        'ctrl×3',
        p(one((i) => (i ? 1 : 3))),
        'cont×3',
        p(one((i) => (i === 1 ? 3 : 1))),
        'ctrl÷3',
        p(one((i) => (i ? 1 : 1 / 3))),
        'power',
        p(one(() => 1, (5 * 4.2) / Math.sqrt(typeof n === 'number' ? n : 4))),
      );
    }
