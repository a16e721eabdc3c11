import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { isReason } from '~core/log/afterOpening';

interface Props {
  line: { what: string; text: string };
  onClose: () => void;
  /** @returns whether it was kept */
  onSay: (reason: string) => Promise<boolean>;
}

/** What decides the findings isn't taken back without a reason once the codes are open. */
export function WhyDialog({ line, onClose, onSay }: Props) {
  const [reason, setReason] = useState('');
  const [fault, setFault] = useState('');
  const say = async () => {
    if (!isReason(reason)) return setFault('Say why: the review prints it.');
    if (await onSay(reason.trim())) onClose();
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm">
      <DialogTitle>Take back “{`${line.what} ${line.text}`}”</DialogTitle>
      <DialogContent className="stack">
        <p>
          The codes are open: you know whose value it is. It can be taken back with a reason; the review
          prints the reason, and the finding as it stood before.
        </p>
        <TextField
          label="Why"
          value={reason}
          error={fault !== ''}
          helperText={fault}
          autoFocus
          fullWidth
          multiline
          slotProps={{ htmlInput: { maxLength: 500 } }}
          onChange={(e) => {
            setReason(e.target.value);
            setFault('');
          }}
        />
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Leave it
        </Button>
        <Button variant="contained" onClick={() => void say()}>
          Take it back
        </Button>
      </DialogActions>
    </Dialog>
  );
}
