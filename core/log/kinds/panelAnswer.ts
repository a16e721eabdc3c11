import { z } from 'zod';
import { utc } from '../../model/column';
import { PanelId } from '../../model/ids';
import { entryKind } from './kind';

const Code = z.string().min(1).max(8);

/** What a taster said of one cup, or of a set of cups. */
export const panelAnswer = entryKind({
  body: z.object({
    kind: z.literal('panelAnswer'),
    sessionId: PanelId,
    /** counted from 0, as the session lists them */
    taster: z.number().int().min(0).max(999),
    set: z.number().int().min(0).max(999),
    /** the cup it is about; null: the whole set */
    code: Code.nullable(),
    /** by attribute, as the session lists them; null: not scored */
    scores: z.array(z.number().nullable()).max(20),
    /** of a ranking: 1 is best, ties allowed */
    ranks: z.array(z.object({ code: Code, rank: z.number().min(1).max(100) })).max(24),
    /** the odd one, the one like the first, or the one preferred */
    chosen: Code.nullable(),
    words: z.array(z.string().trim().min(1).max(30)).max(30),
    remark: z.string().trim().max(500),
  }),
  label: 'Taster’s answer',
  right: 'plan',
  describe: (b) =>
    [
      `taster ${b.taster + 1}`,
      b.code && `cup ${b.code}`,
      b.scores.some((s) => s !== null) && b.scores.map((s) => s ?? '–').join(', '),
      b.chosen && `chose ${b.chosen}`,
      b.ranks.length > 0 &&
        [...b.ranks]
          .sort((x, y) => x.rank - y.rank)
          .map((r) => `${r.rank}. ${r.code}`)
          .join(' '),
      b.words.join(', '),
      b.remark,
    ]
      .filter(Boolean)
      .join(' · '),
  takeBack: { allowed: true },
  table: {
    name: 'panel_answers',
    title: 'What tasters said, by code',
    rows: ({ id, at, by, body }) => {
      const row = { id, at, by, body };
      if (body.ranks.length > 0)
        return body.ranks.map((r) => ({
          ...row,
          code: r.code,
          what: 'rank',
          value: r.rank as number | null,
        }));
      if (body.chosen !== null)
        return [{ ...row, code: body.chosen, what: 'chosen', value: 1 as number | null }];
      return (body.scores.length > 0 ? body.scores : [null]).map((score, i) => ({
        ...row,
        code: body.code ?? '',
        what: `score ${i + 1}`,
        value: score,
      }));
    },
    columns: [
      ['taster', 'integer!', 'taster, from 1', (r) => r.body.taster + 1],
      ['set', 'integer!', 'set, from 1', (r) => r.body.set + 1],
      ['code', 'string', 'code on the cup', (r) => r.code],
      ['what', 'string!', 'score of the n-th scale, rank, or chosen', (r) => r.what],
      ['value', 'number', 'score or rank; 1 for the one chosen', (r) => r.value],
      ['words', 'string', 'words ticked', (r) => r.body.words.join('; ')],
      ['remark', 'string', 'in the taster’s own words', (r) => r.body.remark],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who wrote it down', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
      ['session_id', 'string!', 'session', (r) => r.body.sessionId],
    ],
  },
});
