import { type FindingRow, findingRows } from '../account/findingRows';
import { trialFindings } from '../account/trialFindings';
import type { Trial } from '../log/trial';
import type { TrialId } from '../model/ids';
import { type TableTrialMeta, trialOfTable } from './asTrial';
import type { Understood } from './understood';

/** The trial a table is looked at as while nobody keeps it. */
export const passing: TableTrialMeta = {
  ...{ id: 'table' as TrialId, question: 'What does the table say?', code: 'TAB', crop: '' },
  ...{ startDate: '2000-01-03', unitNoun: 'unit', currency: 'EUR' },
};

/** What got its product on its own, as the table can't say: each unit, or all of a product together. */
export type OnItsOwn = 'unit' | 'shared';

/**
 * The trials a table tells of: one, or one for each crop.
 * @param onItsOwn several in one tank are samples of one unit
 */
export function trialsOfTable(
  understood: Understood,
  onItsOwn: OnItsOwn = 'unit',
  meta: TableTrialMeta = passing,
): { crop: string | null; trial: Trial }[] {
  const readings =
    onItsOwn === 'unit'
      ? understood.readings
      : understood.readings.map((r) => ({
          ...{ ...r, unit: 'the shared one', block: null, column: null, sample: null },
        }));
  const crops = [...new Set(readings.flatMap((r) => (r.crop === null ? [] : [r.crop])))];
  const groups: (string | null)[] = crops.length > 1 ? crops : [null];
  return groups.map((crop) => ({
    crop,
    trial: trialOfTable(
      understood,
      readings.filter((r) => crop === null || r.crop === crop),
      { ...meta, crop: crop ?? crops[0] ?? meta.crop },
    ),
  }));
}

/**
 * What a table finds, by the same rules as a trial's Findings: each trait as a whole and day by day, crop by crop.
 * @example findingsOfTable(understood)[0]!.method // 'linear'
 */
export const findingsOfTable = (understood: Understood): FindingRow[] =>
  trialsOfTable(understood).flatMap(({ crop, trial }) => {
    const rows = findingRows(trialFindings(trial));
    // One day alone is the trait's own summary: it isn't said twice.
    return rows.filter((r) => r.round === null || trial.plan.rounds.length > 1).map((r) => ({ ...r, crop }));
  });
