import type { Drawing, Mark, Room } from './marks';

const HEIGHT = 380;

/** Which products were compared with which: a line for each pair, thicker with more trials. */
export function network(
  products: readonly string[],
  edges: readonly { a: string; b: string; trials: number }[],
  { width, narrow }: Room,
): Drawing {
  const across = narrow ? Math.max(30, width / 2 - 120) : 190;
  const at = (name: string) => {
    const angle = (2 * Math.PI * products.indexOf(name)) / Math.max(1, products.length) - Math.PI / 2;
    return { x: width / 2 + across * Math.cos(angle), y: HEIGHT / 2 + 130 * Math.sin(angle), angle };
  };
  const joined = edges.map((e): Mark => {
    const [a, b] = [at(e.a), at(e.b)];
    return {
      ...{ mark: 'line', from: [a.x, a.y], to: [b.x, b.y], stroke: 'soft', opacity: 0.6 },
      ...{ width: 1 + 1.5 * e.trials },
      said: `${e.a} and ${e.b}: ${e.trials} ${e.trials === 1 ? 'trial' : 'trials'}`,
    };
  });
  const named = products.flatMap((name): Mark[] => {
    const { x, y, angle } = at(name);
    const side = Math.cos(angle);
    const upright = Math.abs(side) <= 0.2;
    return [
      { mark: 'rect', at: [x - 7, y - 7], width: 14, height: 14, round: 2, fill: 'terracotta' },
      {
        ...{ mark: 'text', text: name },
        at: [x + (upright ? 0 : 14 * Math.sign(side)), y + (upright ? (Math.sin(angle) < 0 ? -14 : 24) : 5)],
        anchor: upright ? 'middle' : side > 0 ? 'start' : 'end',
      },
    ];
  });
  return { width, height: HEIGHT, marks: [...joined, ...named] };
}
