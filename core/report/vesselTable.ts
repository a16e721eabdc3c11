import type { TrialState } from '../log/state';
import { driftOf } from '../mixing/drift';
import { type Vessel, vesselsOf } from '../mixing/vessels';
import { livingUnits } from '../log/asked';
import { type Block, type Cell, column, numbers, text } from './block';

/** Strength and pH of every vessel that was read: start, end and change; nothing where none was. */
export function vesselBlocks(state: TrialState): Block[] {
  const { plan } = state;
  const read = vesselsOf({ plan, shown: plan, living: livingUnits(state), state }).filter(
    (v) => v.readings.ec.length > 0 || v.readings.ph.length > 0,
  );
  if (read.length === 0) return [];
  const cells = (v: Vessel, quantity: 'ec' | 'ph', decimals: number): Cell[] => {
    const readings = v.readings[quantity];
    const figure = (value: number | null, signed = false): Cell =>
      value === null ? text('–') : { type: 'figure', value, decimals, signed };
    const drift = driftOf(readings);
    return [
      figure(readings[0]?.value ?? null),
      figure(readings.length > 1 ? readings[readings.length - 1]!.value : null),
      figure(drift?.change ?? null, true),
    ];
  };
  return [
    { type: 'heading', level: 3, text: 'Solutions as read' },
    {
      type: 'table',
      columns: [
        column('vessel'),
        numbers('EC (strength), first'),
        numbers('last'),
        numbers('change'),
        numbers('pH, first'),
        numbers('last'),
        numbers('change'),
      ],
      rows: read.map((v) => ({ cells: [text(v.name), ...cells(v, 'ec', 2), ...cells(v, 'ph', 1)] })),
    },
  ];
}
