import { cropOfSample, exclusionReason } from '../log/response';
import type { TrialState } from '../log/state';
import { utc } from '../model/column';
import { kindOf } from '../model/traitKinds';
import { planIndex } from '../plan/planIndex';
import { type DataTable, table } from './dataTable';

/** Every standing value of a trial, one a row. */
export function observationTable(state: TrialState): DataTable {
  const { plan } = state;
  const of = planIndex(plan);
  const treatment = (unitId: string) => of.treatment(of.unit(unitId)?.treatmentId ?? '')?.name ?? null;
  return table(
    'observations',
    'Every standing value; weighings as net grams with gross and tare',
    [
      ['unit', 'string!', 'code of the unit', (o) => of.unit(o.unitId)?.code ?? null],
      ['treatment', 'string', 'treatment of the unit', (o) => treatment(o.unitId)],
      ['trait', 'string', 'what was measured', (o) => of.trait(o.traitId)?.name ?? null],
      ['round', 'string', 'round', (o) => (o.roundId && of.round(o.roundId)?.name) || null],
      ['day', 'integer', 'day of the trial: its round’s, else the one it was taken on', (o) => o.day],
      ['sample', 'integer', 'sample within the unit', (o) => o.sample],
      ['value', 'number!', 'value in the trait’s unit; k for k of n', (o) => o.value],
      [
        'out_of',
        'integer',
        'n of a k-of-n value',
        (o) => {
          const trait = of.trait(o.traitId);
          const seen = trait && kindOf(trait).observed(o, trait);
          return seen?.type === 'kOfN' ? seen.n : null;
        },
      ],
      ['not_yet', 'boolean', 'days until: it had not happened by then', (o) => o.notYet],
      [
        'crop',
        'string',
        'crop within the unit',
        (o) => {
          const trait = of.trait(o.traitId);
          return (trait && plan.cropsWithin[cropOfSample(trait, o.sample)]) ?? null;
        },
      ],
      ['gross_g', 'number', 'gross weight, g', (o) => o.weighing?.grossG ?? null],
      ['tare_g', 'number', 'tare, g', (o) => o.weighing?.tareG ?? null],
      ['at', 'datetime', 'when it was taken', (o) => utc(o.at)],
      ['by', 'string', 'who', (o) => o.by],
      [
        'corrected',
        'integer',
        'how often it was corrected',
        (o) => o.earlier.filter((e) => e.value !== o.value).length,
      ],
      [
        'excluded',
        'string',
        'why it is left out of the findings',
        (o) => exclusionReason(state, o.unitId, o.traitId),
      ],
      ['entry_id', 'string!', 'log line', (o) => o.entryId],
      ['unit_id', 'string!', 'unit', (o) => o.unitId],
      ['trait_id', 'string!', 'trait', (o) => o.traitId],
    ],
    state.observations,
    {
      primary: 'entry_id',
      foreign: { unit_id: ['units', 'unit_id'], trait_id: ['traits', 'trait_id'] },
    },
  );
}
