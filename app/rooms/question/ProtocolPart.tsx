import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { memo } from 'react';
import { useFormContext } from 'react-hook-form';
import { protocolOf, protocols } from '~core/schedule/protocols';
import { usePost } from '../../form/usePost';
import { Written } from '../../form/fields';
import { Caution } from '../../ui/Caution';

interface Props {
  /** the plan's */
  protocolId: string | null;
  /** the one looked at */
  chosen: string;
  onChosen: (id: string) => void;
  locked: boolean;
}

/** The kind of trial, and a button that fills the plan from another one. */
export const KindOfTrial = memo(function KindOfTrial({ protocolId, chosen, onChosen, locked }: Props) {
  const { isDirty } = useFormContext().formState;
  const post = usePost();
  const another = chosen !== protocolId && protocolOf(chosen) !== null;
  if (locked) return <Written label="Kind of trial" text={protocolOf(chosen)?.name ?? 'a blank protocol'} />;
  return (
    <>
      <TextField
        select
        fullWidth
        label="Kind of trial"
        value={chosen}
        onChange={(e) => onChosen(e.target.value)}
      >
        <MenuItem value="blank">a blank protocol</MenuItem>
        {protocols.map((p) => (
          <MenuItem key={p.id} value={p.id}>
            {p.name}
          </MenuItem>
        ))}
      </TextField>
      {another && (
        <div className="inline-row" style={{ marginTop: '0.5rem' }}>
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
        </div>
      )}
    </>
  );
});

/** What a kind of trial usually takes, what usually goes wrong, and what can hurt someone. */
export function KindNotes({ chosen }: Pick<Props, 'chosen'>) {
  const protocol = protocolOf(chosen);
  if (!protocol) return null;
  const last = protocol.rounds.at(-1)?.day ?? 0;
  return (
    <div className="kind-notes small">
      <Caution>{protocol.cautions.join(' ')}</Caution>
      <details>
        <summary>
          Usually {last} days, {protocol.rounds.length} rounds, a {protocol.unitNoun} a unit
          {protocol.plantsPerUnit > 1 && `, ${protocol.plantsPerUnit} plants in it`}; what goes wrong
        </summary>
        <p>
          {protocol.unitNote}
          {protocol.cropsWithin && ' Several crops in each are usual; name them below.'}{' '}
          {protocol.faults.join(' ')} Usual spread {protocol.cvPercent} % (practice).
        </p>
      </details>
    </div>
  );
}
