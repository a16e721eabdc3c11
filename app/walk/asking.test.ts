import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Asking, entered, nothingAsked, questionOf, typedOver } from './asking';

/** A pad on a walk of units: figures, then Enter; what was kept where. */
function walked(doubtful: (unit: number, text: string) => boolean) {
  let at: Asking = nothingAsked;
  let unit = 0;
  const kept: { unit: number; text: string }[] = [];
  const question = () => questionOf(at, doubtful(unit, at.text) ? 'Odd.' : null, `unit ${unit}`);
  return {
    kept,
    pad: () => ({ ...at, unit }),
    type: (text: string) => (at = typedOver(at, text)),
    correct: (text: string) => (at = typedOver(at, text, true)),
    enter: () => {
      const { keep, next } = entered(at, question());
      if (keep) kept.push({ unit: unit++, text: at.text });
      at = next;
    },
  };
}

describe('an Enter is for one unit', () => {
  it('3 3 4 5 2 typed without looking, the first questioned: nothing goes to a wrong unit', () => {
    const w = walked((unit) => unit === 0);
    for (const text of ['3', '3', '4', '5', '2']) {
      w.type('');
      w.type(text);
      w.enter();
    }
    expect(w.kept).toEqual([]);
    expect(w.pad()).toMatchObject({ text: '2', unit: 0 });
    expect(w.pad().asked).toMatch(/^“3” was asked about and isn’t kept: is “2” for unit 0\?/);
  });
  it('a second Enter on what is untouched keeps it', () => {
    const w = walked((_, text) => text === '30');
    w.type('30');
    w.enter();
    expect(w.kept).toEqual([]);
    w.enter();
    expect(w.kept).toEqual([{ unit: 0, text: '30' }]);
  });
  it('put right by taking a figure off it is the same value, and isn’t asked about', () => {
    const w = walked((_, text) => text === '30');
    w.type('30');
    w.enter();
    w.correct('3');
    w.enter();
    expect(w.kept).toEqual([{ unit: 0, text: '3' }]);
  });
  it('whatever is doubted, value n goes to unit n or isn’t kept', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 99 }), { minLength: 1, maxLength: 20 }),
        fc.array(fc.boolean(), { minLength: 20, maxLength: 20 }),
        (values, odd) => {
          // Somebody who types ahead and never looks at a question.
          const w = walked((unit, text) => odd[(unit * 7 + Number(text)) % 20]!);
          for (const v of values) {
            w.type('');
            for (let i = 1; i <= String(v).length; i++) w.type(String(v).slice(0, i));
            w.enter();
          }
          for (const [n, k] of w.kept.entries()) expect([k.unit, k.text]).toEqual([n, String(values[n])]);
        },
      ),
    );
  });
});
