import { writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { Block } from '~core/report/block';
import { figureId } from '~core/report/findingBlocks';
import { findingSvg } from '~core/report/findingSvg';
import { toHtml } from '~core/report/html';
import { toMarkdown } from '~core/report/markdown';
import { pageColours, paperInk } from '~core/report/paper';
import { toPdf } from '~core/report/pdf';
import { type TrialReview, trialReview } from '~core/report/trialReview';
import { trialOf } from './findings';
import { readArgs } from './options';
import { PlainError } from './plainError';
import { needed, oneFile } from './table';

export const reviewUsage = `palazzo review TRIAL.zip --format html|md|pdf --out FILE`;

const formats = ['html', 'md', 'pdf'] as const;
type Format = (typeof formats)[number];

/** Every finding's picture as SVG text, by the id of its figure. */
function picturesOf({ findings, lanes, unitNoun }: TrialReview): Map<string, string> {
  return new Map(
    findings.map((finding) => [
      figureId(finding),
      findingSvg({ finding, lanes, unitNoun, unmarked: finding.peers, ink: paperInk }),
    ]),
  );
}

/** Figures without a picture here (photos) are left out; what they would show stands in the data. */
const drawn = (blocks: readonly Block[], pictures: ReadonlyMap<string, string>): Block[] =>
  blocks.filter((b) => b.type !== 'figure' || pictures.has(b.id));

const dataUri = (svg: string) => `data:image/svg+xml;base64,${Buffer.from(svg).toString('base64')}`;

async function pdfBytes(review: TrialReview, pictures: ReadonlyMap<string, string>): Promise<Uint8Array> {
  const { default: pdfMake } = await import('pdfmake');
  const fonts = join(
    dirname(createRequire(import.meta.url).resolve('pdfmake/package.json')),
    'fonts',
    'Roboto',
  );
  const font = (style: string) => join(fonts, `Roboto-${style}.ttf`);
  pdfMake.setFonts({
    Roboto: {
      normal: font('Regular'),
      bold: font('Medium'),
      italics: font('Italic'),
      bolditalics: font('MediumItalic'),
    },
    // Names that pictures ask for.
    Georgia: { normal: font('Regular'), bold: font('Medium') },
    Helvetica: { normal: font('Regular'), bold: font('Medium') },
    Courier: { normal: font('Regular'), bold: font('Medium') },
  });
  // It reads its fonts and nothing else.
  pdfMake.setUrlAccessPolicy(() => false);
  pdfMake.setLocalAccessPolicy((path: string) => path.startsWith(fonts));
  const document = toPdf(
    review.title,
    drawn(review.blocks, pictures),
    (id) => ({ svg: pictures.get(id)! }),
    pageColours,
  );
  return pdfMake.createPdf(document as never).getBuffer();
}

/** Runs `review`: writes the review of a trial and returns where it went. */
export async function review(args: string[], today = new Date().toISOString().slice(0, 10)): Promise<string> {
  const { values, positionals } = readArgs(
    args,
    { format: { type: 'string' }, out: { type: 'string' } },
    true,
  );
  const format = formats.find((f) => f === needed('format', values.format));
  if (!format) throw new PlainError(`--format is one of ${formats.join(', ')}.`);
  const out = needed('out', values.out);
  const file = oneFile(positionals);
  const made = trialReview(trialOf(file), today);
  if (made === null)
    throw new PlainError(
      `${file}: the codes of this trial are closed; open them in Layout before it is reviewed.`,
    );
  const pictures = picturesOf(made);
  const content: Record<Format, () => string | Promise<Uint8Array>> = {
    html: () =>
      toHtml(
        made.title,
        drawn(made.blocks, pictures),
        (id) => dataUri(pictures.get(id)!),
        pageColours,
        made.card,
      ),
    md: () => toMarkdown(drawn(made.blocks, pictures), (id) => dataUri(pictures.get(id)!)),
    pdf: () => pdfBytes(made, pictures),
  };
  try {
    writeFileSync(out, await content[format]());
  } catch (fault) {
    throw new PlainError(`“${out}” can't be written: ${(fault as Error).message}`);
  }
  return out;
}
