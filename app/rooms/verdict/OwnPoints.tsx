import Button from '@mui/material/Button';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { CardHeading } from '~core/model/judgement';
import { numberIn } from '~core/quantity/number';
import { TesseraName } from '../../ui/Tessera';
import { EntryDialog } from '../../ui/EntryDialog';

interface Props {
  heading: CardHeading;
  contenders: { id: string; name: string; order: number }[];
  onKeep: (over: Partial<CardHeading>) => void;
  onClose: () => void;
}

/** A heading's name, and where the reviewer gives the points, each contender's with its reason. */
export function OwnPoints({ heading, contenders, onKeep, onClose }: Props) {
  const own = heading.from.kind === 'own' ? heading.from.points : null;
  const [name, setName] = useState(heading.name);
  const [typed, setTyped] = useState(
    Object.fromEntries(
      contenders.map((c) => [
        c.id,
        { points: own?.[c.id] ? String(own[c.id]!.points) : '', reason: own?.[c.id]?.reason ?? '' },
      ]),
    ),
  );
  const [zero, setZero] = useState(heading.scale ? String(heading.scale.zero) : '');
  const [ten, setTen] = useState(heading.scale ? String(heading.scale.ten) : '');
  const [faults, setFaults] = useState<Record<string, string>>({});
  const keep = () => {
    const points: Record<string, { points: number; reason: string }> = {};
    const wrong: Record<string, string> = {};
    for (const c of contenders) {
      const t = typed[c.id]!;
      if (own === null || t.points.trim() === '') continue;
      const value = numberIn(t.points);
      if (value === null || value < 0 || value > 10) wrong[c.id] = 'From 0 to 10.';
      else points[c.id] = { points: value, reason: t.reason };
    }
    const ends = [zero, ten].map((t) => (t.trim() === '' ? null : numberIn(t)));
    const written = own === null && (zero.trim() !== '' || ten.trim() !== '');
    if (written && ends.includes(null)) wrong.scale = 'Both figures, or neither.';
    else if (written && ends[0] === ends[1]) wrong.scale = 'The figures for 0 and for 10 must differ.';
    const made = CardHeading.safeParse({ ...heading, name });
    if (!made.success) wrong.name = made.error.issues[0]!.message;
    setFaults(wrong);
    if (Object.keys(wrong).length > 0) return;
    onKeep({
      name: name.trim(),
      scale: written ? { zero: ends[0]!, ten: ends[1]! } : undefined,
      ...(own !== null && { from: { kind: 'own' as const, points } }),
    });
  };
  return (
    <EntryDialog onClose={onClose} maxWidth="sm">
      <DialogTitle>{own === null ? 'Name and scale' : 'My own points'}</DialogTitle>
      <DialogContent>
        <div className="stack" style={{ paddingTop: '0.4rem' }}>
          <TextField
            label="Heading"
            value={name}
            error={faults.name !== undefined}
            helperText={faults.name}
            onChange={(e) => setName(e.target.value)}
          />
          {own === null && (
            <div className="inline-row">
              <TextField
                label="Figure that gets 0"
                value={zero}
                sx={{ width: 170 }}
                slotProps={{ htmlInput: { inputMode: 'decimal' } }}
                error={faults.scale !== undefined}
                helperText={faults.scale ?? 'empty: the control, or the worst'}
                onChange={(e) => setZero(e.target.value)}
              />
              <TextField
                label="Figure that gets 10"
                value={ten}
                sx={{ width: 170 }}
                slotProps={{ htmlInput: { inputMode: 'decimal' } }}
                error={faults.scale !== undefined}
                helperText="empty: the best"
                onChange={(e) => setTen(e.target.value)}
              />
            </div>
          )}
          {own !== null &&
            contenders.map((c) => (
              <div key={c.id} className="inline-row">
                <span style={{ width: 150 }}>
                  <TesseraName index={c.order} name={c.name} size={16} />
                </span>
                <TextField
                  label={`Points of ${c.name}`}
                  value={typed[c.id]!.points}
                  sx={{ width: 120 }}
                  slotProps={{ htmlInput: { inputMode: 'decimal' } }}
                  error={faults[c.id] !== undefined}
                  helperText={faults[c.id] ?? '0 to 10'}
                  onChange={(e) =>
                    setTyped({ ...typed, [c.id]: { ...typed[c.id]!, points: e.target.value } })
                  }
                />
                <TextField
                  label="Why"
                  value={typed[c.id]!.reason}
                  sx={{ flex: 1, minWidth: 160 }}
                  onChange={(e) =>
                    setTyped({ ...typed, [c.id]: { ...typed[c.id]!, reason: e.target.value } })
                  }
                />
              </div>
            ))}
        </div>
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Cancel
        </Button>
        <Button variant="contained" onClick={keep}>
          Keep
        </Button>
      </DialogActions>
    </EntryDialog>
  );
}
