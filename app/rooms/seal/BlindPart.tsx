import { shortTime } from '../../ui/clock';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { Link } from 'react-router';
import { type Blinding, blindingNames, blindings } from '~core/model/plan';
import { usePost } from '../../form/usePost';

interface Props {
  trialId: string;
  blinding: Blinding;
  sealed: boolean;
  blind: boolean;
  revealedAt: string | null;
  /** the key isn’t on this bench */
  keyMissing: boolean;
}

/** Who sees names: open, codes for the scorer, codes for the feeder too; and the opening of the codes. */
export function BlindPart({ trialId, blinding, sealed, blind, revealedAt, keyMissing }: Props) {
  const post = usePost();
  const [asked, setAsked] = useState(false);
  return (
    <section className="stack tight">
      <h2>Who sees names</h2>
      <TextField
        select
        label="Blinding"
        value={blinding}
        disabled={sealed}
        onChange={(e) => post({ intent: 'blinding', blinding: e.target.value })}
        helperText={
          blinding === 'open'
            ? 'whoever scores sees what each unit got'
            : blinding === 'scorer'
              ? 'plan, rounds, labels and findings show codes'
              : 'codes for all; a helper fills the bottles by the card'
        }
      >
        {blindings.map((b) => (
          <MenuItem key={b} value={b}>
            {blindingNames[b]}
          </MenuItem>
        ))}
      </TextField>
      {blinding !== 'open' && !revealedAt && (
        <p className="small">
          <Link to={`/trial/${trialId}/card`}>The helper’s card</Link> says what goes into which bottle; who
          scores doesn’t open it.
        </p>
      )}
      {keyMissing && (
        <p className="note open small">
          The key isn’t on this bench, so names stay hidden. The letters here aren’t those on the bottle tags:
          go by the codes of the units. Importing the file that holds the key brings it.
        </p>
      )}
      {sealed && blind && !keyMissing && (
        <>
          {asked ? (
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
          ) : (
            <div>
              <Button variant="outlined" color="secondary" onClick={() => setAsked(true)}>
                Open the codes
              </Button>
            </div>
          )}
        </>
      )}
      {revealedAt && blinding !== 'open' && (
        <p className="small quiet">Codes were opened {shortTime(revealedAt)}.</p>
      )}
    </section>
  );
}
