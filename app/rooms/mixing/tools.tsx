import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { Tools } from '~core/mixing/recipe';
import { spoonSteps } from '~core/mixing/spoons';
import type { MeasureSystem } from '~core/quantity/units';

const keyOf = (id: string) => `palazzo-tools/${id}`;

function remembered(id: string): Partial<Tools> {
  try {
    return JSON.parse(localStorage.getItem(keyOf(id)) ?? '{}') as Partial<Tools>;
  } catch {
    return {};
  }
}

/**
 * The scale and syringe at hand on this device. They begin as the plan has them; another scale may be taken
 * any day, also after the seal, and each mix is logged with the step it was weighed in.
 */
export function useTools(id: string, planned: Tools): [Tools, (tools: Tools) => void] {
  const [tools, setTools] = useState<Tools>(() => ({ ...planned, ...remembered(id) }));
  return [
    tools,
    (next) => {
      setTools(next);
      try {
        localStorage.setItem(keyOf(id), JSON.stringify(next));
      } catch {
        // without storage the choice lasts as long as the page
      }
    },
  ];
}

/** Smallest step of a tool, from the usual ones; the plan's own is offered too. */
export function StepChoice({
  label,
  unit,
  steps,
  value,
  onChange,
}: {
  label: string;
  unit: string;
  steps: readonly number[];
  value: number | null;
  onChange: (step: number | null) => void;
}) {
  const offered = [...new Set([...steps, ...(value === null ? [] : [value])])].sort((a, b) => a - b);
  return (
    <TextField
      select
      size="small"
      label={label}
      value={value === null ? '' : String(value)}
      onChange={(e) => onChange(e.target.value === '' ? null : Number(e.target.value))}
      sx={{ width: 150 }}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
    >
      <MenuItem value="">exactly</MenuItem>
      {offered.map((s) => (
        <MenuItem key={s} value={String(s)}>
          {s} {unit}
        </MenuItem>
      ))}
    </TextField>
  );
}

const gramSteps = [0.01, 0.1, 0.5, 1, 2, 5];

/** What is dry: weighed, in steps of the scale, or measured by the level spoon. */
export function DryChoice({
  tools,
  measures,
  onChange,
}: {
  tools: Tools;
  measures: MeasureSystem;
  onChange: (tools: Tools) => void;
}) {
  const { scaleStepG, spoonStepMl } = tools;
  const offered = [...new Set([...gramSteps, ...(scaleStepG === null ? [] : [scaleStepG])])].sort(
    (a, b) => a - b,
  );
  const spoons = spoonSteps(measures);
  const spoon = spoonStepMl == null ? -1 : spoons.findIndex((s) => Math.abs(s.ml - spoonStepMl) < 1e-6);
  return (
    <TextField
      select
      size="small"
      label="Powders in steps of"
      value={spoon >= 0 ? `spoon ${spoon}` : scaleStepG === null ? '' : String(scaleStepG)}
      onChange={(e) => {
        const chosen = /^spoon (\d)$/.exec(e.target.value)?.[1];
        onChange(
          chosen === undefined
            ? {
                ...tools,
                spoonStepMl: null,
                scaleStepG: e.target.value === '' ? null : Number(e.target.value),
              }
            : { ...tools, spoonStepMl: spoons[Number(chosen)]!.ml },
        );
      }}
      sx={{ width: 160 }}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
    >
      <MenuItem value="">exactly</MenuItem>
      {offered.map((s) => (
        <MenuItem key={s} value={String(s)}>
          {s} g
        </MenuItem>
      ))}
      {spoons.map((s, i) => (
        <MenuItem key={s.label} value={`spoon ${i}`}>
          {s.label}, level
        </MenuItem>
      ))}
    </TextField>
  );
}
