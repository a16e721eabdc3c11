import { readFileSync } from 'node:fs';
import { type Canopy, type Pixels, measureCanopy } from '~core/imaging/canopy';
import { readArgs } from './options';
import { pixelsOf } from './pixels';
import { PlainError } from './plainError';

export const canopyUsage = 'palazzo canopy IMAGE.png|IMAGE.jpg [--json]';

/** The pixels of a picture file, PNG or JPEG by what it begins with. */
function readPixels(file: string): Pixels {
  let bytes: Buffer;
  try {
    bytes = readFileSync(file);
  } catch {
    throw new PlainError(`The file “${file}” can't be read.`);
  }
  let pixels: Pixels | null;
  try {
    pixels = pixelsOf(bytes);
  } catch (e) {
    throw new PlainError(`${file} is a damaged picture: ${(e as Error).message}`);
  }
  if (!pixels) throw new PlainError(`${file} is neither a PNG nor a JPEG picture.`);
  return pixels;
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
