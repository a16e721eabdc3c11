import QRCode from 'qrcode';
import { drawPlants } from '~core/imaging/drawPlants';
import type { Camera } from './camera';
import type { Driver, Instrument } from './instrument';

const SIZE = { width: 640, height: 480 };
const GROUND = [94, 74, 58] as const;
const LEAF = [78, 138, 52] as const;
/** Side of the label in the picture, pixels. */
const LABEL = 150;

/** What stands before the stand-in: a container with so much cover, and its label. */
export interface Stand {
  code: string;
  /** 0–1 */
  cover: number;
  seed: number;
}

/** Draws the stand’s container as a camera above it would see it, with its label in a corner. */
function drawStand(canvas: HTMLCanvasElement, { code, cover, seed }: Stand): void {
  canvas.width = SIZE.width;
  canvas.height = SIZE.height;
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  const { data } = drawPlants({ ...SIZE, cover, leaf: LEAF, ground: GROUND, seed });
  context.putImageData(new ImageData(Uint8ClampedArray.from(data), SIZE.width, SIZE.height), 0, 0);
  if (code === '') return;
  const qr = QRCode.create(code, { errorCorrectionLevel: 'M' });
  const { size } = qr.modules;
  const module = Math.floor(LABEL / (size + 8));
  const side = module * (size + 8);
  context.fillStyle = '#fff';
  context.fillRect(SIZE.width - side, SIZE.height - side, side, side);
  context.fillStyle = '#000';
  for (let y = 0; y < size; y++) {
    for (let x = 0; x < size; x++) {
      if (qr.modules.get(y, x)) {
        context.fillRect(
          SIZE.width - side + (x + 4) * module,
          SIZE.height - side + (y + 4) * module,
          module,
          module,
        );
      }
    }
  }
}

/** A camera that sees the stand; it draws on the canvas that shows it. @param stand asked anew for each frame */
export function simulatedCamera(canvas: HTMLCanvasElement, stand: () => Stand): Camera {
  let drawn = '';
  const draw = () => {
    const now = stand();
    const key = JSON.stringify(now);
    if (key === drawn) return;
    drawn = key;
    drawStand(canvas, now);
  };
  draw();
  const timer = setInterval(draw, 200);
  return {
    frame: () => canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height),
    take: async () => {
      draw();
      const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', 0.94));
      return blob && new Uint8Array(await blob.arrayBuffer());
    },
    close: () => clearInterval(timer),
  };
}

/** A stand of its own for looking at the instrument by itself. */
function pictured(name: string): Instrument {
  const stand: Stand = { code: 'DEMO-01', cover: 0.4, seed: 7 };
  return {
    name,
    channels: [],
    step: null,
    calibrations: [],
    present: ({ code, values }) => {
      stand.code = code ?? stand.code;
      stand.cover = values?.cover ?? stand.cover;
    },
    // What it sees is a picture: there is no figure to tell, but the label once it is shown.
    listen: (onReading) => {
      const timer = setInterval(() => onReading({ values: {}, atRest: true, code: stand.code }), 250);
      return () => clearInterval(timer);
    },
    show: (canvas) => simulatedCamera(canvas, () => stand).close,
  };
}

export const simulatedCameraDriver: Driver = {
  id: 'simulated-camera',
  name: 'Simulated camera',
  measures: 'picture',
  simulated: true,
  unavailable: () => null,
  connect: () => pictured('simulated camera'),
};

export const simulatedReaderDriver: Driver = {
  id: 'simulated-reader',
  name: 'Simulated label reader',
  measures: 'code',
  simulated: true,
  unavailable: () => null,
  connect: () => pictured('simulated label reader'),
};
