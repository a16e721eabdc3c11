import Button from '@mui/material/Button';
import { FormProvider } from 'react-hook-form';
import { UnsavedGuard } from '../../form/UnsavedGuard';
import { useRecordForm } from '../../form/useRecordForm';
import { ReadingFields, noReading } from './ReadingFields';
import type { MixingData } from './mixingData';
import { type Vessel, vesselFields } from '~core/mixing/vessels';

/** A reading of a vessel, written down on its own. */
export function ReadingForm({ data, vessel }: { data: MixingData; vessel: Vessel }) {
  const { form, busy, onSubmit } = useRecordForm({
    intent: 'reading' as const,
    ...vesselFields(vessel),
    ...noReading,
  });
  const last = (q: 'ec' | 'ph') => vessel.readings[q].at(-1)?.value;
  return (
    <FormProvider {...form}>
      <form onSubmit={onSubmit} noValidate className="stack tight">
        <UnsavedGuard busy={busy} />
        <h2>A reading</h2>
        <ReadingFields into={{ ec: last('ec') ?? data.plan.mixing.water.ec ?? 1, ph: last('ph') ?? 6.2 }}>
          <Button type="submit" variant="contained" disabled={busy}>
            Write it down
          </Button>
        </ReadingFields>
      </form>
    </FormProvider>
  );
}
