import { z } from 'zod';
import { utc } from '../../model/column';
import { PanelSession, panelKinds } from '../../model/panel';
import { entryKind } from './kind';

/** A tasting or look session as it was started: who gets which codes in which order. What is in them isn't in it. */
export const panel = entryKind({
  body: z.object({ kind: z.literal('panel'), session: PanelSession }),
  label: 'Panel started',
  right: 'plan',
  describe: ({ session: s }) =>
    `${s.name}: ${panelKinds[s.kind]}, ${s.tasters.length} ${s.tasters.length === 1 ? 'taster' : 'tasters'}`,
  takeBack: {
    allowed: true,
    // Answers mean nothing without the session they answer.
    with: (b, all) =>
      all
        .filter(
          ({ body }) =>
            (body.kind === 'panelAnswer' || body.kind === 'panelGuess') &&
            'sessionId' in body &&
            body.sessionId === b.session.id,
        )
        .map((l) => l.id),
  },
  table: {
    name: 'panel_servings',
    title: 'What each taster gets, in the order it is served',
    rows: ({ id, at, by, body: { session } }) =>
      session.tasters.flatMap((t) =>
        t.sets.flatMap((set, s) =>
          set.cups.map((code, c) => ({
            id,
            at,
            by,
            session,
            taster: t.name,
            set: s + 1,
            place: c + 1,
            code,
          })),
        ),
      ),
    columns: [
      ['session', 'string!', 'name of the session', (r) => r.session.name],
      ['kind', 'string!', 'how it asks', (r) => r.session.kind],
      ['taster', 'string!', 'taster', (r) => r.taster],
      ['set', 'integer!', 'which set, from 1', (r) => r.set],
      ['place', 'integer!', 'place in the set, from 1', (r) => r.place],
      ['code', 'string!', 'code on the cup', (r) => r.code],
      [
        'commitment',
        'string!',
        'SHA-256 of the key that says what is in the cups',
        (r) => r.session.commitment,
      ],
      ['at', 'datetime', 'when it was started', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
      ['session_id', 'string!', 'session', (r) => r.session.id],
    ],
  },
});
