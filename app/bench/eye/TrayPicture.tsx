import { useEffect, useRef } from 'react';
import { drawPlants } from '~core/imaging/drawPlants';

interface Props {
  /** share that is covered, 0 … 1 */
  cover: number;
  seed: number;
  turned?: boolean;
  label: string;
  /** drawn so wide, pixels */
  width?: number;
}

/** A tray as the simulated camera draws it. */
export function TrayPicture({ cover, seed, turned = false, label, width = 480 }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const height = Math.round((width * 2) / 3);
  useEffect(() => {
    const { data } = drawPlants({ width, height, cover, seed, leaf: [78, 138, 52], ground: [94, 74, 58] });
    canvas
      .current!.getContext('2d')!
      .putImageData(new ImageData(Uint8ClampedArray.from(data), width, height), 0, 0);
  }, [cover, seed, width, height]);
  return (
    <canvas
      ref={canvas}
      {...{ width, height }}
      role="img"
      aria-label={label}
      className={`eye-picture${turned ? ' turned' : ''}`}
    />
  );
}
