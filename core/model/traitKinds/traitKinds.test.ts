import { describe, expect, it } from 'vitest';
import { trait } from '../../testing/trial';
import { type TraitKind, kindOf, traitKinds } from '.';

describe('what the pad takes', () => {
  const score = trait({
    kind: 'score',
    scale: [
      { value: 1, text: 'bad' },
      { value: 5, text: 'good' },
    ],
  });
  it.each([
    [trait({ kind: 'count' }), 2.5, /whole/],
    [trait({ kind: 'count' }), 2, null],
    [trait({ kind: 'time' }), 2.5, /whole/],
    [trait({ kind: 'ratio', outOf: 5 }), 6, /only 5/],
    [trait({ kind: 'ratio', outOf: 5 }), 5, null],
    [score, 6, /from 1 to 5/],
    [score, 3.25, /halves/],
    [score, 3.5, null],
    [trait({ kind: 'score' }), 44, null],
    [trait({ kind: 'yesno' }), 2, /1 for yes/],
    [trait(), 3.14, null],
  ])('%#', (t, value, said) => {
    const fault = kindOf(t).fault(value, t);
    if (said === null) expect(fault).toBeNull();
    else expect(fault).toMatch(said);
  });
  it('offers the steps, best first, or yes and no', () => {
    expect(
      kindOf(score)
        .choices(score)
        .map((c) => c.value),
    ).toEqual([5, 4, 3, 2, 1]);
    // Only the ends are described: the steps between can be tapped all the same; a hundred of them can't.
    const tens = trait({
      kind: 'score',
      scale: [
        { value: 1, text: 'worst' },
        { value: 10, text: 'best' },
      ],
    });
    expect(kindOf(tens).choices(tens)).toHaveLength(10);
    expect(kindOf(tens).choices(tens)[0]).toEqual({ value: 10, text: 'best' });
    const hundred = { ...tens, scale: [...tens.scale, { value: 100, text: '' }] };
    expect(kindOf(tens).choices(hundred)).toHaveLength(3);
    expect(traitKinds.yesno.choices(trait()).map((c) => c.text)).toEqual(['yes', 'no']);
    expect(kindOf(trait()).choices(trait())).toEqual([]);
  });
});

it('every kind observes what it says it does, and a simulated value is one it would take', () => {
  for (const [name, kind] of Object.entries(traitKinds)) {
    const t = trait({
      kind: name as TraitKind,
      outOf: 5,
      decimals: 1,
      scale: [
        { value: 1, text: '' },
        { value: 5, text: '' },
      ],
    });
    const value = kind.takenAs(3.26, t);
    expect(kind.observed({ value, outOf: null, notYet: false }, t).type).toBe(kind.observes);
    expect(kind.fault(value, t)).toBeNull();
  }
});
