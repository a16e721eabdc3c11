import { shortTime } from '../../ui/clock';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { Link } from 'react-router';
import { type Blinding, blindingNames, blindings } from '~core/model/plan';
import { Written } from '../../form/fields';
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

const whoSees: Record<Blinding, string> = {
  open: 'whoever scores sees what each unit got',
  scorer: 'plan, rounds, labels and findings show codes',
  feeder: 'codes for all; a helper fills the bottles by the card',
};

/** Who sees names: open, codes for the scorer, codes for the feeder too; and the opening of the codes. */
export function BlindPart({ trialId, blinding, sealed, blind, revealedAt, keyMissing }: Props) {
  const post = usePost();
  return (
    <section className="stack tight">
      <h2>Who sees names</h2>
      {sealed ? (
        <>
          <Written label="Blinding" text={blindingNames[blinding]} />
          <p className="small quiet">{whoSees[blinding]}</p>
        </>
      ) : (
        <TextField
          select
          label="Blinding"
          value={blinding}
          onChange={(e) => post({ intent: 'blinding', blinding: e.target.value })}
          helperText={whoSees[blinding]}
        >
          {blindings.map((b) => (
            <MenuItem key={b} value={b}>
              {blindingNames[b]}
            </MenuItem>
          ))}
        </TextField>
      )}
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
