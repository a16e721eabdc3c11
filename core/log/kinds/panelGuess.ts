import { z } from 'zod';
import { utc } from '../../model/column';
import { PanelId, TreatmentId } from '../../model/ids';
import { entryKind } from './kind';

const Code = z.string().min(1).max(8);

/** What a taster guesses before the reveal: which two are the same, which is which. */
export const panelGuess = entryKind({
  body: z.object({
    kind: z.literal('panelGuess'),
    sessionId: PanelId,
    taster: z.number().int().min(0).max(999),
    /** two cups thought to be the same; null: no guess */
    same: z.tuple([Code, Code]).nullable(),
    which: z.array(z.object({ code: Code, treatmentId: TreatmentId })).max(24),
  }),
  label: 'Taster’s guess',
  right: 'plan',
  describe: (b, words) =>
    [
      `taster ${b.taster + 1}`,
      b.same && `${b.same.join(' and ')} the same`,
      ...b.which.map((w) => `${w.code} is ${words.treatment(w.treatmentId)}`),
    ]
      .filter(Boolean)
      .join(' · '),
  takeBack: { allowed: true },
  table: {
    name: 'panel_guesses',
    title: 'What tasters guessed before the reveal',
    rows: ({ id, at, by, body }, words) => [
      ...(body.same ? [{ id, at, by, body, code: body.same[0], what: `same as ${body.same[1]}` }] : []),
      ...body.which.map((w) => ({ id, at, by, body, code: w.code, what: words.treatment(w.treatmentId) })),
    ],
    columns: [
      ['taster', 'integer!', 'taster, from 1', (r) => r.body.taster + 1],
      ['code', 'string!', 'code on the cup', (r) => r.code],
      ['guess', 'string!', 'contender, or the cup it is thought the same as', (r) => r.what],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who wrote it down', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
      ['session_id', 'string!', 'session', (r) => r.body.sessionId],
    ],
  },
});
