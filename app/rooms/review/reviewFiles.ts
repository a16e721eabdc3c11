import { strToU8, zipSync } from 'fflate';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { findingRows } from '~core/account/findingRows';
import { trialFindings } from '~core/account/trialFindings';
import { scorersCopy } from '~core/formats/scorersCopy';
import { deriveState } from '~core/log/state';
import { findingPicture } from '~core/picture/findingPicture';
import { inTiles } from '~core/picture/inTiles';
import { pageColours, pageColoursByNight } from '~core/picture/paper';
import { experimentalNoun, measuredPer } from '~core/plan/sharing';
import { tilesOf } from '~core/plan/tiles';
import type { Block, TableBlock } from '~core/report/block';
import { photoFigure } from '~core/report/chosenPhotos';
import { CONTACT_SHEET } from '~core/report/contactSheet';
import { figureId } from '~core/report/findingBlocks';
import { toHtml } from '~core/report/html';
import { toMarkdown } from '~core/report/markdown';
import { toPdf } from '~core/report/pdf';
import { toPlainText } from '~core/report/plainText';
import { type SocialShape, socialPicture } from '~core/report/socialPicture';
import { tableHtml, tableText } from '~core/report/tablePaste';
import { bulkOf } from '../../store/bulk';
import { wholeTrial } from '../../store/trials';
import { announce } from '../../ui/announce';
import { bytesOf, download } from '../../ui/download';
import { pdfBlob } from '../../ui/pdfBlob';
import { fontRules, pngOf, pngUri } from '../../ui/pictures/picture';
import { paperHere } from '../../ui/region';
import { writeTrialFile } from '../../workers/files';
import { findings as findingsIn } from '../../workers/findings';
import { lanesOf } from '../findings/findingData';
import { drawnOnce } from './drawnOnce';
import { photoPicture, sheetPicture } from './photoPicture';
import type { ReviewData } from './reviewData';

/** A picture of every finding, and the contact sheet, by figure id. */
export async function pictures({
  plan,
  findings,
  sheet,
  chosen,
}: ReviewData): Promise<Record<string, string>> {
  const lanes = lanesOf(plan);
  const made = await Promise.all(
    findings.map(async (f) => {
      const unitNoun = experimentalNoun(plan);
      const shown = { finding: f, lanes, unitNoun, per: measuredPer(plan), unmarked: f.peers };
      const picture = drawnOnce(`${plan.id} ${figureId(f)}`, shown, () =>
        pngUri(inTiles(findingPicture(shown), tilesOf(plan)), 3),
      );
      return [figureId(f), await picture] as const;
    }),
  );
  const photos =
    sheet.length === 0
      ? []
      : [
          [
            CONTACT_SHEET,
            await sheetPicture(
              sheet,
              plan.treatments.map((t) => t.name),
            ),
          ] as const,
        ];
  const own = await Promise.all(
    chosen.map(async (p) => [photoFigure(p.id), await photoPicture(p.sha256, 1200)] as const),
  );
  return Object.fromEntries([...made, ...photos, ...own.filter(([, uri]) => uri !== '')]);
}

/** Plan, log and findings as a file. @param forScorer without what would give the codes away */
export async function saveData(
  { plan }: Pick<ReviewData, 'plan'>,
  forScorer = false,
  give: (file: Blob, name: string) => void | Promise<void> = download,
) {
  const whole = await wholeTrial(plan.id);
  const trial = forScorer ? scorersCopy(whole) : whole;
  const named = trialFindings(trial);
  const rows = findingRows(named, await findingsIn(named.inputs.map((i) => i.input)));
  const bulk = await bulkOf(deriveState(trial.plan, trial.log));
  // Nobody is told that it is saved before it can be read.
  const { file, why } = await writeTrialFile(trial, bulk, rows);
  if (why !== null) return announce(`The file wasn’t saved: it can’t be read back. ${why}`);
  await give(file, `${plan.code.toLowerCase()}-${forScorer ? 'to-score' : 'trial'}.zip`);
}

const fileName = ({ plan }: Pick<ReviewData, 'plan'>, what: string) => `${plan.code.toLowerCase()}-${what}`;

/** The review as one page, with its pictures in it. */
export async function saveHtml(data: ReviewData) {
  const made = await pictures(data);
  const look = new Map<string, string>();
  for (const { sha256 } of data.look?.photos ?? []) look.set(sha256, await photoPicture(sha256, 480));
  const extras = {
    card: data.card,
    look: data.look,
    photoOf: (sha256: string) => look.get(sha256) ?? '',
    fontRules: await fontRules(),
    night: pageColoursByNight,
  };
  const page = toHtml(data.plan.question, data.blocks, (id) => made[id] ?? '', pageColours, extras);
  download(new Blob([page], { type: 'text/html' }), fileName(data, 'review.html'));
}

export async function savePdf(data: ReviewData) {
  const made = await pictures(data);
  const figure = (id: string) => (made[id] ? { image: made[id] } : null);
  const document = toPdf(data.plan.question, data.blocks, figure, pageColours, paperHere());
  download(await pdfBlob(document as unknown as TDocumentDefinitions), fileName(data, 'review.pdf'));
}

export async function saveMarkdown(data: ReviewData) {
  const made = await pictures(data);
  const files: Record<string, Uint8Array> = {
    'review.md': strToU8(toMarkdown(data.blocks, (id) => `pictures/${id}.png`)),
  };
  for (const [id, uri] of Object.entries(made)) files[`pictures/${id}.png`] = bytesOf(uri);
  const zip = zipSync(files) as Uint8Array<ArrayBuffer>;
  download(new Blob([zip], { type: 'application/zip' }), fileName(data, 'review-markdown.zip'));
}

/** What of the review is told in a picture for a post. */
export async function savePicture({ social, plan }: ReviewData, shape: SocialShape) {
  if (!social) return;
  download(
    await pngOf(inTiles(socialPicture(social, shape), tilesOf(plan)), 1),
    fileName({ plan }, `${shape}.png`),
  );
}

export const saveText = (data: ReviewData, what: string, text: readonly Block[]) =>
  download(new Blob([toPlainText(text)], { type: 'text/plain' }), fileName(data, `${what}.txt`));

/** A table for a text, a mail or a spreadsheet. */
export const copyTable = (table: TableBlock) =>
  navigator.clipboard.write([
    new ClipboardItem({
      'text/html': new Blob([tableHtml(table)], { type: 'text/html' }),
      'text/plain': new Blob([tableText(table)], { type: 'text/plain' }),
    }),
  ]);
