import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import type { ReactNode } from 'react';
import { FormProvider } from 'react-hook-form';
import { z } from 'zod';
import { DialogButtons } from '../ui/DialogButtons';
import { EntryDialog } from '../ui/EntryDialog';
import { Field } from './fields';
import { useTypedForm } from './useTypedForm';

interface AskProps<T> {
  title: string;
  /** what there is to know before it is said */
  children?: ReactNode;
  label: string;
  /** stands below the field while nothing is wrong */
  hint?: string;
  doLabel: string;
  /** how what is typed is read */
  of: z.ZodType<T, string>;
  /** it is a number, of this unit */
  unit?: string;
  /** @returns whether it is kept: what wasn't stays in the dialog */
  onKeep: (said: T) => Promise<boolean>;
  onClose: () => void;
}

/** Asks for one thing about an act. */
export function AskDialog<T>({
  title,
  children,
  label,
  hint,
  doLabel,
  of,
  unit,
  onKeep,
  onClose,
}: AskProps<T>) {
  const { form, busy, onSubmit } = useTypedForm(z.object({ said: of }), { said: '' }, async ({ said }) => {
    const isKept = await onKeep(said);
    if (isKept) onClose();
    return isKept;
  });
  return (
    <EntryDialog onClose={onClose} maxWidth="sm">
      <DialogTitle>{title}</DialogTitle>
      <FormProvider {...form}>
        <form onSubmit={onSubmit} noValidate>
          <DialogContent className="stack">
            {children}
            <Field
              name="said"
              label={label}
              autoFocus
              fullWidth
              helperText={hint}
              sx={{ mt: 1 }}
              {...(unit !== undefined && { suffix: unit, numeric: true })}
            />
          </DialogContent>
          <DialogButtons onCancel={onClose} label={doLabel} busy={busy} />
        </form>
      </FormProvider>
    </EntryDialog>
  );
}
