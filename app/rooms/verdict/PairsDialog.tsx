import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { useState } from 'react';
import type { CardHeading } from '~core/model/judgement';
import { type Preferred, pairsToAsk, weightsByPairs } from '~core/scorecard/weights';
import { DialogButtons } from '../../ui/DialogButtons';
import { EntryDialog } from '../../ui/EntryDialog';

interface Props {
  headings: readonly CardHeading[];
  onClose: () => void;
  onKeep: (weights: Map<string, number>) => void;
}

/** Weights from one question asked of every two headings: which matters more? */
export function PairsDialog({ headings, onClose, onKeep }: Props) {
  const [answers, setAnswers] = useState<Preferred[]>(() =>
    pairsToAsk(headings.map((h) => h.id)).map((p) => ({ ...p, more: null })),
  );
  const nameOf = (id: string) => headings.find((h) => h.id === id)!.name;
  const weights = weightsByPairs(
    headings.map((h) => h.id),
    answers,
  );
  const choose = (i: number, more: Preferred['more']) =>
    setAnswers((all) => all.map((a, j) => (j === i ? { ...a, more } : a)));
  return (
    <EntryDialog onClose={onClose} maxWidth="sm">
      <DialogTitle>Which matters more?</DialogTitle>
      <DialogContent>
        <p className="small quiet">
          Two headings at a time. A point for each heading, two more for each pair it wins, one where both are
          alike.
        </p>
        {answers.map(({ a, b, more }, i) => (
          <ToggleButtonGroup
            key={`${a}${b}`}
            exclusive
            fullWidth
            size="small"
            value={more ?? 'alike'}
            aria-label={`${nameOf(a)} or ${nameOf(b)}`}
            onChange={(_, to: 'a' | 'b' | 'alike' | null) => to && choose(i, to === 'alike' ? null : to)}
            sx={{ mt: 1 }}
          >
            <ToggleButton value="a" sx={{ textTransform: 'none' }}>
              {nameOf(a)}
            </ToggleButton>
            <ToggleButton value="alike" sx={{ textTransform: 'none', maxWidth: 90 }}>
              alike
            </ToggleButton>
            <ToggleButton value="b" sx={{ textTransform: 'none' }}>
              {nameOf(b)}
            </ToggleButton>
          </ToggleButtonGroup>
        ))}
        <p className="small" style={{ marginTop: '0.9rem' }} aria-live="polite">
          {headings.map((h) => `${h.name} ${weights.get(h.id)} %`).join(' · ')}
        </p>
      </DialogContent>
      <DialogButtons onCancel={onClose} label="Take these weights" onDo={() => onKeep(weights)} />
    </EntryDialog>
  );
}
