import { readFileSync } from 'node:fs';
import jpeg from 'jpeg-js';
import { PNG } from 'pngjs';
import { type Canopy, type Pixels, measureCanopy } from '~core/imaging/canopy';
import { readArgs } from './options';
import { PlainError } from './plainError';

export const canopyUsage = 'palazzo canopy IMAGE.png|IMAGE.jpg [--json]';

/** More than any camera has; a picture that claims more is broken. */
const MOST_MEGAPIXELS = 200;

/** The pixels of a picture file, PNG or JPEG by what it begins with. */
function readPixels(file: string): Pixels {
  let bytes: Buffer;
  try {
    bytes = readFileSync(file);
  } catch {
    throw new PlainError(`The file “${file}” can't be read.`);
  }
  try {
    if (bytes[0] === 0x89 && bytes[1] === 0x50) {
      const { width, height, data } = PNG.sync.read(bytes);
      return { width, height, data };
    }
    if (bytes[0] === 0xff && bytes[1] === 0xd8) {
      return jpeg.decode(bytes, {
        useTArray: true,
        formatAsRGBA: true,
        maxResolutionInMP: MOST_MEGAPIXELS,
        maxMemoryUsageInMB: 4096,
      });
    }
  } catch (e) {
    throw new PlainError(`${file} is a damaged picture: ${(e as Error).message}`);
  }
  throw new PlainError(`${file} is neither a PNG nor a JPEG picture.`);
}

const ruleWords: Record<Canopy['rule'], string> = {
  otsu: 'Otsu',
  mostlyGround: 'nearly bare ground: the floor instead of Otsu',
  mostlyPlant: 'nearly full: the floor instead of Otsu',
  byHand: 'by hand',
};

/** Runs `canopy` and returns what goes to stdout. */
export function canopy(args: string[]): string {
  const { values, positionals } = readArgs(args, { json: { type: 'boolean', default: false } }, true);
  if (positionals.length !== 1) throw new PlainError('Name one picture to measure.');
  const pixels = readPixels(positionals[0]!);
  const { mask: _, pixels: __, ...c } = measureCanopy(pixels);
  const { width, height } = pixels;
  if (values.json) return JSON.stringify({ width, height, ...c }, null, 1);
  const index = c.darkGreenColourIndex === null ? '–' : c.darkGreenColourIndex.toFixed(3);
  return [
    `${width} × ${height} pixels`,
    `cover                    ${c.coverPercent.toFixed(2)} %`,
    `dark green colour index  ${index}`,
    `threshold                ${c.threshold.toFixed(3)} (${ruleWords[c.rule]})`,
  ].join('\n');
}
