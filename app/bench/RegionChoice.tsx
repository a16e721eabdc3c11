import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { useRevalidator } from 'react-router';
import { unitChoiceIds, unitChoices } from '~core/quantity/regionUnits';
import { figureRegionIds, figureRegions } from '~core/quantity/region';
import { type Region, chooseRegion, chosenRegion } from '../ui/region';

const OWN = '';

/** How figures, days, times and weeks are written on this device. */
export function RegionChoice() {
  const revalidator = useRevalidator();
  const [region, setRegion] = useState<Region>(chosenRegion);
  const choose = (over: Partial<Region>) => {
    const next = { ...region, ...over };
    setRegion(next);
    chooseRegion(next);
    void revalidator.revalidate();
  };
  const select = (
    label: string,
    value: string,
    options: readonly (readonly [string, string])[],
    onChange: (v: string) => void,
    own = 'like the browser',
  ) => (
    <TextField
      select
      size="small"
      label={label}
      value={value}
      sx={{ width: 230 }}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      onChange={(e) => onChange(e.target.value)}
    >
      <MenuItem value={OWN}>{own}</MenuItem>
      {options.map(([id, name]) => (
        <MenuItem key={id} value={id}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
  return (
    <section className="section">
      <h2>Figures, days and times</h2>
      <p className="quiet">
        How they are written on this device; both a point and a comma are understood where figures are typed.
        A review has its own. A new trial begins with these sizes, the first with the region’s; each can be
        changed in its Layout.
      </p>
      <div className="inline-row" style={{ marginTop: '0.8rem' }}>
        {select(
          'Figures and days',
          region.figures ?? OWN,
          figureRegionIds.map((id) => [id, figureRegions[id].name] as const),
          (v) => choose({ figures: figureRegionIds.find((id) => id === v) ?? null }),
        )}
        {select(
          'Hours',
          region.hours === null ? OWN : String(region.hours),
          [
            ['24', '14:05'],
            ['12', '2:05 pm'],
          ],
          (v) => choose({ hours: v === '12' ? 12 : v === '24' ? 24 : null }),
        )}
        {select(
          'A week begins on',
          region.weekStart === null ? OWN : String(region.weekStart),
          [
            ['1', 'Monday'],
            ['0', 'Sunday'],
            ['6', 'Saturday'],
          ],
          (v) => choose({ weekStart: v === '0' ? 0 : v === '1' ? 1 : v === '6' ? 6 : null }),
        )}
        {select(
          'Sizes of new trials',
          region.units ?? OWN,
          unitChoiceIds.map((id) => [id, unitChoices[id].name] as const),
          (v) => choose({ units: unitChoiceIds.find((id) => id === v) ?? null }),
          'like the trial before',
        )}
      </div>
    </section>
  );
}
