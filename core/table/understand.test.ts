import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { findingsOfTable, trialsOfTable } from './findingsOfTable';
import { figureIn, gridOf } from './sheet';
import { datesOf, dayNamed, splitUnit } from './headings';
import { understand } from './understand';
import type { Named, Understood } from './understood';

function read(text: string, named: Named = {}): Understood {
  const made = understand(gridOf(text), named);
  if (!made.ok) throw new Error(made.error.text);
  return made.value;
}
const fault = (text: string, named: Named = {}): string => {
  const made = understand(gridOf(text), named);
  return made.ok ? 'understood' : made.error.text;
};
const roles = (u: Understood) => u.columns.map((c) => `${c.name}:${c.role}`);

const untidy = `Feeds on the shelf;;
;;
Feed;Yield (g);Tray
Water;12,5;1
Water;13,1;2
A;15,2;1
A;1.216,0;2

A;;3
Feed;Yield (g);Tray
Mean;13,5;`;

describe('a long table', () => {
  const u = read(untidy);
  it('finds heading, decimals, unit and control', () => {
    expect(u).toMatchObject({ shape: 'long', decimal: ',', rows: 5, control: 'Water' });
    expect(u.columns).toEqual([
      { name: 'Feed', role: 'treatment' },
      { name: 'Yield', role: 'response', kind: 'number', unit: 'g' },
      { name: 'Tray', role: 'unit' },
    ]);
    expect(u.readings.map((r) => r.value)).toEqual([12.5, 13.1, 15.2, 1216, null]);
  });
  it('leaves what isn’t data, with its reason, as a spreadsheet counts', () => {
    expect(u.left).toEqual([
      { row: 1, why: 'above the heading' },
      { row: 2, why: 'an empty line' },
      { row: 8, why: 'an empty line' },
      { row: 10, why: 'the heading again' },
      { row: 11, why: 'a line of sums or means' },
    ]);
  });
  it('a title with as many words as the table has columns is no heading; units may stand in a line of their own', () => {
    const titled = read('Basil, level 2, spring\nFeed,Pot,Yield,Height\n,,(g),(cm)\nwater,1,41.2,18\nwater,2,38.9,17\nUno,3,47.5,22\nUno,4,49,21\nSum,,176.6,'); // prettier-ignore
    expect(roles(titled)).toEqual(['Feed:treatment', 'Pot:unit', 'Yield:response', 'Height:response']);
    expect(titled.left.map((l) => l.row)).toEqual([1, 3, 8]);
    expect(titled.rows).toBe(4);
  });
  it('says what it can’t tell, and what to name', () => {
    expect(fault('wool,tension,breaks\nA,L,26\nA,M,30\nB,L,54\nB,M,25\nA,L,3\nB,M,2\nA,M,1\nB,L,4')).toBe(
      'Which column is the treatment? It may be wool or tension: name it (--treatment).',
    );
    expect(fault('feed,yield\nA,1\nA,2', { treatment: 'feed' })).toContain('Only one treatment, “A”');
    expect(fault('just words')).toContain('No heading');
    expect(fault('feed,yield\nA,1\nB,x\nB,2\nA,2\nA,1\nB,3')).toBe(
      'Row 3, column “yield”: “x” isn’t a number.',
    );
    expect(fault('feed,yield\nA,1\n,3\nB,2')).toBe('Row 3, column “feed”: is empty.');
    expect(fault('feed,yield\nA,1\nB,2', { treatment: 'what' })).toBe(
      'There is no column “what”; there are feed, yield.',
    );
    expect(fault('feed,yield\nA,1\nB,2', { control: 'C' })).toBe(
      'The control “C” isn’t among the treatments: A, B.',
    );
  });
  it('what is named overrules what was found', () => {
    const text = 'wool,tension,breaks\nA,L,26\nA,M,30\nB,L,54\nB,M,25\nA,L,3\nB,M,2\nA,M,1\nB,L,4';
    const u = read(text, { treatment: 'tension', control: 'M' });
    expect(roles(u)).toEqual(['wool:ignored', 'tension:treatment', 'breaks:response']);
    expect(u).toMatchObject({ control: 'M', treatments: ['M', 'L'] });
  });
  it('several lines of a unit are its samples: units are compared, not lines', () => {
    const once = 'feed,pot,height cm\nWater,1,10\nWater,2,12\nA,1,15\nA,2,19';
    const twice =
      'feed,pot,height cm\nWater,1,9\nWater,1,11\nWater,2,12\nWater,2,12\nA,1,14\nA,1,16\nA,2,19\nA,2,19';
    expect(findingsOfTable(read(twice))).toEqual(findingsOfTable(read(once)));
  });
  it('k of n stands in two columns or in one', () => {
    const two = read('feed,germinated,sown\nwater,12,20\nwater,14,20\nA,18,20\nA,17,20');
    const one = read('feed,germinated\nwater,12/20\nwater,14 of 20\nA,18/20\nA,17/20');
    expect(roles(two)).toEqual(['feed:treatment', 'germinated:k', 'sown:n']);
    expect(one.columns[1]).toEqual({ name: 'germinated', role: 'response', kind: 'ratio' });
    expect(findingsOfTable(one)).toEqual(findingsOfTable(two));
    expect(findingsOfTable(one)[0]).toMatchObject({ method: 'proportions' });
    expect(fault('feed,k,n\nA,3,9\nB,12,10\nA,1,9\nB,4,10', { response: 'k' })).toBe('understood');
  });
  it('two settings of nought and one aren’t a count out of a whole', () => {
    const text = 'block,N,K,yield\n1,0,1,49.5\n1,1,0,62.8\n2,0,1,46.8\n2,1,0,57\n3,0,1,59.8\n3,1,0,58.5';
    expect(fault(text)).toBe('Which column is the treatment? It may be N or K: name it (--treatment).');
    expect(roles(read(text, { treatment: 'N' }))).toContain('block:block');
  });
  it('a notes’ column is words, a numbering is nothing', () => {
    const u = read(
      ',feed,yield,notes\n1,A,3,leaf curled\n2,A,4,\n3,B,5,knocked over\n4,B,6,moved\n5,A,3,dry\n6,B,4,late',
    );
    expect(roles(u)).toEqual([':ignored', 'feed:treatment', 'yield:response', 'notes:words']);
  });
  it('crops are looked at one by one, days one by one and as a whole', () => {
    const crops = read('crop,feed,yield\ncress,A,1\ncress,A,2\ncress,B,5\ncress,B,6\nleek,A,3\nleek,A,4\nleek,B,3\nleek,B,5'); // prettier-ignore
    expect(findingsOfTable(crops).map((f) => f.crop)).toEqual(['cress', 'leek']);
    const days = read('pot,feed,date,height\n1,A,2026-03-01,1\n2,A,2026-03-01,2\n3,B,2026-03-01,3\n4,B,2026-03-01,4\n1,A,2026-03-08,2\n2,A,2026-03-08,3\n3,B,2026-03-08,6\n4,B,2026-03-08,8'); // prettier-ignore
    expect(findingsOfTable(days).map((f) => f.round)).toEqual([null, 'Day 0', 'Day 7']);
  });
});

it('a mark for thousands is told from one for decimals by the others, or asked', () => {
  expect(read('feed;yield\nWater;12,5\nWater;1.250\nA;14,5\nA;13').readings.map((r) => r.value)).toEqual([12.5, 1250, 14.5, 13]); // prettier-ignore
  expect(read('feed\tyield\nWater\t1,250.5\nWater\t1,300\nA\t9\nA\t8').readings.map((r) => r.value)).toEqual([1250.5, 1300, 9, 8]); // prettier-ignore
  expect(fault('feed\tyield\nWater\t1,250\nWater\t1,300\nA\t1,100\nA\t1,200')).toContain(
    '“1,250” may be 1.250 or 1250',
  );
});

it('of two columns that are called so the treatment is the finer one, or it is asked', () => {
  const lines = (rows: string[][]) => ['Brand,Product,yield', ...rows.map((r) => r.join(','))].join('\n');
  expect(roles(read(lines([['x', 'A', '1'], ['x', 'A', '2'], ['x', 'B', '3'], ['x', 'B', '4'], ['y', 'C', '5'], ['y', 'C', '6']])))).toEqual(['Brand:ignored', 'Product:treatment', 'yield:response']); // prettier-ignore
  expect(fault(lines([['x', 'A', '1'], ['x', 'B', '2'], ['y', 'A', '3'], ['y', 'B', '4'], ['x', 'A', '5'], ['y', 'B', '6']]))).toContain('It may be Brand or Product'); // prettier-ignore
});

it.each([
  [['2026-03-01', '2026-03-08'], 7],
  [['01.03.2026', '08.03.2026'], 7],
  [['28/2/2026', '7/3/2026'], 7],
  [['2/28/26', '3/7/26'], 7],
  [['1/3/2026', '2/3/2026'], null],
  [['1.13.2026', '2.3.2026'], null],
])('the dates %j are %s days apart', (levels, apart) => {
  const days = datesOf(levels);
  expect(days && days.get(levels[1]!)! - days.get(levels[0]!)!).toBe(apart);
});

describe('what isn’t there', () => {
  it('a control without a figure is lost, not forgotten: nothing is held against another in its place', () => {
    const u = read('feed,yield\nWater,NA\nWater,\nA,3\nA,4\nB,5\nB,7');
    expect(u).toMatchObject({ control: 'Water', treatments: ['Water', 'A', 'B'] });
    expect(findingsOfTable(u)[0]!.versusControl).toEqual([]);
    const [{ trial }] = trialsOfTable(u) as [ReturnType<typeof trialsOfTable>[number]];
    expect(trial.plan.units).toHaveLength(6);
    expect(trial.log).toHaveLength(4);
  });
  it('a missing figure of one trait doesn’t move the others to another unit', () => {
    const u = read('feed,yield,height\nWater,,10\nWater,2,20\nA,3,30\nA,4,40');
    const [{ trial }] = trialsOfTable(u) as [ReturnType<typeof trialsOfTable>[number]];
    const units = trial.log.flatMap((e) => ('unitId' in e && 'value' in e ? [`${e.unitId} ${e.value}`] : []));
    expect(units).toEqual([
      'unit-1 10',
      'unit-2 2',
      'unit-2 20',
      'unit-3 3',
      'unit-3 30',
      'unit-4 4',
      'unit-4 40',
    ]);
  });
  it('one tank for all of a product is one unit, whatever block and bench it is written under', () => {
    const u = read('feed,block,yield\nWater,1,2\nWater,2,3\nA,1,4\nA,2,6');
    expect(trialsOfTable(u, 'shared')[0]!.trial.plan.units).toHaveLength(2);
    expect(trialsOfTable(u)[0]!.trial.plan.units).toHaveLength(4);
  });
});

it('plants within a tank are its samples, whichever column comes first; a scale in brackets is no unit', () => {
  const line = (t: string, tank: number, plant: number, g: number) => `${t},${plant},${tank},${g}`;
  const rows = ['A', 'B'].flatMap((t, i) => [1, 2].flatMap((tank) => [1, 2, 3].map((p) => line(t, tank + 2 * i, p + 3 * tank, 10 * i + tank + p)))); // prettier-ignore
  const u = read(['Feed,Plant,Tank,Vigor (1-9)', ...rows].join('\n'));
  expect(roles(u)).toEqual(['Feed:treatment', 'Plant:sample', 'Tank:unit', 'Vigor (1-9):response']);
  expect(u.columns[3]!.unit).toBeUndefined();
  const one = read('Feed,Tank,Plant,g\nA,1,1,3\nA,1,2,4\nA,1,3,5\nB,2,4,6\nB,2,5,7\nB,2,6,9');
  // One tank each: numbers, no test.
  expect(findingsOfTable(one)[0]!.versusControl.every((c) => c.p === null)).toBe(true);
});

it('where units stood isn’t a figure; the one figure there is may have few values', () => {
  expect(roles(read('feed,row,column,leaves\nA,1,1,3\nA,1,2,3\nA,1,3,4\nB,2,1,4\nB,2,2,3\nB,2,3,4'))).toEqual(['feed:treatment', 'row:ignored', 'column:ignored', 'leaves:response']); // prettier-ignore
});

describe('a wide table', () => {
  const figure = fc.integer({ min: 1, max: 999 }).map((n) => n / 10);
  it('a column for each treatment finds what the long one finds', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(figure, figure, figure), { minLength: 2, maxLength: 8 }), (lines) => {
        const wide = ['Water,A,B', ...lines.map((l) => l.join(','))].join('\n');
        const long = [
          'feed,value',
          ...['Water', 'A', 'B'].flatMap((t, i) => lines.map((l) => `${t},${l[i]}`)),
        ];
        const [w, l] = [read(wide), read(long.join('\n'))];
        expect([w.shape, l.shape, w.rows, w.control]).toEqual(['wide', 'long', lines.length, 'Water']);
        expect(findingsOfTable(w)).toEqual(findingsOfTable(l));
      }),
      { numRuns: 30 },
    );
  });
  it('a column for each day finds what the long one finds', () => {
    const wide = read('feed,pot,height day 7,height day 14\ncontrol,1,2,5\ncontrol,2,2.2,5.5\nX,1,3,7\nX,2,3.1,7.4'); // prettier-ignore
    const long = read('feed,pot,day,height\ncontrol,1,7,2\ncontrol,2,7,2.2\nX,1,7,3\nX,2,7,3.1\ncontrol,1,14,5\ncontrol,2,14,5.5\nX,1,14,7\nX,2,14,7.4'); // prettier-ignore
    expect(wide.shape).toBe('wide');
    expect(findingsOfTable(wide)).toEqual(findingsOfTable(long));
  });
});

it.each([
  ['weight (g)', 'weight', 'g'],
  ['height cm', 'height', 'cm'],
  ['EC [mS/cm]', 'EC', 'mS/cm'],
  ['cut weight, kg', 'cut weight', 'kg'],
  ['number of leaves', 'number of leaves', ''],
])('the heading “%s” is %s in %s', (heading, name, unit) => {
  expect(splitUnit(heading)).toEqual({ name, unit });
});
it.each([
  ['1.250,5', ',', 1250.5],
  ['1,250.5', '.', 1250.5],
  ['−3', '.', -3],
  ['12.5 g', '.', 12.5],
  ['45%', '.', 45],
  ['1e3', '.', 1000],
  ['A1', '.', null],
  ['12,5', '.', null],
  ['', '.', null],
] as const)('“%s” with “%s” is %s', (text, mark, value) => {
  expect(figureIn(text, mark)).toBe(value);
});
it.each([
  ['day 7', 7],
  ['d14', 14],
  ['21', 21],
  ['week 2', 14],
  ['Height_d30', 30],
  ['yield', null],
])('“%s” is day %s', (text, day) => {
  expect(dayNamed(text)).toBe(day);
});

it('whatever is pasted is understood or refused in a sentence, and finds no figure that is none', () => {
  const cell = fc.oneof(fc.constantFrom('A', 'B', 'Water', '', 'NA', '3', '4,5', '1/2', 'feed', 'day 3'), fc.string({ maxLength: 5 })); // prettier-ignore
  fc.assert(
    fc.property(fc.array(fc.array(cell, { minLength: 1, maxLength: 5 }), { maxLength: 12 }), (grid) => {
      const made = understand(grid);
      if (!made.ok) {
        expect(made.error.text.length).toBeGreaterThan(10);
        return;
      }
      expect(JSON.stringify(findingsOfTable(made.value))).not.toContain('NaN');
      expect(made.value.columns.length).toBeGreaterThan(0);
    }),
    { numRuns: 300 },
  );
});
