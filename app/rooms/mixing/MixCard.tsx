import Button from '@mui/material/Button';
import { useState } from 'react';
import { FormProvider, useWatch } from 'react-hook-form';
import { numberIn } from '~core/quantity/number';
import type { Tools } from '~core/mixing/recipe';
import { countOf, plural } from '~core/quantity/format';
import { Field } from '../../form/fields';
import { LeaveGuard } from '../../form/UnsavedGuard';
import { useRecordForm } from '../../form/useRecordForm';
import { Caution } from '../../ui/Caution';
import { TesseraName } from '../../ui/Tessera';
import { ToggleRow } from '../../ui/ToggleRow';
import { CostLine } from './CostLine';
import { Cures } from './Cures';
import { ReadingFields, noReading } from './ReadingFields';
import { RecipeTable } from './RecipeTable';
import { SolutionLine } from './SolutionLine';
import { Steps } from './Steps';
import { bottleTitle } from '~core/mixing/bottles';
import type { Bottle } from '~core/mixing/bottles';
import { ToolsUnsaid } from './ToolsUnsaid';
import { VolumeField } from './VolumeField';
import { type Batch, batchOf } from '~core/mixing/batch';
import { type Bucket, fromMarks, toMarks } from '~core/mixing/bucket';
import { batchCaution } from '~core/mixing/batchCaution';
import { sayDoubts } from '~core/mixing/slip';
import type { MixingData } from './mixingData';

interface Props {
  data: MixingData;
  bottle: Bottle;
  tools: Tools;
  onTools: (tools: Tools) => void;
  /** the mix is on its way: the bottle stays open, to be fed */
  onSend: () => void;
}

/** One bottle: its recipe, what rounding does to it, the steps to tick, and “mixed”. */
export function MixCard({ data, bottle, tools, onTools, onSend }: Props) {
  const { plan, sealed, blind } = data;
  const direct = bottle.kind === 'direct';
  const bucket: Bucket = { unit: tools.bucketIn ?? 'L', measures: plan.mixing.measures };
  /** into a tank whose water stays */
  const [adding, setAdding] = useState(false);
  const [fromStock, setFromStock] = useState<Record<string, string | null>>({});
  const { form, busy, onSubmit } = useRecordForm({
    intent: 'mix' as const,
    day: data.day,
    anyDay: data.anyDay,
    bottle: bottle.key,
    volume: bottle.volumeL === null ? '' : toMarks(bottle.volumeL, bucket),
    batch: bottle.batch,
    tools,
    fromStock: {} as Record<string, string | null>,
    lines: [] as { actual: string }[],
    ...noReading,
  });
  const [volume, batchName, lines, ec, ph, temperature] = useWatch({
    control: form.control,
    name: ['volume', 'batch', 'lines', 'ec', 'ph', 'temperature'],
  });
  // A volume is tried to see what it takes; what was weighed or read is there once.
  const { defaultValues: began } = form.formState;
  const measured =
    ec !== began?.ec ||
    ph !== began.ph ||
    temperature !== began.temperature ||
    lines.some((l, i) => (l?.actual ?? '') !== (began.lines?.[i]?.actual ?? ''));
  const litres = fromMarks(volume, bucket);
  const size = direct ? bottle.unitIds.length : litres;
  const actual = lines.map((l) => numberIn(l?.actual ?? ''));
  const batch: Batch | null =
    size === null ? null : batchOf({ data, bottle, tools, size, fromStock, actual });
  const units = `${bottle.unitIds.length} ${bottle.unitIds.length === 1 ? plan.unitNoun : plural(plan.unitNoun)}`;

  const doubt = sayDoubts(batch?.lines ?? [], actual).join(' ');
  const [asked, setAsked] = useState('');

  const submit = (e: React.FormEvent) => {
    if (doubt !== '' && doubt !== asked) {
      e.preventDefault();
      return setAsked(doubt);
    }
    if (!batch) {
      e.preventDefault();
      form.setError('volume', {
        message:
          volume.trim() === '' ? 'How much was mixed?' : `“${volume}” isn’t a volume: a figure over 0.`,
      });
      return;
    }
    form.setValue('tools', tools);
    form.setValue('fromStock', fromStock);
    // Only what was typed is sent: the action works the recipe out again from the plan.
    form.setValue(
      'lines',
      batch.lines.map((_, i) => ({ actual: lines[i]?.actual ?? '' })),
    );
    onSend();
    onSubmit(e);
  };

  return (
    <FormProvider {...form}>
      {/* A mix is written down by its button: Enter in a figure would log it before it is made. */}
      <form
        onSubmit={submit}
        noValidate
        className="stack"
        onKeyDown={(e) => {
          if (e.key === 'Enter' && e.target instanceof HTMLInputElement) e.preventDefault();
        }}
      >
        <LeaveGuard unsaved={measured} isOnItsWay={busy} />
        <div className="mix-head">
          <h2>
            <TesseraName index={bottle.index} name={bottleTitle(bottle, blind)} size={30} />
          </h2>
          {direct ? (
            <p className="quiet">given as it is to {units}</p>
          ) : (
            <div className="inline-row">
              <VolumeField tools={tools} measures={plan.mixing.measures} onTools={onTools} />
              <span className="small quiet">
                {bottle.tanks !== null && bottle.perUnitL !== null
                  ? `in each of ${units}, one by one: its own tank has nothing to spare`
                  : bottle.perUnitL === null
                    ? 'nobody has said how much each gets'
                    : `${units} × ${bottle.perUnitL} L, ${plan.mixing.sparePercent} % to spare`}
              </span>
            </div>
          )}
        </div>
        {bottle.kind === 'water' && (
          <p className="quiet">The control gets the same water, at the same time, with nothing in it.</p>
        )}
        {bottle.kind === 'flush' && <p className="quiet">A flush: plain water in place of feed today.</p>}
        {batch && batch.lines.length > 0 && (
          <>
            <p className="quiet">
              {countOf(batch.lines.length, 'thing')} to {direct ? 'give' : 'measure'}.
            </p>
            <ToolsUnsaid lines={batch.lines} tools={tools} onTools={onTools} />
            {!direct && (
              <Cures
                data={data}
                bottle={bottle}
                batch={batch}
                tools={tools}
                onVolume={(v) => form.setValue('volume', toMarks(v, bucket))}
              />
            )}
          </>
        )}
        {batch &&
          batch.conflicts.map((c) => (
            <div key={c} role="alert" className="note bad">
              {c}
            </div>
          ))}
        {batch && (
          <>
            {bottle.tanks !== null && batch.lines.length > 0 && (
              <ToggleRow
                label="The water of the tank"
                value={adding ? 'stays' : 'changed'}
                options={[
                  ['changed', 'the water is changed'],
                  ['stays', 'the water stays, feed is added'],
                ]}
                onPick={(to) => setAdding(to === 'stays')}
              />
            )}
            <Steps
              key={String(adding)}
              steps={batch.steps(batchName, adding)}
              storageKey={`${data.id}/${data.day}/${bottle.key}${adding ? '/adding' : ''}`}
            />
          </>
        )}
        {batch && batch.lines.length > 0 && (
          <details open className="folded">
            <summary>What is in it</summary>
            <div className="stack">
              <RecipeTable
                batch={batch}
                data={data}
                bottle={bottle}
                onStock={(productId, stock) => setFromStock({ ...fromStock, [productId]: stock })}
              />
              {!blind && !direct && batch.made && batch.wanted && (
                <SolutionLine made={batch.made} wanted={batch.wanted} dosed={batch.lines.length} />
              )}
              {!blind && <CostLine data={data} bottle={bottle} batch={batch} size={batch.size} />}
            </div>
          </details>
        )}
        {!direct && size !== null && bottle.volumeL !== null && size > bottle.volumeL * 1.05 && (
          <p className="small quiet">
            {Number((size - bottle.volumeL).toPrecision(2))} L more than the units need: keep it for top-ups,
            or on garden soil within reason, never into a watercourse; local rules come first.
          </p>
        )}
        {batch && batch.lines.length > 0 && <Caution>{batchCaution(batch.lines, direct)}</Caution>}
        {!sealed ? (
          <p className="note open small">
            Mixes are written down once the plan is sealed in Layout; until then this is a rehearsal.
          </p>
        ) : (
          <>
            {!direct && (
              <div className="stack tight">
                <ReadingFields
                  into={{ ec: batch?.made?.strength.ec ?? plan.mixing.water.ec ?? 0.05, ph: 6.1 }}
                />
                <p className="small quiet">
                  {plan.mixing.regimen === 'measure'
                    ? 'The regimen is to measure: read every batch.'
                    : 'By the chart; readings may stay empty.'}
                </p>
              </div>
            )}
            {doubt !== '' && doubt === asked && (
              <p role="alert" className="note open">
                {doubt} Look at the measure and at what is typed. If it was really so, press again to write it
                down as it is.
              </p>
            )}
            <div className="inline-row" style={{ alignItems: 'flex-start' }}>
              <div style={{ width: '13rem' }}>
                <Field name="batch" label="Batch name" size="small" />
              </div>
              <Button type="submit" variant="contained" disabled={busy}>
                {direct ? 'Given: write it down' : 'Mixed: write it down'}
              </Button>
            </div>
          </>
        )}
      </form>
    </FormProvider>
  );
}
