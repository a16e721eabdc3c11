import Button from '@mui/material/Button';
import { type ReactNode, useRef } from 'react';
import { fonts } from '../colours';
import { download } from '../download';
import { TesseraShape } from '../Tessera';
import { tesseraStyle } from '../tesserae';
import { pngFile, svgFile } from './picture';
import '../chart.css';

interface Props {
  width: number;
  height: number;
  /** the picture in words */
  label: string;
  /** name of the saved file, without its ending */
  file: string;
  /** what stands below the picture */
  caption?: ReactNode;
  children: ReactNode;
}

/** A picture in the app's own look that can be saved as PNG and as SVG. */
export function Picture({ width, height, label, file, caption, children }: Props) {
  const drawn = useRef<SVGSVGElement>(null);
  const save = async (kind: 'png' | 'svg') => {
    if (!drawn.current) return;
    const name = file.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-');
    const blob =
      kind === 'png'
        ? await pngFile(drawn.current)
        : new Blob([await svgFile(drawn.current)], { type: 'image/svg+xml' });
    download(blob, `${name}.${kind}`);
  };
  return (
    <figure style={{ margin: 0 }}>
      <div className="figure-box">
        <svg
          ref={drawn}
          viewBox={`0 0 ${width} ${height}`}
          role="img"
          aria-label={label}
          style={{ display: 'block', width: '100%', maxWidth: width }}
          fontFamily={fonts.sans}
          fontSize={13}
          fill="var(--ink)"
        >
          <rect width={width} height={height} fill="var(--sheet)" />
          {children}
        </svg>
      </div>
      <figcaption className="small quiet" style={{ margin: '0.5rem 0' }}>
        {caption}
      </figcaption>
      <div className="inline-row no-print">
        <Button color="secondary" size="small" onClick={() => void save('png')}>
          Picture (PNG)
        </Button>
        <Button color="secondary" size="small" onClick={() => void save('svg')}>
          Picture (SVG)
        </Button>
      </div>
    </figure>
  );
}

/** A contender's tile in a picture, centred on a point. */
export const TileMark = ({
  index,
  x,
  y,
  size = 14,
}: {
  index: number;
  x: number;
  y: number;
  size?: number;
}) => (
  <svg x={x - size / 2} y={y - size / 2} width={size} height={size} viewBox="0 0 24 24">
    <TesseraShape index={index} />
  </svg>
);

/** The colour of a contender. */
export const inkOf = (index: number): string => `var(${tesseraStyle(index).colour})`;

interface AxisProps {
  ticks: readonly number[];
  at: (value: number) => number;
  from: number;
  to: number;
  /** where the axis lies */
  across: number;
  title: string;
  say?: (value: number) => string;
}

const plain = (v: number) => String(Number(v.toPrecision(6))).replace('-', '−');

/** A value axis below a picture. */
export function AxisBelow({ ticks, at, from, to, across, title, say = plain }: AxisProps) {
  return (
    <g fill="var(--soft)">
      <line x1={from} x2={to} y1={across} y2={across} stroke="var(--line)" />
      {ticks.map((t) => (
        <g key={t}>
          <line x1={at(t)} x2={at(t)} y1={across} y2={across + 5} stroke="var(--line)" />
          <text x={at(t)} y={across + 19} textAnchor="middle" fontFamily={fonts.mono} fontSize={12}>
            {say(t)}
          </text>
        </g>
      ))}
      <text x={to} y={across + 38} textAnchor="end">
        {title}
      </text>
    </g>
  );
}

/** A value axis at the left of a picture, with its lines across. */
export function AxisLeft({ ticks, at, from, to, across, title, say = plain }: AxisProps) {
  return (
    <g fill="var(--soft)">
      {ticks.map((t) => (
        <g key={t}>
          <line x1={across} x2={to} y1={at(t)} y2={at(t)} stroke="var(--line)" />
          <text x={across - 8} y={at(t) + 4} textAnchor="end" fontFamily={fonts.mono} fontSize={12}>
            {say(t)}
          </text>
        </g>
      ))}
      <text x={across} y={from - 10}>
        {title}
      </text>
    </g>
  );
}
