import Dialog, { type DialogProps } from '@mui/material/Dialog';
import { useState } from 'react';

/**
 * A dialog that something is typed in: a tap beside it, or Escape struck by chance, doesn't take that away. Its
 * button leaves it, and Escape once more.
 */
export function EntryDialog({
  onClose,
  children,
  ...rest
}: Omit<DialogProps, 'open' | 'onClose' | 'onChange'> & { onClose: () => void }) {
  const [typed, setTyped] = useState(false);
  const [asked, setAsked] = useState(false);
  return (
    <Dialog
      open
      fullWidth
      {...rest}
      onChange={() => setTyped(true)}
      onClose={(_, reason) => {
        if (!typed || (asked && reason === 'escapeKeyDown')) return onClose();
        setAsked(true);
      }}
    >
      {children}
      {asked && (
        <p role="status" className="small" style={{ padding: '0 1.5rem 1rem', color: 'var(--ochre-text)' }}>
          What is typed here isn’t kept yet. The button leaves it, or Escape once more.
        </p>
      )}
    </Dialog>
  );
}
