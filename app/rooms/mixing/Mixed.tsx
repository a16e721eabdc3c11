import { shortTime } from '../../bench/clock';
import Button from '@mui/material/Button';
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
    const ids = [m.id, ...m.withIds];
    post({ intent: 'takeBack', ids });
    notice({
      text: `Batch ${m.batch} is taken back; its lines stay visible in the log.`,
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
            <strong>Mixed: batch {m.batch}</strong>
            {m.volumeL > 0 && `, ${Number(m.volumeL.toPrecision(4))} L`}{' '}
            <span className="quiet">at {shortTime(m.at)}</span>
          </p>
          <p className="small">{m.said || 'nothing in it'}</p>
          {m.fed ? (
            <p className="small quiet">Fed; the feeding is in the log.</p>
          ) : (
            bottle.kind !== 'direct' && <FeedForm data={data} bottle={bottle} mixed={m} />
          )}
          <Button
            size="small"
            color="inherit"
            onClick={() => takeBack(m)}
            aria-label={`Take batch ${m.batch} back`}
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

function FeedForm({ data, bottle, mixed }: { data: MixingData; bottle: Bottle; mixed: MixedBatch }) {
  const { plan, day } = data;
  const { form, busy, onSubmit } = useRecordForm({
    intent: 'feed' as const,
    unitIds: bottle.unitIds,
    batch: mixed.batch,
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
