import Button from '@mui/material/Button';
import { type ReactNode, createElement, useContext } from 'react';
import { inTiles } from '~core/picture/inTiles';
import type { Drawing } from '~core/picture/marks';
import { type Shape, shapeOf } from '~core/picture/shapes';
import { fonts } from '../colours';
import { Tiles } from '../Tiles';
import { download } from '../download';
import { pngOf, svgFile } from './picture';
import '../chart.css';

interface Props {
  drawing: Drawing;
  /** the picture in words */
  label: string;
  /** name of the saved file, without its ending */
  file: string;
  /** what stands below the picture */
  caption?: ReactNode;
  /** nothing to be saved: an exercise */
  passing?: boolean;
}

const variable = (ink: string) => `var(--${ink})`;

const drawn = ({ tag, attributes, text, within, said }: Shape, key: number): ReactNode =>
  createElement(
    tag,
    { key, ...attributes },
    said === undefined ? null : <title>{said}</title>,
    text,
    within?.map(drawn),
  );

/** A picture in the app's own look that can be saved as PNG and as SVG. */
export function Picture({ drawing: byPlace, label, file, caption, passing = false }: Props) {
  const drawing = inTiles(byPlace, useContext(Tiles));
  const { width, height, marks } = drawing;
  const name = file.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-');
  const savePng = async () => download(await pngOf(drawing, 3), `${name}.png`);
  const saveSvg = async () =>
    download(new Blob([await svgFile(drawing)], { type: 'image/svg+xml' }), `${name}.svg`);
  return (
    <figure style={{ margin: 0 }}>
      <div className="figure-box">
        <svg
          viewBox={`0 0 ${width} ${height}`}
          role="img"
          aria-label={label}
          style={{ display: 'block', width: '100%', maxWidth: width }}
        >
          <rect width={width} height={height} fill="var(--sheet)" />
          {marks.map((m, i) => drawn(shapeOf(m, variable, fonts), i))}
        </svg>
      </div>
      <figcaption className="small quiet" style={{ margin: '0.5rem 0' }}>
        {caption}
      </figcaption>
      {!passing && (
        <div className="inline-row no-print">
          <Button color="secondary" size="small" onClick={() => void savePng()}>
            Picture (PNG)
          </Button>
          <Button color="secondary" size="small" onClick={() => void saveSvg()}>
            Picture (SVG)
          </Button>
        </div>
      )}
    </figure>
  );
}
