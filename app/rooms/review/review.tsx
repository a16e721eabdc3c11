import { inTiles } from '~core/picture/inTiles';
import { tilesOf } from '~core/plan/tiles';
import { paperHere } from '../../ui/region';
import Button from '@mui/material/Button';
import { zipSync, strToU8 } from 'fflate';
import { useEffect, useMemo, useState } from 'react';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { FormProvider } from 'react-hook-form';
import { useLoaderData, useSearchParams } from 'react-router';
import { bulkOf } from '../../store/bulk';
import { deriveState } from '~core/log/state';
import { writeTrialFile } from '../../workers/files';
import { announce } from '../../ui/announce';
import { scorersCopy } from '~core/formats/scorersCopy';
import { CONTACT_SHEET } from '~core/report/contactSheet';
import { figureId } from '~core/report/findingBlocks';
import { findingRows } from '~core/account/findingRows';
import { trialFindings } from '~core/account/trialFindings';
import { findings as findingsIn } from '../../workers/findings';
import { toHtml } from '~core/report/html';
import { toMarkdown } from '~core/report/markdown';
import type { Block, TableBlock } from '~core/report/block';
import { tableHtml, tableText } from '~core/report/tablePaste';
import { toPlainText } from '~core/report/plainText';
import { toPdf } from '~core/report/pdf';
import { recordFrom } from '~core/report/piece';
import { Field } from '../../form/fields';
import { NotKeptNote } from '../../form/NotKept';
import { StaleNote } from '../../form/StaleNote';
import { UnsavedGuard } from '../../form/UnsavedGuard';
import { useKept } from '../../form/useKept';
import { useRecordForm } from '../../form/useRecordForm';
import { wholeTrial } from '../../store/trials';
import { Report, headingId } from '../../ui/Report';
import { photoFigure } from '~core/report/chosenPhotos';
import { experimentalNoun, measuredPer } from '~core/plan/sharing';
import { pageColours, pageColoursByNight } from '~core/picture/paper';
import { type SocialShape, socialPicture } from '~core/report/socialPicture';
import { useNotice } from '../../ui/Notices';
import { ViewSwitch } from '../../ui/ViewSwitch';
import { RoomHead } from '../../ui/RoomHead';
import { bytesOf, canShareFiles, download, shareFile } from '../../ui/download';
import { fontRules, pngOf, pngUri } from '../../ui/pictures/picture';
import { findingPicture } from '~core/picture/findingPicture';
import { pdfBlob } from '../../ui/pdfBlob';
import { lanesOf } from '../findings/findingData';
import { ChosenPhotos } from './ChosenPhotos';
import { photoPicture, sheetPicture } from './photoPicture';
import { type ReviewData, loadReview, reviewAction } from './reviewData';
import { type Own, ownOf, reviewRecord } from './reviewRecords';
import { OwnWords } from './OwnWords';
import { drawnOnce } from './drawnOnce';
import { CodesClosed } from '../CodesClosed';
import './review.css';
export const clientLoader = loadReview;
export const clientAction = reviewAction;

/** The piece that is read, and the record behind it. */
const levels = [
  ['piece', 'The piece'],
  ['record', 'The record'],
] as const;

/** A picture of every finding, and the contact sheet, by figure id. */
async function pictures({ plan, findings, sheet, chosen }: ReviewData): Promise<Record<string, string>> {
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

async function saveData(
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

export default function ReviewRoom() {
  const data = useLoaderData<typeof clientLoader>();
  if (!data.blind) return <OpenReview {...data} />;
  return (
    <CodesClosed trialId={data.plan.id} state={data.state} title="Review">
      <p className="small">
        For whoever scores there is a copy under codes, without names, doses or mixes; what is scored in it is
        taken back in under Data. The whole trial tells every name: it is for whoever keeps the key.
      </p>
      <p className="inline-row">
        <Button variant="outlined" color="secondary" onClick={() => void saveData(data, true)}>
          Copy for whoever scores (zip)
        </Button>
        <Button color="secondary" onClick={() => void saveData(data)}>
          Everything, with names and key (zip)
        </Button>
      </p>
    </CodesClosed>
  );
}

function OpenReview(data: ReviewData) {
  const { plan, review, blocks, broken } = data;
  const { form, busy, stale, conflicts, unsaved, onSubmit } = useRecordForm(review, {
    merges: reviewRecord.name,
    asTyped: true,
  });
  const stored = useMemo(() => ownOf(review), [review]);
  const { shown: own, keep: keepOwn, keeping, refused } = useKept('own', stored, data.rev);
  const keep = (over: Partial<Own>) => keepOwn({ ...own, ...over });
  const [rewriting, setRewriting] = useState(false);
  const [search, setSearch] = useSearchParams();
  const level = levels.find(([l]) => l === search.get('level'))?.[0] ?? 'piece';
  const at = recordFrom(blocks);
  const here = level === 'piece' ? blocks.slice(0, at) : blocks.slice(at);
  const notice = useNotice();
  const [figures, setFigures] = useState<Record<string, string>>({});
  useEffect(() => {
    let gone = false;
    void pictures(data).then((p) => !gone && setFigures(p));
    return () => {
      gone = true;
    };
  }, [data]);

  const table = blocks.find((b) => b.type === 'table');
  const copyTable = async (of: TableBlock) => {
    await navigator.clipboard.write([
      new ClipboardItem({
        'text/html': new Blob([tableHtml(of)], { type: 'text/html' }),
        'text/plain': new Blob([tableText(of)], { type: 'text/plain' }),
      }),
    ]);
    notice({ text: 'Copied: paste it into a text, a mail or a spreadsheet.' });
  };
  const name = `${plan.code.toLowerCase()}-review`;
  const saveHtml = async () => {
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
    download(
      new Blob([toHtml(plan.question, blocks, (id) => made[id] ?? '', pageColours, extras)], {
        type: 'text/html',
      }),
      `${name}.html`,
    );
  };
  const savePicture = async (shape: SocialShape) => {
    if (!data.social) return;
    download(
      await pngOf(inTiles(socialPicture(data.social, shape), tilesOf(data.plan)), 1),
      `${plan.code.toLowerCase()}-${shape}.png`,
    );
  };
  const saveText = (what: string, text: readonly Block[]) =>
    download(new Blob([toPlainText(text)], { type: 'text/plain' }), `${plan.code.toLowerCase()}-${what}.txt`);
  const savePdf = async () => {
    const made = await pictures(data);
    const figure = (id: string) => (made[id] ? { image: made[id] } : null);
    const document = toPdf(plan.question, blocks, figure, pageColours, paperHere());
    download(await pdfBlob(document as unknown as TDocumentDefinitions), `${name}.pdf`);
  };
  const saveMarkdown = async () => {
    const made = await pictures(data);
    const files: Record<string, Uint8Array> = {
      'review.md': strToU8(toMarkdown(blocks, (id) => `pictures/${id}.png`)),
    };
    for (const [id, uri] of Object.entries(made)) files[`pictures/${id}.png`] = bytesOf(uri);
    download(
      new Blob([zipSync(files) as Uint8Array<ArrayBuffer>], { type: 'application/zip' }),
      `${name}-markdown.zip`,
    );
  };
  return (
    <>
      <RoomHead
        title="Review"
        actions={
          <>
            <Button
              variant="outlined"
              color="secondary"
              disabled={unsaved || keeping}
              onClick={() => void savePdf()}
            >
              PDF
            </Button>
            <Button variant="contained" disabled={unsaved || keeping} onClick={() => void saveHtml()}>
              Review as one page (HTML)
            </Button>
          </>
        }
      >
        Figures, tables and sentences come from the log; you write what stands around them. Products that
        weren’t bought are disclosed by themselves.
      </RoomHead>
      <p className="inline-row outputs no-print">
        <Button
          size="small"
          color="secondary"
          disabled={unsaved || keeping}
          onClick={() => void saveData(data)}
        >
          Trial and data (zip)
        </Button>
        {canShareFiles() && (
          <Button
            size="small"
            color="secondary"
            disabled={unsaved || keeping}
            onClick={() => void saveData(data, false, shareFile)}
          >
            Hand it over …
          </Button>
        )}
        <Button
          size="small"
          color="secondary"
          disabled={unsaved || keeping}
          onClick={() => void saveMarkdown()}
        >
          Markdown (zip)
        </Button>
        <Button
          color="secondary"
          size="small"
          disabled={unsaved || keeping}
          onClick={() => saveText('review', blocks)}
        >
          Plain text
        </Button>
        {data.social && (
          <>
            <Button color="secondary" size="small" onClick={() => void savePicture('wide')}>
              Picture for a post, wide
            </Button>
            <Button color="secondary" size="small" onClick={() => void savePicture('square')}>
              Picture for a post, square
            </Button>
          </>
        )}
        {table && (
          <Button color="secondary" size="small" onClick={() => void copyTable(table)}>
            Copy the main table
          </Button>
        )}
        <Button color="secondary" size="small" onClick={() => saveText('filming', data.filming)}>
          Shot list and script for filming
        </Button>
      </p>
      <div className="review-grid">
        <FormProvider {...form}>
          <form onSubmit={onSubmit} noValidate className="stack no-print">
            <UnsavedGuard busy={busy} also={refused !== null || rewriting} />
            <StaleNote stale={stale} conflicts={conflicts} />
            {broken && (
              <p role="alert" className="note bad">
                {broken}
              </p>
            )}
            <Field name="author" label="Author" />
            <Field name="introduction" label="Introduction" multiline minRows={5} />
            <Field name="conclusion" label="Conclusion" multiline minRows={4} />
            <Field
              name="disclosure"
              label="Further disclosure"
              multiline
              minRows={2}
              helperText="payments, affiliate links, ties to a maker"
            />
            <p role="status" className="small quiet">
              {unsaved || keeping ? 'Saving what you typed …' : 'Saved as you type.'}
            </p>
            {data.photos.length > 0 && (
              <ChosenPhotos
                photos={data.photos}
                chosen={own.photos ?? []}
                keep={(photos) => keep({ photos })}
              />
            )}
            <OwnWords
              generated={data.generated}
              own={own}
              keep={keep}
              onRewriting={setRewriting}
              outOfDate={data.outOfDate}
            />
            <NotKeptNote refused={refused} />
          </form>
        </FormProvider>
        <article className="paper" aria-label="Preview of the review">
          <ViewSwitch
            views={levels}
            view={level}
            label="What of the review"
            onView={(to) => setSearch({ level: to }, { preventScrollReset: true })}
          />
          <Contents blocks={here} />
          <Report
            blocks={here}
            figure={(id, alt) =>
              figures[id] ? <img src={figures[id]} alt={alt} /> : <p className="quiet small">Drawing …</p>
            }
          />
        </article>
      </div>
    </>
  );
}

/** The headings of what is shown, to go to; a piece of three doesn't need them. */
function Contents({ blocks }: { blocks: readonly Block[] }) {
  const headings = blocks.flatMap((b) => (b.type === 'heading' && b.level === 2 ? [b.text] : []));
  if (headings.length < 4) return null;
  return (
    <nav aria-label="Contents" className="contents small no-print">
      {headings.map((text) => (
        <a key={text} href={`#${headingId(text)}`}>
          {text}
        </a>
      ))}
    </nav>
  );
}
