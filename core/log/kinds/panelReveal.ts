import { z } from 'zod';
import { utc } from '../../model/column';
import { PanelKey } from '../../model/panel';
import { entryKind } from './kind';

/** What was in the cups of a session, told after everything was answered. It can't be untold. */
export const panelReveal = entryKind({
  body: z.object({ kind: z.literal('panelReveal'), key: PanelKey }),
  label: 'Cups revealed',
  right: 'all',
  describe: (b) => `what was in ${b.key.cups.length} cups`,
  takeBack: { allowed: false },
  table: {
    name: 'panel_cups',
    title: 'What was in which cup',
    rows: ({ id, at, by, body: { key } }, words) =>
      key.cups.map((cup) => ({ id, at, by, key, cup, sample: key.samples[cup.sample], words })),
    columns: [
      ['code', 'string!', 'code on the cup', (r) => r.cup.code],
      ['sample', 'integer!', 'sample, from 1', (r) => r.cup.sample + 1],
      ['treatment', 'string!', 'contender', (r) => r.words.treatment(r.sample?.treatmentId ?? null)],
      ['units', 'string', 'units it came from', (r) => r.sample?.unitIds.map(r.words.unit).join(' ') ?? ''],
      ['at', 'datetime', 'when it was revealed', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
      ['session_id', 'string!', 'session', (r) => r.key.sessionId],
    ],
  },
});
