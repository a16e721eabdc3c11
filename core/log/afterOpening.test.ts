// After the codes of a blind trial are open nothing of its scores changes without a word, and both results are told.
import { describe, expect, it } from 'vitest';
import { findingOf } from '../account/findingInput';
import { besideFinding } from '../report/besideFinding';
import { entry, harvest, plan } from '../testing/trial';
import { afterOpening, askingReason, isReason, sayAfterOpening } from './afterOpening';
import { otherwiseIn } from './otherwise';
import { deriveState } from './state';

const p = { ...plan({ treatments: ['Water', 'A'], replicates: 4 }), blinding: 'scorer' as const };
const values = harvest({ Water: [10, 11, 12, 13], A: [20, 21, 22, 23] });
const reveal = { ...entry({ kind: 'reveal', reason: '' }, 'reveal'), counter: 1_000_000 };
const late = (body: object, id: string, n: number) => ({
  ...entry(body as never, id),
  counter: 1_000_000 + n,
});
const takenBack = (of: string, reason: string, n = 1) =>
  late({ kind: 'correction', supersedes: of, replacement: null, reason }, `back-${n}`, n);
const state = (...more: ReturnType<typeof late>[]) => deriveState(p, [...values, reveal, ...more]);

describe('the codes are open', () => {
  it('nothing was written since: nothing is said', () => {
    expect(afterOpening(state())).toBeNull();
    expect(otherwiseIn(state()).filter((o) => o.text.includes('opened'))).toEqual([]);
  });
  it('a value taken back is said with its reason, and the trial as it stood is whole', () => {
    const s = state(takenBack(values[4]!.id, 'the scale stood askew'));
    const found = afterOpening(s)!;
    expect(found.before.observations).toHaveLength(8);
    expect(s.observations).toHaveLength(7);
    expect(sayAfterOpening(found).map((x) => x.text)).toEqual([
      expect.stringMatching(
        /^After the codes were opened: weighed .*20.*, taken back: the scale stood askew$/,
      ),
    ]);
    expect(
      otherwiseIn(s)
        .map((o) => o.text)
        .join(),
    ).toContain('the scale stood askew');
  });
  it('both results stand in the record', () => {
    const s = state(...values.slice(0, 4).map((v, i) => takenBack(v.id, 'looked odd', i + 1)));
    const trait = p.traits[0]!;
    const finding = findingOf(s, trait);
    if (!finding.ok) throw new Error(finding.error.tag);
    const said = besideFinding(s, finding.value, (x) => x, '2026-04-01').map((b) =>
      'text' in b ? b.text : '',
    );
    expect(said.join(' ')).toContain('As it stood when the codes were opened: A beat Water');
  });
  it('values that came late are counted, and what is put right of them isn’t told twice', () => {
    const s = state(
      late({ ...values[0], kind: 'exclusion', reason: 'broken', traitId: null }, 'out', 1),
      { ...values[1]!, id: 'late' as never, counter: 1_000_002 },
      late({ kind: 'correction', supersedes: 'late', replacement: values[2], reason: '' }, 'again', 3),
    );
    const found = afterOpening(s)!;
    expect([found.added, found.changed.map((c) => c.reason)]).toEqual([1, ['broken']]);
  });
  it('what was taken back again neither adds nor leaves out', () => {
    const s = state(
      late({ ...values[0], kind: 'exclusion', reason: 'broken', traitId: null }, 'out', 1),
      { ...values[1]!, id: 'late' as never, counter: 1_000_002 },
      takenBack('out', 'not broken after all', 3),
      takenBack('late', 'twice', 4),
    );
    expect(afterOpening(s)).toMatchObject({ added: 0, changed: [] });
  });
  it('what was written before the opening is no matter, in whichever order it comes', () => {
    const before = { ...takenBack(values[4]!.id, ''), counter: 900_000 };
    expect(afterOpening(deriveState(p, [reveal, before, ...values]))).toBeNull();
  });
  it('an open trial has no opening', () => {
    expect(afterOpening(deriveState(plan({ treatments: ['Water', 'A'] }), [...values, reveal]))).toBeNull();
  });
});

it('a reason is asked of what decides the findings, through corrections too, and of nothing else', () => {
  const note = late({ kind: 'note', unitId: null, text: 'dry' }, 'note', 1);
  const once = takenBack(values[0]!.id, 'odd', 2);
  const asks = askingReason(state(note, once));
  expect([values[0]!, once, note].map((line) => asks(line as never))).toEqual([true, true, false]);
  expect(askingReason(deriveState(p, values))(values[0]!)).toBe(false);
  expect(['', ' taken back', 'entered again', 'dropped'].map(isReason)).toEqual([false, false, false, true]);
});
