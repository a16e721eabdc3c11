import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';

interface Props {
  label: string;
  standing: string | null;
  words: string;
  onWords: (words: string) => void;
  fault: string | null;
  onKeep: () => void;
}

/** The pad for a trait taken in words. */
export function WordsPad({ label, standing, words, onWords, fault, onKeep }: Props) {
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
        error={fault !== null}
        helperText={fault}
      />
      <Button variant="contained" sx={{ height: 54, fontSize: '1.05rem' }} onClick={onKeep}>
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
