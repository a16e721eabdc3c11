import { relativeDay, shortDate, shortTime, todayDate } from '../../ui/clock';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { FormProvider } from 'react-hook-form';
import { plural } from '~core/quantity/format';
import { Field } from '../../form/fields';
import { usePost } from '../../form/usePost';
import { UnsavedGuard } from '../../form/UnsavedGuard';
import { useRecordForm } from '../../form/useRecordForm';
import { useNotice } from '../../ui/Notices';
import { TesseraName } from '../../ui/Tessera';
import { bottleTitle } from '~core/mixing/bottles';
import type { Bottle, MixedBatch } from '~core/mixing/bottles';
import type { MixingData } from './mixingData';

interface Props {
  data: MixingData;
  bottle: Bottle;
  /** the next bottle that isn't mixed yet; null: all are */
  next: Bottle | null;
  onNext: () => void;
}

/** A batch that is in the log, and what comes after: feeding it, or the next bottle. */
export function Mixed({ data, bottle, next, onNext }: Props) {
  const post = usePost();
  const notice = useNotice();
  const takeBack = (m: MixedBatch) => {
    const ids = m.lines;
    post({ intent: 'takeBack', ids });
    notice({
      text: `${m.wasLeft ? `The feeding from batch ${m.batch}` : `Batch ${m.batch}`} is taken back; its lines stay visible in the log.`,
      undo: () => post({ intent: 'bringBack', ids }),
    });
  };
  return (
    <div className="stack">
      <h2>
        <TesseraName index={bottle.index} name={bottleTitle(bottle, data.blind)} size={30} />
      </h2>
      {bottle.mixed.map((m) => (
        <div key={m.id} className="note good">
          <p>
            <strong>
              {m.wasLeft ? 'From what was left of' : 'Mixed:'} batch {m.batch}
            </strong>
            {m.volumeL > 0 && `, ${litresText(m.volumeL)}`}{' '}
            <span className="quiet">
              {m.wasLeft ? `mixed ${shortDate(m.at.slice(0, 10))}` : `at ${shortTime(m.at)}`}
              {m.fed && m.leftL > 0 && `, ${litresText(m.leftL)} left`}
            </span>
          </p>
          <p className="small">{m.said || 'nothing in it'}</p>
          {m.fed ? (
            <p className="small quiet">Fed; the feeding is in the log.</p>
          ) : (
            bottle.kind !== 'direct' && <FeedForm data={data} bottle={bottle} batch={m.batch} />
          )}
          <Button
            size="small"
            color="inherit"
            onClick={() => takeBack(m)}
            aria-label={m.wasLeft ? `Take the feeding from ${m.batch} back` : `Take batch ${m.batch} back`}
          >
            Take it back
          </Button>
        </div>
      ))}
      {next && (
        <div>
          <Button variant="outlined" color="secondary" onClick={onNext}>
            Next: bottle {next.letter}
          </Button>
        </div>
      )}
    </div>
  );
}

const litresText = (litres: number) => `${Number(litres.toPrecision(3))} L`;

/** What is left of the batch before, and would do: fed from, in place of mixing anew. */
export function LeftOver({ data, bottle }: Pick<Props, 'data' | 'bottle'>) {
  const [feeding, setFeeding] = useState(false);
  const { leftover } = bottle;
  const needed = (bottle.perUnitL ?? 0) * bottle.unitIds.length;
  if (!leftover || bottle.mixed.length > 0 || needed === 0) return null;
  const { batch, leftL, mostL, mixedOn } = leftover;
  const enough = needed <= mostL;
  return (
    <div className="note open" style={{ margin: '0.8rem 0' }}>
      <p>
        <strong>{litresText(leftL)} left</strong> of batch {batch}, mixed {shortDate(mixedOn)} (
        {relativeDay(mixedOn, todayDate())}): the same feed at the same strength
        {!enough && `, less than the ${litresText(needed)} of this feeding`}.{' '}
        {enough && !feeding && (
          <button type="button" className="link" onClick={() => setFeeding(true)}>
            Feed from it
          </button>
        )}
      </p>
      {feeding && (
        <>
          <p className="small">
            A feed changes as it stands: salts fall out, pH drifts, algae and microbes grow. Stir it, read
            strength and pH, smell it; cloudy or foul is not fed. The label says how long it keeps.
          </p>
          <FeedForm data={data} bottle={bottle} batch={batch} />
        </>
      )}
    </div>
  );
}

function FeedForm({ data, bottle, batch }: Pick<Props, 'data' | 'bottle'> & { batch: string }) {
  const { plan, day } = data;
  const { form, busy, onSubmit } = useRecordForm({
    intent: 'feed' as const,
    unitIds: bottle.unitIds,
    batch,
    day,
    purpose: bottle.kind === 'flush' ? ('flush' as const) : ('feed' as const),
    volume: bottle.perUnitL === null ? '' : String(bottle.perUnitL),
  });
  const many = bottle.unitIds.length;
  return (
    <FormProvider {...form}>
      <form
        onSubmit={onSubmit}
        noValidate
        className="inline-row"
        style={{ margin: '0.6rem 0', alignItems: 'flex-start' }}
      >
        <UnsavedGuard busy={busy} />
        <div style={{ width: '9rem' }}>
          <Field name="volume" label={`Each ${plan.unitNoun} gets`} suffix="L" numeric size="small" />
        </div>
        <Button type="submit" variant="contained" disabled={busy}>
          Fed to {many === 1 ? `the ${plan.unitNoun}` : `all ${many} ${plural(plan.unitNoun)}`}
        </Button>
      </form>
    </FormProvider>
  );
}
