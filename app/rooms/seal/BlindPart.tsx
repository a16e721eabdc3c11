import { shortTime } from '../../ui/clock';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { Link } from 'react-router';
import { type Blinding, blindingNames, blindings } from '~core/model/plan';
import { usePost } from '../../form/usePost';
import { OpenCodes } from './OpenCodes';

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
      {sealed && blind && !keyMissing && <OpenCodes />}
      {revealedAt && blinding !== 'open' && (
        <p className="small quiet">Codes were opened {shortTime(revealedAt)}.</p>
      )}
    </section>
  );
}
