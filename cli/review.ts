import { inTiles } from '../core/picture/inTiles';
import { readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { type Gains, balance } from '~core/imaging/balance';
import type { Block } from '~core/report/block';
import { importBulk } from '~core/formats/bulkFiles';
import type { Trial } from '~core/log/trial';
import { CONTACT_SHEET, type SheetCell } from '~core/report/contactSheet';
import { contactSheetPicture } from '~core/report/contactSheetPicture';
import { photoFigure } from '~core/report/chosenPhotos';
import { figureId } from '~core/report/findingBlocks';
import { findingPicture } from '~core/picture/findingPicture';
import { type Faces, pageFaces, plainFaces, svgOf } from '~core/picture/shapes';
import { toHtml } from '~core/report/html';
import { toMarkdown } from '~core/report/markdown';
import { pageColours, pageColoursByNight, paper } from '~core/picture/paper';
import { toPdf } from '~core/report/pdf';
import { type TrialReview, trialReview } from '~core/report/trialReview';
import { trialOf } from './findings';
import { readArgs } from './options';
import { jpegOf, pixelsOf } from './pixels';
import { PlainError } from './plainError';
import { needed, oneFile } from './table';

export const reviewUsage = `palazzo review TRIAL.zip --format html|md|pdf --out FILE`;

const formats = ['html', 'md', 'pdf'] as const;
type Format = (typeof formats)[number];

/** Every finding's picture as SVG text, by the id of its figure. */
function picturesOf(
  { findings, lanes, tiles, per, unitNoun }: TrialReview,
  faces: Faces,
): Map<string, string> {
  return new Map(
    findings.map((finding) => {
      const drawing = findingPicture({ finding, lanes, per, unitNoun, unmarked: finding.peers });
      return [figureId(finding), svgOf(inTiles(drawing, tiles), paper, faces)];
    }),
  );
}

/** The photos of a trial's file, by their hash. */
function photosOf(file: string, trial: Trial): Map<string, StoredPhoto> {
  const { photos } = importBulk(new Uint8Array(readFileSync(file)), trial);
  return new Map(photos.map((p) => [p.sha256, p]));
}

interface StoredPhoto {
  type: string;
  bytes: Uint8Array;
}

const uriOf = ({ type, bytes }: StoredPhoto) =>
  `data:${type};base64,${Buffer.from(bytes).toString('base64')}`;

/** A photo with its colours balanced by the grey card; one that can't be read stays as it is. */
function balanced(photo: StoredPhoto, gains: Gains): StoredPhoto {
  try {
    const pixels = pixelsOf(photo.bytes);
    if (!pixels) return photo;
    balance(pixels, gains);
    return { type: 'image/jpeg', bytes: jpegOf(pixels) };
  } catch {
    return photo;
  }
}

/** The contact sheet with its photos in it; null where the file holds none of them. */
function sheetOf({ sheet, lanes }: TrialReview, photos: ReadonlyMap<string, StoredPhoto>): string | null {
  const source = ({ sha256, gains }: SheetCell) => {
    const photo = photos.get(sha256);
    if (!photo) return null;
    return uriOf(gains ? balanced(photo, gains) : photo);
  };
  const drawing = contactSheetPicture(
    sheet,
    lanes.map((l) => l.name),
    source,
  );
  return drawing && svgOf(drawing, paper);
}

/** The app's own fonts as rules with the fonts in them, the Latin part. */
function fontRules(): string {
  const { resolve } = createRequire(import.meta.url);
  return (
    [
      ['fraunces', 'Fraunces Variable'],
      ['source-sans-3', 'Source Sans 3 Variable'],
    ] as const
  )
    .map(([pack, family]) => {
      const folder = dirname(resolve(`@fontsource-variable/${pack}/package.json`));
      const font = readFileSync(join(folder, 'files', `${pack}-latin-wght-normal.woff2`));
      return `@font-face{font-family:"${family}";font-weight:200 900;src:url(data:font/woff2;base64,${font.toString('base64')}) format("woff2")}`;
    })
    .join('');
}

/** Figures without a picture in the file are left out. */
const drawn = (blocks: readonly Block[], pictures: ReadonlyMap<string, unknown>): Block[] =>
  blocks.filter((b) => b.type !== 'figure' || pictures.has(b.id));

const dataUri = (svg: string) => `data:image/svg+xml;base64,${Buffer.from(svg).toString('base64')}`;

/** A picture as a data URI, and as text where it is drawn. */
interface Pictured {
  uri: string;
  svg?: string;
}

async function pdfBytes(review: TrialReview, pictures: ReadonlyMap<string, Pictured>): Promise<Uint8Array> {
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
    (id) => {
      const { svg, uri } = pictures.get(id)!;
      return svg ? { svg } : { image: uri };
    },
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
  const trial = trialOf(file);
  const made = trialReview(trial, today);
  if (made === null)
    throw new PlainError(
      `${file}: the codes of this trial are closed; open them in Layout before it is reviewed.`,
    );
  const photos = photosOf(file, trial);
  const inPage = picturesOf(made, pageFaces);
  const pictures = new Map<string, Pictured>([
    ...[...picturesOf(made, plainFaces)].map(([id, svg]) => [id, { svg, uri: dataUri(svg) }] as const),
    ...made.photos.flatMap(({ id, sha256 }) => {
      const photo = photos.get(sha256);
      return photo ? [[photoFigure(id), { uri: uriOf(photo) }] as const] : [];
    }),
  ]);
  const sheet = sheetOf(made, photos);
  if (sheet) pictures.set(CONTACT_SHEET, { svg: sheet, uri: dataUri(sheet) });
  const content: Record<Format, () => string | Promise<Uint8Array>> = {
    html: () =>
      toHtml(made.title, drawn(made.blocks, pictures), (id) => pictures.get(id)!.uri, pageColours, {
        card: made.card,
        look: made.look,
        photoOf: (sha) => {
          const photo = photos.get(sha);
          return photo ? uriOf(photo) : '';
        },
        // Drawn in the page, so that it has the page's own faces.
        svgOf: (id) => inPage.get(id),
        fontRules: fontRules(),
        night: pageColoursByNight,
      }),
    md: () => toMarkdown(drawn(made.blocks, pictures), (id) => pictures.get(id)!.uri),
    pdf: () => pdfBytes(made, pictures),
  };
  try {
    writeFileSync(out, await content[format]());
  } catch (fault) {
    throw new PlainError(`“${out}” can't be written: ${(fault as Error).message}`);
  }
  return out;
}
