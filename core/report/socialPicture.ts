import type { Drawing, Ink, Mark } from '../picture/marks';

/** What stands in a picture that goes where nobody reads on. */
interface SocialInput {
  question: string;
  /** the verdict's sentence */
  sentence: string;
  /** contenders as they came, with their figure in words */
  lines: readonly { name: string; index: number; figure: string }[];
  /** what was measured, on how many */
  small: string;
}

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

export type SocialShape = 'wide' | 'square';

/** The verdict as one picture, wide (1200 × 630) or square (1080 × 1080). */
export function socialPicture(
  { question, sentence, lines, small }: SocialInput,
  shape: SocialShape,
): Drawing {
  const [width, height] = shape === 'wide' ? [1200, 630] : [1080, 1080];
  const most = shape === 'wide' ? 46 : 34;
  const marks: Mark[] = [];
  let y = 90;
  const write = (said: string, size: number, ink: Ink, bold: boolean) => {
    marks.push({ mark: 'text', at: [70, y], text: said, face: 'serif', size, bold, ink });
    y += size * 1.3;
  };
  for (const line of wrapped(question, most + 16, 2)) write(line, 34, 'soft', false);
  y += 18;
  for (const line of wrapped(sentence, most, shape === 'wide' ? 3 : 4)) write(line, 52, 'ink', true);
  y += 20;
  const room = Math.max(1, Math.floor((height - y - 80) / 56));
  for (const l of lines.slice(0, room)) {
    marks.push(
      { mark: 'tile', at: [88, y - 12], index: l.index, size: 36 },
      { mark: 'text', at: [126, y], text: l.name, size: 34 },
      { mark: 'text', at: [width - 70, y], text: l.figure, face: 'mono', size: 32, anchor: 'end' },
    );
    y += 56;
  }
  marks.push({ mark: 'text', at: [70, height - 40], text: small, size: 24, ink: 'soft' });
  return { width, height, marks };
}
