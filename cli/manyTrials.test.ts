// The contract of factorial, scorecard and standings: shapes, and what is refused in one plain line.
import { describe, expect, it } from 'vitest';
import { main } from './main';
import { file, json, refused } from './testing';

describe('factorial', () => {
  // Means 2, 4, 6, 12 of two units each, every pair 1 apart: by hand A 72, B 32, A:B 8 of 1 df, error 0.5 on 4 df.
  const cells =
    'A,B,y,u\na,x,1.5,1\na,x,2.5,2\na,y,3.5,3\na,y,4.5,4\nb,x,5.5,5\nb,x,6.5,6\nb,y,11.5,7\nb,y,12.5,8\n';
  const args = ['--factors', 'A,B', '--response', 'y'];
  it('gives the terms in order with F, degrees of freedom and p', () => {
    const { terms } = json('factorial', file(cells), ...args) as unknown as {
      terms: { term: string; f: number; df1: number; df2: number; p: number }[];
    };
    expect(terms.map((t) => [t.term, t.df1, t.df2])).toEqual([
      ['A', 1, 4],
      ['B', 1, 4],
      ['A:B', 1, 4],
    ]);
    expect(terms.map((t) => Number(t.f.toFixed(9)))).toEqual([144, 64, 16]);
    expect(terms[2]!.p).toBeCloseTo(0.0161, 4);
    expect(main(['factorial', file(cells), ...args]).stdout).toMatch(/A:B\s+16/);
  });
  it('averages rows of one unit, which belongs to one combination', () => {
    const twice = cells.replace('a,x,1.5,1', 'a,x,1,1\na,x,2,1');
    expect(json('factorial', file(twice), ...args, '--unit', 'u')).toEqual(
      json('factorial', file(cells), ...args, '--unit', 'u'),
    );
    expect(
      refused('factorial', file(cells.replace('b,y,12.5,8', 'b,y,12.5,1')), ...args, '--unit', 'u'),
    ).toMatch(/two treatments/);
  });
  it('refuses an empty cell, nothing left to test against, and options that don’t go together', () => {
    const rows = cells.split('\n');
    const without = (pattern: RegExp) => file(rows.filter((r) => !pattern.test(r)).join('\n'));
    expect(refused('factorial', without(/^b,y/), ...args)).toMatch(/No value for b with y/);
    expect(refused('factorial', without(/,[2468]$/), ...args)).toMatch(/No degree of freedom/);
    expect(refused('factorial', file(cells), '--factors', 'A', '--response', 'y')).toMatch(/two or three/);
    expect(refused('factorial', file(cells), ...args, '--main', 'A')).toMatch(/--plot is missing/);
    expect(refused('factorial', file(cells), ...args, '--main', 'C', '--plot', 'u')).toMatch(
      /isn't one of the factors/,
    );
    expect(refused('factorial', file(cells.replace('1.5', 'much')), ...args)).toMatch(/row 2, column “y”/);
    expect(refused('factorial', file(cells), ...args, '--main', 'A', '--plot', 'u')).toMatch(
      /same number is needed/,
    );
  });
});

describe('scorecard', () => {
  const card = file('who,looks,yield\nA,2,8\nB,8,5\n');
  const args = ['--contender', 'who', '--weights', 'looks=1,yield=3'];
  it('weighs, places, and says what flips it', () => {
    expect(json('scorecard', card, ...args)).toMatchObject({
      contenders: [
        { name: 'A', score: 6.5, place: 1 },
        { name: 'B', score: 5.75, place: 2 },
      ],
      flips: [
        { heading: 'looks', weightNow: 0.25, winner: 'B' },
        { heading: 'yield', weightNow: 0.75, winner: 'B' },
      ],
    });
    expect(main(['scorecard', card, ...args]).stdout).toMatch(/looks\s+0.25\s+0.33333\s+B/);
  });
  it('refuses points outside 0 to 10, a contender twice, broken weights', () => {
    expect(refused('scorecard', file('who,looks,yield\nA,2,18\nB,8,5\n'), ...args)).toMatch(
      /row 2, column “yield”: 18/,
    );
    expect(refused('scorecard', file('who,looks,yield\nA,2,8\nA,8,5\n'), ...args)).toMatch(
      /row 3, column “who”/,
    );
    expect(refused('scorecard', file('who,looks,yield\nA,2,NA\nB,8,5\n'), ...args)).toMatch(/is empty/);
    expect(refused('scorecard', card, '--contender', 'who', '--weights', 'looks=x')).toMatch(/“looks=x”/);
    expect(refused('scorecard', card, '--contender', 'who', '--weights', 'looks=0,yield=0')).toMatch(
      /above 0/,
    );
    expect(refused('scorecard', card, '--contender', 'who', '--weights', 'taste=1')).toMatch(
      /no column “taste”/,
    );
  });
});

describe('standings', () => {
  const head = 'trial,product,mean,sd,n\n';
  const body = '1,Water,50,5,6\n1,A,58,6,6\n2,A,70,8,4\n2,Water,66,7,4\n';
  const args = [
    '--trial',
    'trial',
    '--treatment',
    'product',
    '--mean',
    'mean',
    '--sd',
    'sd',
    '--n',
    'n',
    '--reference',
    'Water',
  ];
  it('lists the reference at nought, with its P-score', () => {
    const found = json('standings', file(head + body), ...args) as unknown as {
      tau2: number;
      products: { name: string; percent: number; pScore: number; trials: number }[];
    };
    expect(found.tau2).toBeGreaterThanOrEqual(0);
    expect(found.products[0]).toMatchObject({ name: 'Water', percent: 0, low: 0, high: 0, trials: 2 });
    expect(found.products[1]!.percent).toBeGreaterThan(0);
    expect(main(['standings', file(head + body), ...args]).stdout).toMatch(/τ² = /);
  });
  it('refuses what can’t be pooled, and says which', () => {
    const of = (more: string) => refused('standings', file(head + body + more), ...args);
    expect(of('3,D,5,1,4\n')).toMatch(/Trial “3” has one treatment only/);
    expect(of('1,A,5,1,4\n')).toMatch(/lists “A” twice/);
    expect(of('3,D,0,1,4\n')).toMatch(/row 6, column “mean”/);
    expect(of('3,D,5,0,4\n')).toMatch(/row 6, column “sd”/);
    expect(of('3,D,5,1,4\n3,E,6,1,4\n')).toMatch(/“D” shares no path/);
    expect(refused('standings', file(head + body), ...args.slice(0, -1), 'X')).toMatch(/“X” isn't among/);
  });
});
