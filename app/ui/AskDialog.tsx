import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField, { type TextFieldProps } from '@mui/material/TextField';
import { useState } from 'react';
import { DialogButtons } from './DialogButtons';
import { EntryDialog } from './EntryDialog';

interface AskProps {
  title: string;
  label: string;
  /** stands below the field while nothing is wrong */
  hint: string;
  doLabel: string;
  /** what is wrong with what was typed; empty where nothing is */
  faultOf: (typed: string) => string;
  /** @returns whether it is kept: what wasn't stays in the dialog */
  onKeep: (typed: string) => Promise<boolean>;
  onClose: () => void;
  slotProps?: TextFieldProps['slotProps'];
}

/** Asks for one thing about an act. */
export function AskDialog({ title, label, hint, doLabel, faultOf, onKeep, onClose, slotProps }: AskProps) {
  const [typed, setTyped] = useState('');
  const [asked, setAsked] = useState(false);
  const [busy, setBusy] = useState(false);
  const fault = asked ? faultOf(typed) : '';
  const keep = async () => {
    setAsked(true);
    if (faultOf(typed) !== '') return;
    setBusy(true);
    const isKept = await onKeep(typed);
    setBusy(false);
    if (isKept) onClose();
  };
  return (
    <EntryDialog onClose={onClose} maxWidth="sm">
      <DialogTitle>{title}</DialogTitle>
      <DialogContent>
        <TextField
          label={label}
          autoFocus
          fullWidth
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          error={fault !== ''}
          helperText={fault || hint}
          slotProps={slotProps}
          sx={{ mt: 1 }}
        />
      </DialogContent>
      <DialogButtons onCancel={onClose} label={doLabel} onDo={() => void keep()} busy={busy} />
    </EntryDialog>
  );
}
