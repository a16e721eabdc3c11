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
      ['entry_id', 'string!', 'log line', (o) => o.entryId],
      ['unit_id', 'string!', 'unit', (o) => o.unitId],
      ['trait_id', 'string!', 'trait', (o) => o.traitId],
      ['round', 'string', 'round', (o) => plan.rounds.find((r) => r.id === o.roundId)?.name ?? null],
      ['sample', 'integer', 'sample within the unit', (o) => o.sample],
      ['value', 'number!', 'value in the trait’s unit; k for k of n', (o) => o.value],
      [
        'out_of',
        'integer',
        'n of a k-of-n value',
        (o) => {
          const trait = plan.traits.find((t) => t.id === o.traitId);
          return trait?.kind === 'ratio' ? (o.outOf ?? trait.outOf) : null;
        },
      ],
      ['not_yet', 'boolean', 'days until: it had not happened by then', (o) => o.notYet],
      [
        'crop',
        'string',
        'crop within the unit',
        (o) => {
          const trait = plan.traits.find((t) => t.id === o.traitId);
          return (trait && plan.cropsWithin[cropOfSample(trait, o.sample)]) ?? null;
        },
      ],
      ['gross_g', 'number', 'gross weight, g', (o) => o.weighing?.grossG ?? null],
      ['tare_g', 'number', 'tare, g', (o) => o.weighing?.tareG ?? null],
      ['at', 'datetime', 'when it was taken', (o) => utc(o.at)],
      ['by', 'string', 'who', (o) => o.by],
      ['corrected', 'integer', 'how often it was corrected', (o) => o.earlier.length],
      [
        'excluded',
        'string',
        'why it is left out of the findings',
        (o) => exclusionReason(state, o.unitId, o.traitId),
      ],
    ],
    state.observations,
    {
      primary: 'entry_id',
      foreign: { unit_id: ['units', 'unit_id'], trait_id: ['traits', 'trait_id'] },
    },
  );
}
