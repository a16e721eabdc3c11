import Button from '@mui/material/Button';
import { useState } from 'react';
import { usePost } from '../../form/usePost';

/** Opens the codes: asked once, since it can't be taken back. `strong`: all is measured, it is what comes next. */
export function OpenCodes({ strong = false }: { strong?: boolean }) {
  const post = usePost();
  const [asked, setAsked] = useState(false);
  if (!asked)
    return (
      <div>
        <Button
          {...(strong ? { variant: 'contained' } : { variant: 'outlined', color: 'secondary' })}
          onClick={() => setAsked(true)}
        >
          Open the codes
        </Button>
      </div>
    );
  return (
    <div className="note open">
      <p className="small">
        Opening is written into the log with the time and can’t be taken back. Is everything scored?
      </p>
      <div className="inline-row" style={{ marginTop: '0.4rem' }}>
        <Button size="small" variant="contained" onClick={() => post({ intent: 'reveal' })}>
          Open the codes now
        </Button>
        <Button size="small" color="inherit" onClick={() => setAsked(false)}>
          Not yet
        </Button>
      </div>
    </div>
  );
}
