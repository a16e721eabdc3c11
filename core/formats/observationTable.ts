import type { TrialState } from '../log/state';
import { cropOfSample, exclusionReason } from '../log/unitValues';
import { type DataTable, table, utc } from './dataTable';

/** Every standing value of a trial, one a row. */
export function observationTable(state: TrialState): DataTable {
  const { plan } = state;
  return table(
    'observations',
    'Every standing value; weighings as net grams with gross and tare',
    [
      {
        name: 'entry_id',
        type: 'string',
        description: 'log line',
        required: true,
        value: (o) => o.entryId,
      },
      { name: 'unit_id', type: 'string', description: 'unit', required: true, value: (o) => o.unitId },
      { name: 'trait_id', type: 'string', description: 'trait', required: true, value: (o) => o.traitId },
      {
        name: 'round',
        type: 'string',
        description: 'round',
        value: (o) => plan.rounds.find((r) => r.id === o.roundId)?.name ?? null,
      },
      { name: 'sample', type: 'integer', description: 'sample within the unit', value: (o) => o.sample },
      {
        name: 'value',
        type: 'number',
        description: 'value in the trait’s unit; k for k of n',
        required: true,
        value: (o) => o.value,
      },
      {
        name: 'out_of',
        type: 'integer',
        description: 'n of a k-of-n value',
        value: (o) => {
          const trait = plan.traits.find((t) => t.id === o.traitId);
          return trait?.kind === 'ratio' ? (o.outOf ?? trait.outOf) : null;
        },
      },
      {
        name: 'not_yet',
        type: 'boolean',
        description: 'days until: it had not happened by then',
        value: (o) => o.notYet,
      },
      {
        name: 'crop',
        type: 'string',
        description: 'crop within the unit',
        value: (o) => {
          const trait = plan.traits.find((t) => t.id === o.traitId);
          return (trait && plan.cropsWithin[cropOfSample(trait, o.sample)]) ?? null;
        },
      },
      {
        name: 'gross_g',
        type: 'number',
        description: 'gross weight, g',
        value: (o) => o.weighing?.grossG ?? null,
      },
      { name: 'tare_g', type: 'number', description: 'tare, g', value: (o) => o.weighing?.tareG ?? null },
      { name: 'at', type: 'datetime', description: 'when it was taken', value: (o) => utc(o.at) },
      { name: 'by', type: 'string', description: 'who', value: (o) => o.by },
      {
        name: 'corrected',
        type: 'integer',
        description: 'how often it was corrected',
        value: (o) => o.earlier.length,
      },
      {
        name: 'excluded',
        type: 'string',
        description: 'why it is left out of the findings',
        value: (o) => exclusionReason(state, o.unitId, o.traitId),
      },
    ],
    state.observations,
    {
      primary: 'entry_id',
      foreign: { unit_id: ['units', 'unit_id'], trait_id: ['traits', 'trait_id'] },
    },
  );
}
