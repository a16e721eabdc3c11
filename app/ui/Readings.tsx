import Button from '@mui/material/Button';
import type { ReactNode } from 'react';
import { readingsOf } from '~core/quantity/number';

/** Both numbers a typed text may stand for, to be pressed; nothing where it has one reading. */
function Readings({ typed, onPick }: { typed: string; onPick: (text: string) => void }) {
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

/** A message at a field; where what is typed can be read in two ways, both stand there to be pressed. */
export const faultOrReadings = (message: string, typed: unknown, onPick: (text: string) => void): ReactNode =>
  typeof typed === 'string' && readingsOf(typed) ? (
    <>
      {message}
      <Readings typed={typed} onPick={onPick} />
    </>
  ) : (
    message
  );
