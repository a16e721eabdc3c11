import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { memo, useState } from 'react';
import { useFormContext } from 'react-hook-form';
import { protocolOf, protocols } from '~core/schedule/protocols';
import { usePost } from '../../form/usePost';
import { Caution } from '../../ui/Caution';

/** The kind of trial: what it usually takes, what usually goes wrong, and a button that fills the plan. */
export const ProtocolPanel = memo(function ProtocolPanel({
  protocolId,
  locked,
}: {
  protocolId: string | null;
  locked: boolean;
}) {
  const { isDirty } = useFormContext().formState;
  const [chosen, setChosen] = useState(protocolId ?? 'blank');
  const post = usePost();
  const protocol = protocolOf(chosen);
  const last = protocol?.rounds.at(-1)?.day ?? 0;
  return (
    <section className="protocol sheet" aria-label="Kind of trial">
      <div className="inline-row">
        <TextField
          select
          label="Kind of trial"
          value={chosen}
          disabled={locked}
          onChange={(e) => setChosen(e.target.value)}
          sx={{ flex: '1 1 18rem', maxWidth: '34rem' }}
        >
          <MenuItem value="blank">a blank protocol</MenuItem>
          {protocols.map((p) => (
            <MenuItem key={p.id} value={p.id}>
              {p.name}
            </MenuItem>
          ))}
        </TextField>
        {!locked && protocol && chosen !== protocolId && (
          <>
            <Button
              variant="outlined"
              color="secondary"
              disabled={isDirty}
              onClick={() => post({ intent: 'protocol', protocolId: chosen })}
            >
              Fill the plan from it
            </Button>
            <span className="small quiet">
              {isDirty ? 'Save the question first.' : 'Traits and rounds are replaced; it can be undone.'}
            </span>
          </>
        )}
      </div>
      {protocol && (
        <details className="small">
          <summary>
            {last} days, {protocol.rounds.length} rounds, a {protocol.unitNoun} a unit
            {protocol.plantsPerUnit > 1 && `, ${protocol.plantsPerUnit} plants in it`}; what usually goes
            wrong
          </summary>
          <p>
            {protocol.unitNote}
            {protocol.cropsWithin && ' Several crops in each are usual; name them below.'}{' '}
            {protocol.faults.join(' ')} Usual spread {protocol.cvPercent} % (practice).
          </p>
        </details>
      )}
      {protocol && (
        <div style={{ marginTop: '0.5rem' }}>
          <Caution>{protocol.cautions.join(' ')}</Caution>
        </div>
      )}
    </section>
  );
});
