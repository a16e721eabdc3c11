import Button from '@mui/material/Button';
import { useEffect, useMemo, useState } from 'react';
import { FormProvider } from 'react-hook-form';
import { useLoaderData, useSearchParams } from 'react-router';
import type { Block } from '~core/report/block';
import { recordFrom } from '~core/report/piece';
import { Field } from '../../form/fields';
import { NotKeptNote } from '../../form/NotKept';
import { StaleNote } from '../../form/StaleNote';
import { UnsavedGuard } from '../../form/UnsavedGuard';
import { useKept } from '../../form/useKept';
import { useRecordForm } from '../../form/useRecordForm';
import { Report, headingId } from '../../ui/Report';
import { useNotice } from '../../ui/Notices';
import { ViewSwitch } from '../../ui/ViewSwitch';
import { RoomHead } from '../../ui/RoomHead';
import { canShareFiles, shareFile } from '../../ui/download';
import { ChosenPhotos } from './ChosenPhotos';
import { type ReviewData, loadReview, reviewAction } from './reviewData';
import {
  copyTable,
  pictures,
  saveData,
  saveHtml,
  saveMarkdown,
  savePdf,
  savePicture,
  saveText,
} from './reviewFiles';
import { type Own, ownOf, reviewRecord } from './reviewRecords';
import { OwnWords } from './OwnWords';
import { CodesClosed } from '../CodesClosed';
import './review.css';

export const clientLoader = loadReview;
export const clientAction = reviewAction;

/** A file or a copy of the review. */
type Output = [label: string, give: () => unknown, waits?: 'when all is kept'];

/** The piece that is read, and the record behind it. */
const levels = [
  ['piece', 'The piece'],
  ['record', 'The record'],
] as const;

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
  const { review, blocks, broken } = data;
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
  const busyWriting = unsaved || keeping;
  const copied = () => notice({ text: 'Copied: paste it into a text, a mail or a spreadsheet.' });
  const outputs: (Output | null)[] = [
    ['Trial and data (zip)', () => saveData(data), 'when all is kept'],
    canShareFiles() ? ['Hand it over …', () => saveData(data, false, shareFile), 'when all is kept'] : null,
    ['Markdown (zip)', () => saveMarkdown(data), 'when all is kept'],
    ['Plain text', () => saveText(data, 'review', blocks), 'when all is kept'],
    data.social ? ['Picture for a post, wide', () => savePicture(data, 'wide')] : null,
    data.social ? ['Picture for a post, square', () => savePicture(data, 'square')] : null,
    table ? ['Copy the main table', () => copyTable(table).then(copied)] : null,
    ['Shot list and script for filming', () => saveText(data, 'filming', data.filming)],
  ];
  return (
    <>
      <RoomHead
        title="Review"
        actions={
          <>
            <Button
              variant="outlined"
              color="secondary"
              disabled={busyWriting}
              onClick={() => void savePdf(data)}
            >
              PDF
            </Button>
            <Button variant="contained" disabled={busyWriting} onClick={() => void saveHtml(data)}>
              Review as one page (HTML)
            </Button>
          </>
        }
      >
        Figures, tables and sentences come from the log; you write what stands around them. Products that
        weren’t bought are disclosed by themselves.
      </RoomHead>
      <p className="inline-row outputs no-print">
        {outputs
          .filter((o) => o !== null)
          .map(([label, give, waits]) => (
            <Button
              key={label}
              size="small"
              color="secondary"
              disabled={waits !== undefined && busyWriting}
              onClick={() => void give()}
            >
              {label}
            </Button>
          ))}
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
              {busyWriting ? 'Saving what you typed …' : 'Saved as you type.'}
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
