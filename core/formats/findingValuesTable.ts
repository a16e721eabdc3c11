import { type ValueRow, findingValues } from './rScript/findingValues';
import type { NamedInput } from '../account/trialFindings';
import { type DataTable, table } from './dataTable';

/** What each unit goes into each finding with: the table the script in the zip reads. */
export function findingValuesTable({
  inputs,
  nameOf,
}: {
  inputs: readonly NamedInput[];
  nameOf: (id: string) => string;
}): DataTable {
  return table<ValueRow>(
    'finding_values',
    'What each unit goes into each finding with; a view of the observations',
    [
      ['finding', 'integer!', 'number of the finding in findings.R', (r) => r.finding],
      ['trait', 'string', 'trait', (r) => r.trait],
      ['round', 'string', 'round; empty: the trait’s own summary over its rounds', (r) => r.round],
      ['crop', 'string', 'crop within the unit; empty: all', (r) => r.crop],
      ['unit', 'string', 'code of the unit', (r) => r.unit],
      ['contender', 'string', 'what it got; a code while the trial is blind', (r) => r.contender],
      ['arm', 'integer', 'place of the contender in the plan, from 1', (r) => r.arm],
      ['block', 'string', 'block; empty where blocks don’t count', (r) => r.block],
      ['column', 'string', 'column of a Latin square', (r) => r.column],
      ['value', 'number', 'what is compared where figures are; outside a wanted band', (r) => r.value],
      ['k', 'integer', 'of k of n', (r) => r.k],
      ['n', 'integer', 'of k of n', (r) => r.n],
      ['time', 'number', 'day it was seen to have happened, or of the last look', (r) => r.day],
      ['happened', 'integer', '1: it had happened; 0: not yet', (r) => r.happened],
      ['count', 'number', 'count', (r) => r.count],
      ['exposure', 'number', 'what the count is of: plants, m² …', (r) => r.exposure],
    ],
    findingValues(inputs, nameOf),
  );
}
