import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import type { TasterGuess, TasterSheet } from './tasterSheet';
import { useDraft } from './useDraft';

/** Before anything is told: which two are the same, which is which. */
export function GuessScreen({
  sheet,
  guess,
  onKeep,
}: {
  sheet: TasterSheet;
  guess: TasterGuess | null;
  onKeep: (guess: TasterGuess) => void;
}) {
  const cups = [...new Set(sheet.sets.flatMap((s) => s.cups))];
  const { value, put } = useDraft<{ pressed: string[]; which: TasterGuess['which'] }>(
    `${sheet.session.id}/${sheet.taster}/guess`,
    { pressed: guess?.same ?? [], which: guess?.which ?? [] },
  );
  const asksWhich = sheet.session.guess === 'which';
  const { pressed } = value;
  // The third pressed takes the place of the first.
  const toggle = (code: string) =>
    put({
      ...value,
      pressed: pressed.includes(code) ? pressed.filter((c) => c !== code) : [...pressed, code].slice(-2),
    });
  const keep = () => {
    const [one, two] = pressed;
    onKeep({ same: one !== undefined && two !== undefined ? [one, two] : null, which: value.which });
  };
  return (
    <>
      <h1 id="sample" tabIndex={-1}>
        {asksWhich ? 'Which is which? A guess will do.' : 'Which two are the same? A guess will do.'}
      </h1>
      {asksWhich ? (
        cups.map((code) => (
          <TextField
            key={code}
            select
            fullWidth
            label={code}
            value={value.which.find((w) => w.code === code)?.treatmentId ?? ''}
            onChange={(e) => {
              const id = sheet.contenders.find((c) => c.id === e.target.value)?.id;
              const others = value.which.filter((w) => w.code !== code);
              put({ ...value, which: id ? [...others, { code, treatmentId: id }] : others });
            }}
          >
            <MenuItem value="">no guess</MenuItem>
            {sheet.contenders.map((c) => (
              <MenuItem key={c.id} value={c.id}>
                {c.name}
              </MenuItem>
            ))}
          </TextField>
        ))
      ) : (
        <div className="taster-choices">
          {cups.map((code) => (
            <button
              type="button"
              key={code}
              className="taster-step taster-choice"
              aria-pressed={pressed.includes(code)}
              onClick={() => toggle(code)}
            >
              {code}
            </button>
          ))}
        </div>
      )}
      <Button variant="contained" size="large" fullWidth sx={{ minHeight: 56 }} onClick={keep}>
        Keep and go on
      </Button>
    </>
  );
}
