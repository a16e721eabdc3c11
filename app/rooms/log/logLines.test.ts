import { describe, expect, it } from 'vitest';
import { logRows } from './logLines';

const line = (id: number, more: object = {}) => ({
  ...{ id: `l${id}`, at: `2026-03-0${1 + Math.floor(id / 10)}T10:0${id % 10}:00.000Z` },
  ...{ day: `2026-03-0${1 + Math.floor(id / 10)}`, sitting: 'Harvest' as string | null },
  ...{ by: 'Loggia', what: 'Weighed', text: String(id), remark: '', standing: true },
  ...{ asksReason: false, canTakeBack: true },
  ...more,
});
/** newest first, as the log is read */
const log = (...ids: number[]) => ids.sort((a, b) => b - a).map((id) => line(id));
const none = new Set<string>();
const kinds = (rows: { kind: string }[]) => rows.map((r) => r.kind).join(' ');

describe('rows of the log', () => {
  it('says a sitting of many lines in one, with its first and last time, and opens it', () => {
    const lines = log(1, 2, 3, 4, 5);
    const [day, many] = logRows(lines, none);
    expect(day).toMatchObject({ kind: 'day', day: '2026-03-01' });
    expect(many).toMatchObject({ what: 'weighed' });
    expect(many).toMatchObject({ kind: 'many', count: 5, from: lines[4]!.at, to: lines[0]!.at, id: 'l1' });
    expect(kinds(logRows(lines, new Set(['l1'])))).toBe('day many line line line line line');
  });

  it('joins what is weighed and measured by turns', () => {
    const lines = log(1, 2, 3, 4).map((l, i) => ({ ...l, what: i % 2 ? 'Measured' : 'Weighed' }));
    expect(logRows(lines, none)[1]).toMatchObject({ kind: 'many', what: 'measured, weighed', count: 4 });
  });

  it('keeps three lines, other days, other people and what has no sitting apart', () => {
    expect(kinds(logRows(log(1, 2, 3), none))).toBe('day line line line');
    expect(kinds(logRows(log(7, 8, 9, 10, 11, 12), none))).toBe('day line line line day line line line');
    expect(
      kinds(
        logRows(
          [5, 4, 3, 2].map((i) => line(i, { by: i === 3 ? 'Corte' : 'Loggia' })),
          none,
        ),
      ),
    ).toBe('day line line line line');
    expect(
      kinds(
        logRows(
          [5, 4, 3, 2].map((i) => line(i, { sitting: null })),
          none,
        ),
      ),
    ).toBe('day line line line line');
  });

  it('loses no line and no order, whatever is open', () => {
    const lines = log(1, 2, 3, 4, 5, 6, 11, 12, 13, 14, 15).map((l, i) =>
      i === 3 ? { ...l, sitting: null } : l,
    );
    const all = new Set(lines.map((l) => l.id));
    expect(logRows(lines, all).flatMap((r) => (r.kind === 'line' ? [r.line] : []))).toEqual(lines);
  });
});
