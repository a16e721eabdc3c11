import Button from '@mui/material/Button';
import { readingsOf } from '~core/quantity/number';

/** Both numbers a typed text may stand for, to be pressed; nothing where it has one reading. */
export function Readings({ typed, onPick }: { typed: string; onPick: (text: string) => void }) {
  const both = readingsOf(typed);
  return (
    both && (
      <span className="inline-row" role="group" aria-label="Which of the two">
        {both.map((text) => (
          <Button key={text} size="small" variant="outlined" color="inherit" onClick={() => onPick(text)}>
            {text}
          </Button>
        ))}
      </span>
    )
  );
}
