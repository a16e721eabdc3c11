import { type FindingRow, findingRows } from '../account/findingRows';
import { trialFindings } from '../account/trialFindings';
import type { TrialId } from '../model/ids';
import { trialOfTable } from './asTrial';
import type { Understood } from './understood';

/** The trial a table is looked at as while nobody keeps it. */
export const passing = {
  ...{ id: 'table' as TrialId, question: 'What does the table say?', code: 'TAB', crop: '' },
  ...{ startDate: '2000-01-03', unitNoun: 'unit' },
};

/**
 * What a table finds, by the same rules as a trial's Findings: each trait as a whole and day by day, crop by crop.
 * @example findingsOfTable(understood)[0]!.method // 'linear'
 */
export function findingsOfTable(understood: Understood): FindingRow[] {
  const crops = [...new Set(understood.readings.flatMap((r) => (r.crop === null ? [] : [r.crop])))];
  const groups: (string | null)[] = crops.length > 1 ? crops : [null];
  return groups.flatMap((crop) => {
    const own = understood.readings.filter((r) => crop === null || r.crop === crop);
    const rows = findingRows(trialFindings(trialOfTable(understood, own, passing)));
    const rounds = new Set(rows.map((r) => r.round).filter((r) => r !== null)).size;
    // One day alone is the trait's own summary: it isn't said twice.
    return rows.filter((r) => r.round === null || rounds > 1).map((r) => ({ ...r, crop }));
  });
}
