import Button from '@mui/material/Button';

interface Props {
  /** what the line is of */
  called: string;
  open: boolean;
  onOpen: (open: boolean) => void;
}

/** Opens a line to its fields, and closes it. */
export const OpenButton = ({ called, open, onOpen }: Props) => (
  <Button
    size="small"
    color="secondary"
    aria-expanded={open}
    aria-label={`${open ? 'Close' : 'Open'} ${called}`}
    onClick={() => onOpen(!open)}
  >
    {open ? 'close' : 'open'}
  </Button>
);
