import { writeFileSync } from 'node:fs';
import jpeg from 'jpeg-js';
import { PNG } from 'pngjs';
import QRCode from 'qrcode';
import { drawPlants } from '../core/imaging/drawPlants';

/** A tray from above with this cover, and a label with a QR code in its corner. */
function picture(cover: number, code: string | null) {
  const [width, height] = [640, 480];
  const scene = drawPlants({ width, height, cover, leaf: [78, 142, 58], ground: [94, 74, 58], seed: 11 });
  if (code !== null) {
    const { modules } = QRCode.create(code, { errorCorrectionLevel: 'M' });
    const [module, quiet] = [6, 4];
    const side = (modules.size + 2 * quiet) * module;
    for (let y = 0; y < side; y++) {
      for (let x = 0; x < side; x++) {
        const [row, column] = [Math.floor(y / module) - quiet, Math.floor(x / module) - quiet];
        const inside = row >= 0 && column >= 0 && row < modules.size && column < modules.size;
        const shade = inside && modules.get(row, column) ? 0 : 255;
        scene.data.fill(shade, (y * width + x) * 4, (y * width + x) * 4 + 3);
      }
    }
  }
  return scene;
}

/** Writes such a picture as a PNG file. */
export function writePicture(path: string, cover: number, code: string | null): void {
  const { width, height, data } = picture(cover, code);
  const png = new PNG({ width, height });
  png.data = Buffer.from(data);
  writeFileSync(path, PNG.sync.write(png));
}

/** Writes it as what a camera sees: a YUV4MPEG2 file of a few frames, as Chromium’s fake camera plays it. */
export function writeCamera(path: string, cover: number, code: string): void {
  const { width, height, data } = picture(cover, code);
  const [luma, blue, red] = [width * height, (width / 2) * (height / 2), (width / 2) * (height / 2)].map(
    (n) => Buffer.alloc(n),
  ) as [Buffer, Buffer, Buffer];
  // ITU-R BT.601, studio range
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const p = (y * width + x) * 4;
      const [r, g, b] = [data[p]!, data[p + 1]!, data[p + 2]!];
      luma[y * width + x] = 16 + 0.257 * r + 0.504 * g + 0.098 * b;
      if (x % 2 === 0 && y % 2 === 0) {
        const i = (y / 2) * (width / 2) + x / 2;
        blue[i] = 128 - 0.148 * r - 0.291 * g + 0.439 * b;
        red[i] = 128 + 0.439 * r - 0.368 * g - 0.071 * b;
      }
    }
  }
  const frame = Buffer.concat([Buffer.from('FRAME\n'), luma, blue, red]);
  writeFileSync(
    path,
    Buffer.concat([Buffer.from(`YUV4MPEG2 W${width} H${height} F10:1 Ip A1:1 C420\n`), frame, frame, frame]),
  );
}

/**
 * A JPEG as a phone writes it: lying on its side with a note to turn it (orientation 6), when and where it was taken.
 * EXIF 2.3 (CIPA DC-008): TIFF header, IFD0 with orientation and pointers, Exif IFD with the date, GPS IFD.
 */
export function writePhonePicture(path: string, takenAt: string): void {
  const { width, height, data } = picture(0.3, null);
  const { data: encoded } = jpeg.encode({ width, height, data: Buffer.from(data) }, 90);
  const date = Buffer.from(`${takenAt}\0`, 'latin1');
  // offsets from the TIFF header: IFD0 at 8 (3 entries), Exif IFD at 50 (1), its date at 68, GPS IFD after it (1)
  const gpsAt = 68 + date.length;
  const entry = (tag: number, type: number, count: number, value: number) => {
    const e = Buffer.alloc(12);
    e.writeUInt16BE(tag, 0);
    e.writeUInt16BE(type, 2);
    e.writeUInt32BE(count, 4);
    if (type === 3) e.writeUInt16BE(value, 8);
    else e.writeUInt32BE(value, 8);
    return e;
  };
  const ifd = (...entries: Buffer[]) => {
    const count = Buffer.alloc(2);
    count.writeUInt16BE(entries.length);
    return Buffer.concat([count, ...entries, Buffer.alloc(4)]);
  };
  const north = Buffer.alloc(4);
  north.write('N\0', 'latin1');
  const gps = entry(1, 2, 2, 0);
  north.copy(gps, 8);
  const tiff = Buffer.concat([
    Buffer.from([0x4d, 0x4d, 0, 42, 0, 0, 0, 8]),
    ifd(entry(0x0112, 3, 1, 6), entry(0x8769, 4, 1, 50), entry(0x8825, 4, 1, gpsAt)),
    ifd(entry(0x9003, 2, date.length, 68)),
    date,
    ifd(gps),
  ]);
  const body = Buffer.concat([Buffer.from('Exif\0\0', 'latin1'), tiff]);
  const head = Buffer.from([0xff, 0xe1, 0, 0]);
  head.writeUInt16BE(body.length + 2, 2);
  writeFileSync(path, Buffer.concat([encoded.subarray(0, 2), head, body, encoded.subarray(2)]));
}
