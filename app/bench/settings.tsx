import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { useColorScheme } from '@mui/material/styles';
import { FormProvider } from 'react-hook-form';
import { useLoaderData } from 'react-router';
import { z } from 'zod';
import { ok } from '~core/model/result';
import { command, toAction } from '../form/command';
import { Field } from '../form/fields';
import { UnsavedGuard } from '../form/UnsavedGuard';
import { useRecordForm } from '../form/useRecordForm';
import { recorder, setRecorder } from '../store/bench';
import { RoomHead } from '../ui/RoomHead';
import { RegionChoice } from './RegionChoice';

const RecorderForm = z.object({ name: z.string().trim().max(80, 'Up to 80 characters.') });

export const clientLoader = async () => ({ name: await recorder() });

export const clientAction = toAction({
  recorder: command(RecorderForm, async (_, { name }) => {
    await setRecorder(name);
    return ok({});
  }),
});

/** What this device goes by: who writes, day or night, how figures and days are written. */
export default function Settings() {
  const { name } = useLoaderData<typeof clientLoader>();
  const { form, busy, onSubmit } = useRecordForm({ intent: 'recorder' as const, name });
  const { mode, setMode } = useColorScheme();
  return (
    <div style={{ maxWidth: '54rem' }}>
      <RoomHead title="Settings">Of this device alone; another keeps its own.</RoomHead>
      <section className="section">
        <h2>Who writes the log</h2>
        <p className="quiet">Stands behind every entry made on this device.</p>
        <FormProvider {...form}>
          <form onSubmit={onSubmit} noValidate className="inline-row" style={{ alignItems: 'flex-start' }}>
            <UnsavedGuard busy={busy} />
            <div style={{ width: 280 }}>
              <Field name="name" label="Name or initials" />
            </div>
            <Button type="submit" variant="outlined" color="secondary">
              Save
            </Button>
          </form>
        </FormProvider>
      </section>
      <section className="section">
        <h2>Light</h2>
        <p className="quiet">The night side is easier on eyes beside dark shelves.</p>
        <ToggleButtonGroup
          size="small"
          exclusive
          value={mode ?? 'system'}
          onChange={(_, m: 'system' | 'light' | 'dark' | null) => m && setMode(m)}
          aria-label="Light or night"
        >
          <ToggleButton value="system" sx={{ textTransform: 'none' }}>
            Like the device
          </ToggleButton>
          <ToggleButton value="light" sx={{ textTransform: 'none' }}>
            Day
          </ToggleButton>
          <ToggleButton value="dark" sx={{ textTransform: 'none' }}>
            Night
          </ToggleButton>
        </ToggleButtonGroup>
      </section>
      <RegionChoice />
    </div>
  );
}
