import { Picture } from './Picture';
import { usePictureWidth } from './usePictureWidth';

interface Props {
  products: readonly string[];
  edges: readonly { a: string; b: string; trials: number }[];
  label: string;
  file: string;
}

const HEIGHT = 380;

/** Which products were compared with which: a line for each pair, thicker with more trials. */
export function Network({ products, edges, label, file }: Props) {
  const { width, narrow } = usePictureWidth();
  const across = narrow ? Math.max(30, width / 2 - 120) : 190;
  const at = (name: string) => {
    const angle = (2 * Math.PI * products.indexOf(name)) / Math.max(1, products.length) - Math.PI / 2;
    return { x: width / 2 + across * Math.cos(angle), y: HEIGHT / 2 + 130 * Math.sin(angle), angle };
  };
  return (
    <Picture
      width={width}
      height={HEIGHT}
      label={label}
      file={file}
      caption="A line joins products that stood side by side in a trial, thicker with more trials."
    >
      {edges.map((e) => {
        const [a, b] = [at(e.a), at(e.b)];
        return (
          <g key={`${e.a}/${e.b}`}>
            <line
              x1={a.x}
              y1={a.y}
              x2={b.x}
              y2={b.y}
              stroke="var(--soft)"
              strokeWidth={1 + 1.5 * e.trials}
              opacity={0.6}
            />
            <title>{`${e.a} and ${e.b}: ${e.trials} ${e.trials === 1 ? 'trial' : 'trials'}`}</title>
          </g>
        );
      })}
      {products.map((name) => {
        const { x, y, angle } = at(name);
        const side = Math.cos(angle);
        return (
          <g key={name}>
            <rect x={x - 7} y={y - 7} width={14} height={14} rx={2} fill="var(--terracotta)" />
            <text
              x={x + (side > 0.2 ? 14 : side < -0.2 ? -14 : 0)}
              y={y + (Math.abs(side) <= 0.2 ? (Math.sin(angle) < 0 ? -14 : 24) : 5)}
              textAnchor={side > 0.2 ? 'start' : side < -0.2 ? 'end' : 'middle'}
            >
              {name}
            </text>
          </g>
        );
      })}
    </Picture>
  );
}
