// The contract of the statistical commands: shapes, missing values, units, and what is refused in one plain line.
import { describe, expect, it } from 'vitest';
import { main } from './main';
import { file, json, refused } from './testing';

const pots = file('pot\ttreat\tk\tn\n1\tW\t1\t5\n1\tW\t1\t4\n2\tW\t0\t5\n3\tA\t5\t5\n4\tA\t4\t5\n');

describe('proportions', () => {
  const args = ['proportions', pots, '--treatment', 'treat', '--k', 'k', '--n', 'n', '--control', 'W'];
  it('adds up the rows of a unit, in the order of first appearance', () => {
    const found = json(...args, '--unit', 'pot');
    expect(found.treatments).toMatchObject([
      { name: 'W', units: 2, k: 2, n: 14 },
      { name: 'A', units: 2, k: 9, n: 10 },
    ]);
    // two of each: 2 of 6 ways are as extreme
    expect(found.versusControl[0]).toMatchObject({ name: 'A', pPermutation: 1 / 3, pHolm: 1 / 3, cmh: null });
    expect(json(...args).treatments).toMatchObject([{ units: 3 }, { units: 2 }]);
  });
  it('says in a table what it found', () => {
    expect(main(args).stdout).toMatch(/W\s+3\s+2\/14/);
  });
  it('refuses k over n, a broken count, a unit in two treatments, an unknown control', () => {
    const of = (text: string) => ['proportions', file(text), ...args.slice(2)];
    expect(refused(...of('treat,k,n\nW,1,5\nA,6,5\n'))).toMatch(/row 3, column “k”: 6 of 5 can't be/);
    expect(refused(...of('treat,k,n\n\nW,1,5\nA,NA,5\n'))).toMatch(/row 4, column “k”: is empty/);
    expect(refused(...of('treat,k,n\nW,1,5\nA,2.5,5\n'))).toMatch(/“2.5” isn't a whole number/);
    expect(refused(...of('pot,treat,k,n\n1,W,1,5\n1,A,2,5\n'), '--unit', 'pot')).toMatch(/two treatments/);
    expect(refused(...args.slice(0, -1), 'X')).toMatch(/“X” isn't among the treatments: W, A/);
  });
});

describe('times', () => {
  const args = ['--treatment', 't', '--time', 'day', '--event', 'done', '--control', 'W'];
  it('takes “not yet” as such', () => {
    const found = json('times', file('t,day,done\nW,9,1\nW,12,0\nW,12,0\nA,4,1\nA,5,1\nA,6,1\n'), ...args);
    expect(found.treatments).toMatchObject([
      { name: 'W', n: 3, events: 1, median: null },
      { name: 'A', n: 3, events: 3, median: 5 },
    ]);
    expect(found.logRank).toMatchObject({ df: 1 });
  });
  it('refuses an event that is neither 0 nor 1, and a blank time', () => {
    expect(refused('times', file('t,day,done\nW,9,2\nA,4,1\n'), ...args)).toMatch(/row 2, column “done”/);
    expect(refused('times', file('t,day,done\nW,9,1\nA,,1\n'), ...args)).toMatch(/row 3, column “day”/);
  });
});

describe('scores', () => {
  it('without tasters; a blank score is missing, all equal has no p', () => {
    const found = json(
      'scores',
      file('t;s\nW;1\nW;2,5\nW;NA\nA;3\nA;4\n'),
      '--treatment',
      't',
      '--score',
      's',
      '--control',
      'W',
    );
    expect(found.treatments).toMatchObject([
      { name: 'W', n: 2, median: 1.75, meanRank: 1.5 },
      { name: 'A', n: 2, median: 3.5, meanRank: 3.5 },
    ]);
    expect(found.versusControl[0]).toMatchObject({ cliffsDelta: 1 });
    const equal = json(
      'scores',
      file('t,s\nW,3\nA,3\n'),
      '--treatment',
      't',
      '--score',
      's',
      '--control',
      'W',
    );
    expect(equal.kruskalWallis).toMatchObject({ p: null });
  });
  it('with tasters; who didn’t score all is named', () => {
    const args = ['--treatment', 't', '--score', 's', '--taster', 'who'];
    const found = json('scores', file('who,t,s\na,W,1\na,A,3\nb,W,2\nb,A,2\n'), ...args);
    expect(found.treatments).toMatchObject([
      { name: 'W', rankSum: 2.5 },
      { name: 'A', rankSum: 3.5 },
    ]);
    expect(found.leastSignificantDifference).toBeCloseTo(1.959964 * Math.sqrt(2), 5);
    expect(refused('scores', file('who,t,s\na,W,1\na,A,3\nb,W,2\n'), ...args)).toMatch(
      /Taster “b” scored “A” not at all/,
    );
  });
});

describe('spread and permute', () => {
  const data = file('unit,block,t,y\n1,x,W,1\n2,x,A,4\n3,y,W,2\n4,y,A,5\n5,z,W,3\n6,z,A,6\n');
  it('spread', () => {
    const found = json('spread', data, '--treatment', 't', '--response', 'y');
    expect(found.treatments).toMatchObject([
      { name: 'W', n: 3, sd: 1, cvPercent: 50 },
      { name: 'A', n: 3, sd: 1, cvPercent: 20 },
    ]);
    expect(found.brownForsythe).toMatchObject({ f: 0, df1: 1, df2: 4, p: 1 });
  });
  it('permute, all together and inside blocks', () => {
    const args = ['permute', data, '--treatment', 't', '--response', 'y', '--control', 'W'];
    expect(json(...args).versusControl[0]).toMatchObject({
      difference: 3,
      arrangements: 20,
      exact: true,
      p: 0.1,
    });
    expect(json(...args, '--block', 'block').versusControl[0]).toMatchObject({ arrangements: 8, p: 0.25 });
  });
  it('refuses words where a number is wanted, and a unit in two blocks', () => {
    const args = ['--treatment', 't', '--response', 'y', '--control', 'W'];
    expect(refused('permute', file('t,y\nW,1\nA,tall\n'), ...args)).toMatch(
      /row 3, column “y”: “tall” isn't a number/,
    );
    expect(
      refused(
        'permute',
        file('u,b,t,y\n1,x,W,1\n1,z,W,2\n2,x,A,3\n'),
        ...args,
        '--unit',
        'u',
        '--block',
        'b',
      ),
    ).toMatch(/two blocks/);
  });
});

describe('curves', () => {
  const args = ['--treatment', 't', '--unit', 'u', '--time', 'd', '--response', 'y', '--control', 'W'];
  const rows = (unit: string, t: string, ys: (number | string)[]) =>
    ys.map((y, i) => `${unit},${t},${i * 2},${y}`).join('\n');
  it('gives each unit its area, growth rate and curve, and compares them', () => {
    const found = json(
      'curves',
      file(
        `u,t,d,y\n${rows('1', 'W', [1, 2, 4, 'NA'])}\n${rows('2', 'W', [1, 2, 5, 7])}\n${rows('3', 'A', [2, 4, 8, 16])}\n${rows('4', 'A', [2, 5, 8, 15])}\n`,
      ),
      ...args,
    );
    const units = found.units as { area: number; relativeGrowthRate: number; logistic: unknown }[];
    // by hand: (1 + 2) + (2 + 4) over steps of two days; doubling every two days
    expect(units[0]).toMatchObject({ area: 9, logistic: null });
    expect(units[2]!.area).toBe(42);
    expect(units[2]!.relativeGrowthRate).toBeCloseTo(Math.LN2 / 2, 12);
    expect(found.area).toMatchObject({
      response: 'area',
      treatments: [
        { name: 'W', n: 2 },
        { name: 'A', n: 2 },
      ],
    });
    expect(found.relativeGrowthRate).toMatchObject({ treatments: [{ n: 2 }, { n: 2 }] });
  });
  it('refuses a blank time', () => {
    expect(refused('curves', file('u,t,d,y\n1,W,,2\n2,A,1,2\n'), ...args)).toMatch(
      /row 2, column “d”: is empty/,
    );
  });
});

describe('germination', () => {
  const args = [
    '--treatment',
    't',
    '--unit',
    'p',
    '--day',
    'd',
    '--count',
    'n',
    '--sown',
    's',
    '--control',
    'W',
  ];
  it('by pot, compared as shares and as days', () => {
    const found = json(
      'germination',
      file('p,t,d,n,s\n1,W,3,4,12\n1,W,5,6,12\n2,W,4,0,10\n3,A,3,9,10\n4,A,3,10,10\n'),
      ...args,
    );
    expect((found.units as object[])[0]).toMatchObject({ unit: '1', treatment: 'W', meanTime: 4.2 });
    expect((found.units as object[])[1]).toMatchObject({
      percent: 0,
      meanTime: null,
      t50: null,
      sdTime: null,
    });
    expect(found.percent).toMatchObject({
      treatments: [
        { k: 10, n: 22 },
        { k: 19, n: 20 },
      ],
    });
    expect(found.meanTime).toMatchObject({
      treatments: [
        { name: 'W', n: 1 },
        { name: 'A', n: 2 },
      ],
    });
  });
  it('refuses more up than sown, and a sown number that changes', () => {
    expect(refused('germination', file('p,t,d,n,s\n1,W,3,11,10\n2,A,3,1,10\n'), ...args)).toMatch(
      /more came up in unit “1”/,
    );
    expect(refused('germination', file('p,t,d,n,s\n1,W,3,1,10\n1,W,4,1,12\n'), ...args)).toMatch(
      /row 3, column “s”/,
    );
  });
});

describe('the delimiter', () => {
  const args = ['--treatment', 't', '--response', 'y'];
  it('is the one that splits the heading most', () => {
    const found = json('spread', file('t;y;"note, long"\nW;1,5;a\nW;2,5;b\nA;3;c\nA;4;d\n'), ...args);
    expect(found.treatments).toMatchObject([{ n: 2, sd: Math.SQRT1_2 }, { n: 2 }]);
  });
  it('a decimal comma isn’t read where the comma divides', () => {
    expect(refused('spread', file('t,y\nW,"1,5"\nA,2\n'), ...args)).toMatch(/“1,5” isn't a number/);
  });
});
