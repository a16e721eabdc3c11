import Autocomplete, { createFilterOptions } from '@mui/material/Autocomplete';
import Dialog from '@mui/material/Dialog';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { type PaletteEntry, type RoomOfTrial, paletteEntries } from './entries';

/** So many are shown at once: a word more narrows them down. */
const MOST = 60;
const narrowed = createFilterOptions<PaletteEntry>({
  limit: MOST,
  stringify: (e) => `${e.label} ${e.group}`,
});

/** Goes anywhere by a few letters: rooms, units, trials, products, acts. */
export function Palette({ rooms, onClose }: { rooms: readonly RoomOfTrial[]; onClose: () => void }) {
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const trialId = /^\/trial\/([^/]+)/.exec(pathname)?.[1] ?? null;
  const [entries, setEntries] = useState<PaletteEntry[] | null>(null);
  useEffect(() => {
    let gone = false;
    void paletteEntries(trialId, rooms)
      .catch(() => [])
      .then((all) => !gone && setEntries(all));
    return () => {
      gone = true;
    };
  }, [trialId, rooms]);
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm">
      <DialogTitle>Go to</DialogTitle>
      <DialogContent sx={{ minHeight: 380, overflow: 'visible' }}>
        <Autocomplete
          open
          autoHighlight
          disablePortal
          options={entries ?? []}
          loading={entries === null}
          noOptionsText="Nothing of that name"
          getOptionLabel={(e) => e.label}
          getOptionKey={(e) => e.to + e.label}
          renderOption={({ key, ...props }, e) => (
            <li key={key} {...props}>
              <span>{e.label}</span>
              <span className="small quiet" style={{ marginLeft: 'auto', paddingLeft: '1rem' }}>
                {e.group.toLowerCase()}
              </span>
            </li>
          )}
          filterOptions={narrowed}
          onChange={(_, chosen) => {
            if (!chosen) return;
            onClose();
            void navigate(chosen.to);
          }}
          onClose={(_, reason) => reason === 'escape' && onClose()}
          renderInput={(params) => (
            <TextField {...params} autoFocus label="A room, a unit, a trial, a product" />
          )}
        />
      </DialogContent>
    </Dialog>
  );
}
