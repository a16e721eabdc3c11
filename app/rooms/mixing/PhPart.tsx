import Button from '@mui/material/Button';
import { FormProvider, useWatch } from 'react-hook-form';
import { numberIn } from '~core/quantity/number';
import { phCorrection } from '~core/mixing/phCorrection';
import { formatFigure } from '~core/quantity/format';
import { Field } from '../../form/fields';
import { UnsavedGuard } from '../../form/UnsavedGuard';
import { useRecordForm } from '../../form/useRecordForm';
import { shortDate } from '../../ui/clock';
import { Caution } from '../../ui/Caution';
import type { MixingData } from './mixingData';
import { type Vessel, noBand, vesselFields } from '~core/mixing/vessels';

/** Correcting pH: what the user's own last correction says, and the new one written down as a titration. */
export function PhPart({ data, vessel }: { data: MixingData; vessel: Vessel }) {
  const band = vessel.fed ? data.plan.mixing.band : noBand;
  const now = vessel.readings.ph.at(-1)?.value;
  const last = vessel.titrations.at(-1);
  const { form, busy, onSubmit } = useRecordForm({
    intent: 'phDose' as const,
    ...vesselFields(vessel),
    agent: last?.agent ?? '',
    amountMl: '',
    volumeL: last ? String(last.volumeL) : '',
    phBefore: now === undefined ? '' : String(now),
    phAfter: '',
  });
  const [before, volume] = useWatch({ control: form.control, name: ['phBefore', 'volumeL'] }).map(numberIn);
  const target =
    band.phLow !== null && band.phHigh !== null
      ? (band.phLow + band.phHigh) / 2
      : (band.phLow ?? band.phHigh);
  const proposal =
    before != null && volume && target !== null
      ? phCorrection(before, target, volume, vessel.titrations)
      : null;
  const outside = before != null && target !== null && Math.abs(before - target) >= 0.05;
  return (
    <FormProvider {...form}>
      <details className="folded">
        <summary>pH correction</summary>
        <form onSubmit={onSubmit} noValidate className="stack tight">
          <UnsavedGuard busy={busy} />
          {proposal ? (
            <p className="small">
              To pH {formatFigure(target!, 1)}, by your own last correction ({proposal.from.amountMl} mL{' '}
              {proposal.agent} in {proposal.from.volumeL} L took pH {formatFigure(proposal.from.phBefore, 1)}{' '}
              to {formatFigure(proposal.from.phAfter, 1)} on {shortDate(proposal.from.at)}): about{' '}
              <strong>{Number(proposal.fullMl.toPrecision(2))} mL</strong> in all. Give{' '}
              <strong>{Number(proposal.firstMl.toPrecision(2))} mL</strong> first, stir, read, then the rest:
              pH doesn’t move in a straight line.
              {proposal.beyond && ' That is further than was seen: go in smaller steps.'}
            </p>
          ) : (
            <p className="small quiet">
              {target === null
                ? 'Set a pH band in Set-up to be told when a reading leaves it.'
                : outside
                  ? 'There is no correction of yours in this direction yet, so no figure: give very little, stir, read, and write it down here. The next one can be worked out from it.'
                  : 'Within reach of the band’s middle: nothing to correct.'}
            </p>
          )}
          <div className="fields figures">
            <div className="all">
              <Field name="agent" label="What was given" placeholder="citric acid 10 %" size="small" />
            </div>
            <div>
              <Field name="amountMl" label="How much" suffix="mL" numeric size="small" />
            </div>
            <div>
              <Field name="volumeL" label="Into" suffix="L" numeric size="small" />
            </div>
            <div>
              <Field name="phBefore" label="pH before" numeric size="small" />
            </div>
            <div>
              <Field name="phAfter" label="pH after" numeric size="small" />
            </div>
            <div className="all">
              <Button type="submit" variant="outlined" color="secondary" disabled={busy}>
                Write the correction down
              </Button>
            </div>
          </div>
          <Caution>
            Acid into water, never water into acid; gloves and eye protection. Never acid and alkali, or acid
            and peroxide, together. The bottle’s label and safety data sheet come first.
          </Caution>
        </form>
      </details>
    </FormProvider>
  );
}
