import Button from '@mui/material/Button';
import DialogActions from '@mui/material/DialogActions';

interface Props {
  onCancel: () => void;
  /** what the main button does, in its words */
  label: string;
  /** left out: the form around it is sent */
  onDo?: () => void;
  /** it is being done */
  busy?: boolean;
}

/** The end of a dialog: out of it, or the one thing it is for. */
export function DialogButtons({ onCancel, label, onDo, busy = false }: Props) {
  return (
    <DialogActions>
      <Button color="inherit" onClick={onCancel}>
        Cancel
      </Button>
      <Button variant="contained" type={onDo ? 'button' : 'submit'} onClick={onDo} disabled={busy}>
        {label}
      </Button>
    </DialogActions>
  );
}
