import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';

/** The pad for a trait taken in words. */
export function WordsPad({
  label,
  standing,
  words,
  onWords,
  onKeep,
}: {
  label: string;
  standing: string | null;
  words: string;
  onWords: (words: string) => void;
  /** done when the words are kept, or refused: then they stay here */
  onKeep: (words: string) => Promise<void>;
}) {
  const [asked, setAsked] = useState(false);
  const [busy, setBusy] = useState(false);
  const missing = asked && words.trim() === '';
  const keep = async () => {
    if (words.trim() === '') return setAsked(true);
    setBusy(true);
    await onKeep(words.trim());
    setBusy(false);
  };
  return (
    <div className="stack tight" style={{ margin: '0.8rem 0' }}>
      <TextField
        label={label}
        value={words}
        onChange={(e) => onWords(e.target.value)}
        multiline
        minRows={4}
        // The walk's next stop begins where the last ended: in the box.
        autoFocus
        error={missing}
        helperText={missing ? 'Write a few words first.' : undefined}
      />
      <Button
        variant="contained"
        sx={{ height: 54, fontSize: '1.05rem' }}
        disabled={busy}
        onClick={() => void keep()}
      >
        Keep and go on
      </Button>
      {standing && (
        <p className="small">
          <span className="quiet">Kept in this round:</span> {standing}
        </p>
      )}
    </div>
  );
}
