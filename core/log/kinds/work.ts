import { z } from 'zod';
import { UnitId } from '../../model/ids';
import { utc } from '../../model/column';
import { entryKind } from './kind';

/** Minutes that a task took, for the units it was done to. */
export const work = entryKind({
  body: z.object({
    kind: z.literal('work'),
    task: z.string().trim().min(1, 'Say what was done.').max(200),
    minutes: z
      .number('Give the minutes as a number.')
      .positive('More than no time.')
      .max(1440, 'A day has 1,440 minutes.'),
    /** empty: all units of the trial */
    unitIds: z.array(UnitId).max(10_000),
  }),
  label: 'Work',
  right: 'mix',
  describe: (b, words) =>
    `${b.task}: ${b.minutes} min${b.unitIds.length === 0 ? '' : `, ${b.unitIds.map(words.unit).join(', ')}`}`,
  underCodes: (b) =>
    `${b.task}: ${b.minutes} min${b.unitIds.length === 0 ? '' : `, ${b.unitIds.length} of the units`}`,
  takeBack: { allowed: true },
  table: {
    name: 'work',
    title: 'Minutes of work, by task',
    rows: ({ id, at, by, body }, words) => [{ id, at, by, body, words }],
    columns: [
      ['task', 'string!', 'what was done', (r) => r.body.task],
      ['minutes', 'number!', 'minutes it took, for all its units together', (r) => r.body.minutes],
      [
        'units',
        'string',
        'codes of the units; empty for all',
        (r) => r.body.unitIds.map(r.words.unit).join(' '),
      ],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
    ],
  },
});
