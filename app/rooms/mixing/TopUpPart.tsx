import Button from '@mui/material/Button';
import { FormProvider, useForm, useWatch } from 'react-hook-form';
import { numberIn } from '~core/quantity/number';
import { waterLossPerDay } from '~core/log/waterUse';
import { waterOutlook } from '~core/mixing/vesselContent';
import { strengthCorrection } from '~core/mixing/topUp';
import { productCodeKey } from '~core/mixing/productCodes';
import { formatFigure } from '~core/quantity/format';
import { Choice, Field } from '../../form/fields';
import { UnsavedGuard } from '../../form/UnsavedGuard';
import { useRecordForm } from '../../form/useRecordForm';
import type { MixingData } from './mixingData';
import type { Vessel } from '~core/mixing/vessels';

const text = (x: number | null | undefined) => (x == null ? '' : String(Number(x.toPrecision(3))));

/** Water loss, what it does to the strength, and the top-up: for units, which are topped up on their own. */
export function TopUpPart({ data, vessel }: { data: MixingData; vessel: Vessel }) {
  const loss = waterLossPerDay(vessel.fillings);
  const lastFull = vessel.fillings.findLast((f) => f.purpose === 'change' || f.purpose === 'feed');
  const form = useForm({
    defaultValues: {
      volume: text(
        lastFull?.volumeL ??
          data.plan.treatments.find((t) => t.id === vessel.treatmentId)?.conditions.containerVolumeL,
      ),
      ec: text(vessel.readings.ec.at(-1)?.value),
      loss: text(loss),
      days: '3',
      target: text(vessel.fed ? middle(data) : null),
    },
  });
  const [volume, ec, lost, days, target] = useWatch({
    control: form.control,
    name: ['volume', 'ec', 'loss', 'days', 'target'],
  }).map(numberIn);
  const water = data.plan.mixing.water.ec ?? 0;
  const held = volume && ec != null && volume > 0 && ec >= 0 ? { volumeL: volume, ec } : null;
  const looks = lost != null && days != null && lost >= 0 && days >= 0;
  const outlook = held && looks ? waterOutlook(held, lost, days, water) : null;
  return (
    <details className="stack tight folded">
      <summary>Water loss and top-up</summary>
      <FormProvider {...form}>
        <div className="fields figures">
          <div>
            <Field name="volume" label="In it now" suffix="L" numeric size="small" />
          </div>
          <div>
            <Field name="ec" label="EC (strength) now" suffix="mS/cm" numeric size="small" />
          </div>
          <div>
            <Field
              name="loss"
              label="Lost in a day"
              suffix="L"
              numeric
              size="small"
              helperText={loss === null ? 'no top-ups yet' : 'from the top-ups'}
            />
          </div>
          <div>
            <Field name="days" label="Looking ahead" suffix="days" numeric size="small" />
          </div>
          <div>
            <Field name="target" label="EC (strength) wanted" suffix="mS/cm" numeric size="small" />
          </div>
        </div>
      </FormProvider>
      {outlook?.kind === 'holds' && (
        <p className="small">
          If only water goes, {formatFigure(outlook.later.volumeL, 2)} L of{' '}
          <strong>{formatFigure(outlook.later.ec, 2)} mS/cm</strong> are left: the strongest it can get, since
          plants take salts too. Topping up with {formatFigure(outlook.goneL, 2)} L of water brings it back to{' '}
          {formatFigure(outlook.toppedUp.ec, 2)} mS/cm.
        </p>
      )}
      {outlook?.kind === 'dry' && (
        <p className="small" style={{ color: 'var(--porphyry)' }}>
          It would run dry before that: {formatFigure(outlook.afterDays, 1)} days last it.
        </p>
      )}
      {held && target != null && !data.blind && (
        <Correction data={data} vessel={vessel} held={held} target={target} />
      )}
      {vessel.unitId && <TopUpForm data={data} vessel={vessel} suggested={looks ? lost * days : null} />}
    </details>
  );
}

const middle = ({ plan }: MixingData): number | null => {
  const { ecLow, ecHigh } = plan.mixing.band;
  return ecLow !== null && ecHigh !== null ? (ecLow + ecHigh) / 2 : null;
};

/** Water to dilute it, or so much of the planned dose to strengthen it. */
function Correction({
  data,
  vessel,
  held,
  target,
}: {
  data: MixingData;
  vessel: Vessel;
  held: { volumeL: number; ec: number };
  target: number;
}) {
  const { plan, names, day } = data;
  const correction = strengthCorrection(plan, vessel.treatmentId, day, held, target);
  const to = `To ${formatFigure(target, 2)} mS/cm`;
  switch (correction.tag) {
    case 'there':
      return <p className="small">It has the strength that is wanted.</p>;
    case 'dilute':
      return (
        <p className="small">
          {to}:{' '}
          {correction.addL === null
            ? 'the water is as strong as that; it can’t dilute it.'
            : `pour in ${formatFigure(correction.addL, 2)} L of water.`}
        </p>
      );
    case 'unknown':
      return (
        <p className="small quiet">
          How much feed brings it to {formatFigure(target, 2)} can’t be worked out: the label gives no
          analysis to reckon with. Add a little, stir, read.
        </p>
      );
    case 'strengthen':
      return (
        <p className="small">
          {to}, by the estimate ({formatFigure(correction.perDoseEc, 2)} mS/cm from the planned dose):{' '}
          {correction.doses
            .map(
              ({ dose, amount }) =>
                `${Number(amount.toPrecision(2))} ${dose.unit} ${names[productCodeKey(vessel.treatmentId, dose.product.id)]}`,
            )
            .join(', ')}
          . Give half, stir, read, then the rest.
        </p>
      );
  }
}

function TopUpForm({
  data,
  vessel,
  suggested,
}: {
  data: MixingData;
  vessel: Vessel;
  suggested: number | null;
}) {
  const { form, busy, onSubmit } = useRecordForm({
    intent: 'feed' as const,
    unitIds: [vessel.unitId],
    batch: '',
    day: data.today,
    purpose: 'topUp' as 'topUp' | 'change' | 'flush' | 'feed',
    volume: text(suggested),
  });
  const batches = data.bottles.flatMap((b) => (b.treatmentId === vessel.treatmentId ? b.mixed : []));
  return (
    <FormProvider {...form}>
      <form onSubmit={onSubmit} noValidate className="fields">
        <UnsavedGuard busy={busy} />
        <div className="w4">
          <Choice
            name="purpose"
            label="What was done"
            size="small"
            options={[
              ['topUp', 'topped up to the mark'],
              ['change', 'solution changed'],
              ['flush', 'flushed'],
            ]}
          />
        </div>
        <div className="w4">
          <Choice
            name="batch"
            label="With"
            size="small"
            options={[['', 'plain water'], ...batches.map((b) => [b.batch, `batch ${b.batch}`] as const)]}
          />
        </div>
        <div className="w4">
          <Field name="volume" label="How much" suffix="L" numeric size="small" />
        </div>
        <div className="w6">
          <Button type="submit" variant="outlined" color="secondary" disabled={busy}>
            Write the top-up down
          </Button>
        </div>
      </form>
    </FormProvider>
  );
}
