import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Finding } from '../account/finding';
import { findingOf } from '../account/findingInput';
import { deriveState } from '../log/state';
import { harvest, plan, trait } from '../testing/trial';
import { findingPicture, kindOfPicture, shadeOf, stacked } from './findingPicture';
import { type Mark, usualRoom } from './marks';
import { paper } from './paper';
import { svgOf } from './shapes';

const names = ['Water', 'A', 'B'];
const p = {
  ...plan({ treatments: names, replicates: 5 }),
  smallestDifference: { kind: 'percent' as const, value: 4 },
};
const lanes = p.treatments.map((t, index) => ({ id: t.id, name: t.name, index }));

const of = (values: Record<string, number[]>): Finding => {
  const made = findingOf(deriveState(p, harvest(values)), p.traits[0]!);
  if (!made.ok) throw new Error(made.error.tag);
  return made.value;
};
const drawn = (finding: Finding, unmarked = false, room = usualRoom) =>
  findingPicture({ finding, lanes, per: 'tray', unitNoun: 'tray', unmarked }, room);
const only = <K extends Mark['mark']>(marks: readonly Mark[], kind: K) =>
  marks.filter((m): m is Extract<Mark, { mark: K }> => m.mark === kind);
const nameRows = (marks: readonly Mark[]) =>
  only(marks, 'text')
    .filter((m) => names.includes(m.text))
    .map((m) => [m.at[1] - 16, m.at[1] + 5] as const);

const some = fc.array(fc.double({ min: 10, max: 90, noNaN: true }), { minLength: 5, maxLength: 5 });

describe('a finding in tiles', () => {
  it('no line, shade or tile stands in the row of a name, whatever the values and the width', () => {
    fc.assert(
      fc.property(some, some, some, fc.constantFrom(300, 480, 640), (Water, A, B, width) => {
        const { marks } = drawn(of({ Water, A, B }), false, { width, narrow: width < 520 });
        const rows = nameRows(marks);
        expect(rows).toHaveLength(3);
        const spans = marks.flatMap((m): (readonly [number, number])[] => {
          if (m.mark === 'line') return [[Math.min(m.from[1], m.to[1]), Math.max(m.from[1], m.to[1])]];
          if (m.mark === 'rect') return [[m.at[1], m.at[1] + m.height]];
          if (m.mark === 'tile') return [[m.at[1] - 7, m.at[1] + 7]];
          return [];
        });
        for (const [from, to] of rows)
          for (const [low, high] of spans) expect(high <= from || low >= to).toBe(true);
      }),
      { numRuns: 60 },
    );
  });
  it('every unit is one tile, at its value, none over another', () => {
    const finding = of({ Water: [50, 50, 50, 51, 52], A: [70, 71, 72, 72, 72], B: [60, 61, 62, 63, 64] });
    const { marks } = drawn(finding);
    const tiles = only(marks, 'tile');
    expect(tiles).toHaveLength(15);
    for (const [i, a] of tiles.entries())
      for (const b of tiles.slice(i + 1))
        expect(Math.abs(a.at[0] - b.at[0]) >= 14 || Math.abs(a.at[1] - b.at[1]) >= 14).toBe(true);
    // The axis is linear: what lies 22 apart is drawn 22 / 2 as far as what lies 2 apart.
    const x = (said: string) => tiles.find((t) => t.said?.includes(said))!.at[0];
    expect((x(': 72 ') - x(': 50 ')) / (x(': 52 ') - x(': 50 '))).toBeCloseTo(11, 6);
  });
  it('the control’s line and the shade of what is too small to matter are drawn, and aren’t for whoever may not know', () => {
    const finding = of({ Water: [50, 51, 52, 53, 54], A: [70, 71, 72, 73, 74], B: [60, 61, 62, 63, 64] });
    const dashed = (marks: readonly Mark[]) => only(marks, 'line').filter((l) => l.dashed);
    const open = drawn(finding).marks;
    expect(dashed(open)).toHaveLength(3);
    expect(only(open, 'rect').filter((r) => r.fill === 'sunk')).toHaveLength(3);
    expect(shadeOf({ finding, unmarked: false })).toEqual({
      what: 'small',
      low: 52 - 0.04 * 52,
      high: 52 + 0.04 * 52,
    });
    const closed = drawn(finding, true).marks;
    expect(dashed(closed)).toHaveLength(0);
    expect(only(closed, 'rect')).toHaveLength(0);
  });
  it('as a file it holds names as text, and no figure that is none', () => {
    const finding = of({ Water: [1, 1, 1, 1, 1], A: [1, 1, 1, 1, 1], B: [1, 1, 1, 1, 1] });
    const svg = svgOf(
      findingPicture({
        ...{ finding, per: 'tray', unitNoun: 'tray', unmarked: false },
        lanes: lanes.map((l) => ({ ...l, name: `<${l.name} & "Co">` })),
      }),
      paper,
    );
    expect(svg).not.toMatch(/NaN|Infinity|undefined/);
    expect(svg).toContain('&#60;A &#38; &#34;Co&#34;&#62;');
    expect(svg).not.toContain('<A ');
    for (const [, attribute] of svg.matchAll(/ ([a-zA-Z-]+)="/g))
      expect(attribute).toMatch(/^([a-z-]+|viewBox|preserveAspectRatio)$/);
  });
});

it('values within a tile’s width are stacked, each on a level of its own', () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: 0, max: 10, noNaN: true }), { maxLength: 25 }), (values) => {
      const placed = stacked(values.map((value) => ({ value })), 1); // prettier-ignore
      expect(placed).toHaveLength(values.length);
      for (const [i, a] of placed.entries())
        for (const b of placed.slice(i + 1))
          expect(a.level !== b.level || Math.abs(a.unit.value - b.unit.value) >= 1).toBe(true);
    }),
  );
});

describe('other kinds of value', () => {
  const counted = (k: number, n: number, i: number, treatmentId: string) => ({
    ...{ unitId: `${treatmentId}-${i}`, code: `U${i}`, treatmentId, value: (100 * k) / n, counted: { k, n } },
  });
  const base = of({ Water: [1, 2, 3, 4, 5], A: [1, 2, 3, 4, 5], B: [1, 2, 3, 4, 5] });
  const shares: Finding = {
    ...base,
    trait: trait({ unit: '%' }),
    analysis: { ...base.analysis, method: 'proportions' },
    units: ['Water', 'A', 'B'].flatMap((t, j) => [counted(j + 1, 8, 1, t), counted(40, 50, 2, t)]),
  };
  it('k of n: as many dots as there were, as many filled as did, and figures where dots would be too small', () => {
    expect(kindOfPicture(shares)).toBe('dots');
    const { marks } = drawn(shares);
    const dots = only(marks, 'dot');
    expect(dots).toHaveLength(3 * 8);
    expect(dots.filter((d) => d.fill !== 'sheet')).toHaveLength(1 + 2 + 3);
    expect(only(marks, 'text').filter((m) => m.text === '40/50')).toHaveLength(3);
  });
  it('days until: a line for each contender, a stroke for each unit it hadn’t happened to', () => {
    const times: Finding = {
      ...base,
      analysis: { ...base.analysis, method: 'times' },
      units: base.units.map((u, i) => ({ ...u, seen: { day: 3 + (i % 5), happened: i % 5 < 4 } })),
    };
    expect(kindOfPicture(times)).toBe('steps');
    const { marks } = drawn(times);
    expect(only(marks, 'path')).toHaveLength(3);
    expect(marks.filter((m) => m.mark === 'line' && m.width === 1.5)).toHaveLength(3);
    const narrow = drawn(times, false, { width: 320, narrow: true });
    for (const m of narrow.marks) if (m.mark === 'text') expect(m.at[0]).toBeLessThan(320);
    expect(narrow.height).toBeGreaterThan(360);
  });
});
