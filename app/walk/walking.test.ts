import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import type { UnitId } from '~core/model/ids';
import type { Drafts } from './capture';
import type { WalkStep } from './stops';
import { type Move, type Walking, notKept, readPutBy, setOut, storePutBy, walking } from './walking';

class Memory implements Storage {
  private readonly held = new Map<string, string>();
  full = false;
  get length() {
    return this.held.size;
  }
  clear = () => this.held.clear();
  key = (i: number) => [...this.held.keys()][i] ?? null;
  getItem = (k: string) => this.held.get(k) ?? null;
  removeItem = (k: string) => void this.held.delete(k);
  setItem = (k: string, v: string) => {
    if (this.full) throw new DOMException('full', 'QuotaExceededError');
    this.held.set(k, v);
  };
}

interface Draft {
  text: string;
  words: string;
}
const pad: Drafts<Draft> = {
  schema: z.object({ text: z.string(), words: z.string() }),
  blank: { text: '', words: '' },
  isBlank: ({ text, words }) => text === '' && words.trim() === '',
  textOf: ({ text }) => text,
  resumes: false,
};
const fields: Drafts<Draft> = { ...pad, resumes: true };
const at = (unit: string, sample: number | null = null): WalkStep => ({ unitId: unit as UnitId, sample });
const going = (drafts: Drafts<Draft>, ...moves: Move<Draft>[]) =>
  moves.reduce<Walking<Draft>>((w, m) => walking(w, m, drafts), setOut(drafts, 'u1' as UnitId, []));
const listed = (w: Walking<Draft>) => w.putBy.map((p) => `${p.unitId}/${p.sample}: ${p.draft.text}`);

describe('what is typed at a stop that is left', () => {
  it('is put by for its unit and sample, the newest in place of an older one', () => {
    const w = going(
      pad,
      { put: { text: '12' } },
      { leave: at('u1'), go: 'u2' as UnitId },
      { put: { text: '9' } },
      { leave: at('u2', 2), go: 'u2' as UnitId, sample: 1 },
      { put: { text: '8' } },
      { leave: at('u2', 1), go: 'u1' as UnitId },
      { put: { text: '12.5' } },
      { leave: at('u1'), go: 'u3' as UnitId },
    );
    expect(listed(w)).toEqual(['u2/2: 9', 'u2/1: 8', 'u1/null: 12.5']);
    expect(w).toMatchObject({ unitId: 'u3', draft: pad.blank });
    const up = walking(w, { leave: at('u3'), takeUp: w.putBy[0]! }, pad);
    expect(up).toMatchObject({ unitId: 'u2', sample: 2, draft: { text: '9' } });
    expect(listed(up)).toEqual(['u2/1: 8', 'u1/null: 12.5']);
    expect(listed(walking(up, { drop: at('u1') }, pad))).toEqual(['u2/1: 8']);
  });
  it('stands in the fields again when the unit is gone to; a pad begins empty', () => {
    const moves: Move<Draft>[] = [
      { put: { text: '12' } },
      { leave: at('u1'), go: 'u2' as UnitId },
      { leave: at('u2'), go: 'u1' as UnitId },
    ];
    expect(going(fields, ...moves)).toMatchObject({ draft: { text: '12' }, putBy: [] });
    expect(going(pad, ...moves)).toMatchObject({ draft: { text: '' }, asking: { text: '' } });
  });
  it('taken up where something else is typed, the two change places', () => {
    const w = going(
      pad,
      { put: { text: '12' } },
      { leave: at('u1'), go: 'u2' as UnitId },
      { leave: at('u2'), go: 'u1' as UnitId },
      { put: { text: '13' } },
    );
    const swapped = walking(w, { leave: at('u1'), takeUp: w.putBy[0]! }, pad);
    expect([swapped.draft.text, listed(swapped)]).toEqual(['12', ['u1/null: 13']]);
  });
  it('what was sent is in hand no more; what the log refused is put by beside what is typed since', () => {
    const sent = { ...at('u1'), draft: { text: '12', words: '' } };
    const w = going(
      pad,
      { put: { text: '12' } },
      { sent: at('u1') },
      { leave: at('u1'), go: 'u2' as UnitId },
      { put: { text: '7' } },
      { refused: sent },
    );
    expect(listed(w)).toEqual(['u1/null: 12']);
    expect(w).toMatchObject({ unitId: 'u2', draft: { text: '7' } });
    expect(notKept(w, pad, at('u2')).map((p) => p.draft.text)).toEqual(['12', '7']);
    expect(notKept(walking(w, { sent: at('u2') }, pad), pad, at('u2'))).toHaveLength(1);
  });
  it('whatever is done, each value is in hand, put by or sent: none is gone', () => {
    const units = ['u1', 'u2', 'u3'] as UnitId[];
    const act = fc.tuple(
      fc.constantFrom('type', 'go', 'send', 'refuse', 'takeUp'),
      fc.constantFrom(...units),
    );
    fc.assert(
      fc.property(fc.array(act, { maxLength: 30 }), fc.boolean(), (acts, resumes) => {
        const drafts = { ...pad, resumes };
        let w = setOut<Draft>(drafts, units[0], []);
        /** the newest value typed for a unit, until the log has it */
        const open = new Map<string, string>();
        let sent: { unitId: UnitId; text: string }[] = [];
        let n = 0;
        for (const [what, to] of acts) {
          const here = at(w.unitId!);
          if (what === 'type') {
            w = walking(w, { put: { text: String((n += 1)) } }, drafts);
            open.set(here.unitId, String(n));
          } else if (what === 'go') w = walking(w, { leave: here, go: to, sample: null }, drafts);
          else if (what === 'send' && w.draft.text !== '') {
            sent.push({ unitId: here.unitId, text: w.draft.text });
            open.delete(here.unitId);
            w = walking(w, { sent: here }, drafts);
          } else if (what === 'refuse' && sent[0] && !open.has(sent[0].unitId)) {
            const { unitId, text } = sent[0];
            sent = sent.slice(1);
            open.set(unitId, text);
            w = walking(w, { refused: { ...at(unitId), draft: { text, words: '' } } }, drafts);
          } else if (what === 'takeUp' && w.putBy[0]) {
            // Of two typed for one unit the one chosen counts.
            open.set(w.putBy[0].unitId, w.putBy[0].draft.text);
            w = walking(w, { leave: here, takeUp: w.putBy[0] }, drafts);
          }
        }
        const kept = notKept(w, drafts, at(w.unitId!));
        expect(Object.fromEntries(kept.map((p) => [p.unitId, p.draft.text]))).toEqual(
          Object.fromEntries(open),
        );
      }),
    );
  });
});

describe('what was put by', () => {
  const one = { ...at('u1'), draft: { text: '12', words: '' } };
  it('lasts as long as the tab, each walk on its own; nothing is left behind when all was taken', () => {
    const storage = new Memory();
    storePutBy('t/r1', [one], storage);
    expect(readPutBy('t/r1', pad, storage)).toEqual([one]);
    expect(readPutBy('t/r2', pad, storage)).toEqual([]);
    storePutBy('t/r1', [], storage);
    expect(storage.length).toBe(0);
  });
  it('a full storage is no fault, and what isn’t its own is taken for nothing', () => {
    const storage = new Memory();
    storage.full = true;
    expect(() => storePutBy('t', [one], storage)).not.toThrow();
    storage.full = false;
    for (const text of [
      '{',
      '[{"unitId":5}]',
      'null',
      '[{"unitId":"u1","sample":null,"draft":{"text":5}}]',
    ]) {
      storage.setItem('palazzo/left/t', text);
      expect(readPutBy('t', pad, storage)).toEqual([]);
    }
  });
});
