import Button from '@mui/material/Button';
import { backToPad } from '../ui/keys';

/** Where to go from here: by its name, when nothing is left to take. */
export interface Onwards {
  name: string;
  go: () => void;
}

/** Says that all is taken, and proposes what is open by its name. */
export function WhatIsNext({ said, next }: { said: string; next: Onwards | null }) {
  return (
    <div role="status" className="small">
      <p>{said}</p>
      {next && (
        <Button
          size="small"
          variant="outlined"
          sx={{ mt: 0.5 }}
          onClick={() => {
            next.go();
            backToPad();
          }}
        >
          Next: {next.name}
        </Button>
      )}
    </div>
  );
}
