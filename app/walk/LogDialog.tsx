import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { DialogButtons } from '../ui/DialogButtons';
import { useForm, useWatch } from 'react-hook-form';
import type { EntryBody } from '~core/log/entry';
import type { UnitId } from '~core/model/ids';
import { EntryDialog } from '../ui/EntryDialog';
import { SittingChoice } from './SittingChoice';
import type { When } from '../form/happened';
import { type SittingInHand, useMomentWithin } from './useSitting';

type Kind = 'deviation' | 'death' | 'sampleDeath' | 'exclusion' | 'note';

const kinds: [Kind, string, string][] = [
  ['deviation', 'Something differed from the plan', 'What happened?'],
  ['note', 'A remark', 'What did you see?'],
  ['death', 'It died', 'Of what, as far as you know?'],
  ['sampleDeath', 'Only this one in it died', 'Of what, as far as you know?'],
  ['exclusion', 'Leave it out of the findings', 'Why?'],
];

interface Fields {
  kind: Kind;
  text: string;
}

interface Props {
  unit: { id: UnitId; code: string } | null;
  /** the plant or crop within the unit that the pad stands at; null where the unit is taken as a whole */
  sample?: number | null;
  /** what that one is called */
  sampleName?: string;
  /** of what it is written in: it may have happened at another moment than the rest */
  sitting: SittingInHand;
  onClose: () => void;
  /** @returns whether it is kept */
  onKeep: (body: EntryBody, when: When) => Promise<boolean>;
}

/** Writes something that isn't a value into the log: a deviation, a remark, a death, an exclusion. */
export function LogDialog({ unit, sample = null, sampleName = '', sitting: begun, onClose, onKeep }: Props) {
  const sitting = useMomentWithin(begun);
  const { control, register, handleSubmit, formState } = useForm<Fields>({
    defaultValues: { kind: 'deviation', text: '' },
  });
  const kind = useWatch({ control, name: 'kind' });
  const choices = kinds.filter(([k]) =>
    k === 'sampleDeath' ? unit && sample !== null : unit || k === 'deviation' || k === 'note',
  );
  const bodyOf = ({ kind, text }: Fields): EntryBody | null => {
    switch (kind) {
      case 'deviation':
        return { kind, unitIds: unit ? [unit.id] : [], text };
      case 'note':
        return { kind, unitId: unit?.id ?? null, text };
      case 'death':
        return unit && { kind, unitId: unit.id, sample: null, cause: text.trim() };
      case 'sampleDeath':
        return unit && { kind: 'death', unitId: unit.id, sample, cause: text.trim() };
      case 'exclusion':
        return unit && { kind, unitId: unit.id, traitId: null, reason: text };
    }
  };
  const keep = handleSubmit(async (fields) => {
    const body = bodyOf(fields);
    if (sitting.fault) return;
    // What wasn't kept stays here.
    if (!body || (await onKeep(body, sitting.when))) onClose();
  });
  const fault = formState.errors.text?.message;
  return (
    <EntryDialog onClose={onClose} maxWidth="sm">
      <DialogTitle>{unit ? `Something off with ${unit.code}` : 'Something off'}</DialogTitle>
      <DialogContent>
        <div className="stack" style={{ paddingTop: 8 }}>
          <TextField select label="What it is" defaultValue="deviation" {...register('kind')}>
            {choices.map(([k, label]) => (
              <MenuItem key={k} value={k}>
                {k === 'sampleDeath' ? `Only ${sampleName} in it died` : label}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            label={kinds.find(([k]) => k === kind)![2]}
            {...register('text', {
              validate: (text, { kind }) =>
                text.trim() !== '' ||
                kind === 'death' ||
                kind === 'sampleDeath' ||
                'Write it down in a few words.',
            })}
            multiline
            minRows={3}
            autoFocus
            error={fault !== undefined}
            helperText={fault ?? 'It goes into the log and into the review.'}
          />
          <SittingChoice sitting={sitting} />
        </div>
      </DialogContent>
      <DialogButtons
        onCancel={onClose}
        label="Write it down"
        onDo={() => void keep()}
        busy={formState.isSubmitting}
      />
    </EntryDialog>
  );
}
