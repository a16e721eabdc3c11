import { printable } from './printable';
import type { PictureInk } from './findingSvg';
import { tesseraStyle } from './tessera';

/** What stands in a picture that goes where nobody reads on. */
export interface SocialInput {
  question: string;
  /** the verdict's sentence */
  sentence: string;
  /** contenders as they came, with their figure in words */
  lines: readonly { name: string; index: number; figure: string }[];
  /** what was measured, on how many */
  small: string;
  ink: PictureInk;
}

const escaped = (text: string) => printable(text).replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

/** Words in lines of about so many characters; the last one ends in … where more would follow. */
export function wrapped(text: string, most: number, lines: number): string[] {
  const out: string[] = [''];
  for (const word of text.split(/\s+/).filter(Boolean)) {
    const now = out.at(-1)!;
    if (now === '' || `${now} ${word}`.length <= most)
      out[out.length - 1] = now === '' ? word : `${now} ${word}`;
    else out.push(word);
  }
  return out.length <= lines ? out : [...out.slice(0, lines - 1), `${out[lines - 1]!.slice(0, most - 2)} …`];
}

/**
 * The verdict as one picture, wide (1200 × 630) or square (1080 × 1080).
 * @returns SVG text
 */
export function socialSvg(
  { question, sentence, lines, small, ink }: SocialInput,
  shape: 'wide' | 'square',
): string {
  const [width, height] = shape === 'wide' ? [1200, 630] : [1080, 1080];
  const most = shape === 'wide' ? 46 : 34;
  const out: string[] = [];
  let y = 90;
  const write = (text: string, size: number, colour: string, bold: boolean, family = 'Georgia, serif') => {
    out.push(
      `<text x="70" y="${y}" font-family="${family}" font-size="${size}"${bold ? ' font-weight="bold"' : ''} fill="${colour}">${escaped(text)}</text>`,
    );
    y += size * 1.3;
  };
  for (const line of wrapped(question, most + 16, 2)) write(line, 34, ink.soft, false);
  y += 18;
  for (const line of wrapped(sentence, most, shape === 'wide' ? 3 : 4)) write(line, 52, ink.ink, true);
  y += 20;
  const room = Math.max(1, Math.floor((height - y - 80) / 56));
  for (const l of lines.slice(0, room)) {
    const colour = ink.tiles[l.index % ink.tiles.length]!;
    out.push(
      `<g transform="translate(70 ${y - 30}) scale(1.5)"><rect x="1" y="1" width="22" height="22" rx="4" fill="${ink.sheet}"/><path d="${tesseraStyle(l.index).path}" fill="${colour}" fill-rule="evenodd"/><rect x="1" y="1" width="22" height="22" rx="4" fill="none" stroke="${colour}" stroke-width="2"/></g>`,
      `<text x="126" y="${y}" font-family="Helvetica, Arial, sans-serif" font-size="34" fill="${ink.ink}">${escaped(l.name)}</text>`,
      `<text x="${width - 70}" y="${y}" text-anchor="end" font-family="Courier, monospace" font-size="32" fill="${ink.ink}">${escaped(l.figure)}</text>`,
    );
    y += 56;
  }
  out.push(
    `<text x="70" y="${height - 40}" font-family="Helvetica, Arial, sans-serif" font-size="24" fill="${ink.soft}">${escaped(small)}</text>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}"><rect width="${width}" height="${height}" fill="${ink.sheet}"/>${out.join('')}</svg>`;
}
