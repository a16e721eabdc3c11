import { describe, expect, it } from 'vitest';
import { power } from './power';
import { layout } from './layout';
import { main } from './main';

const palazzo = (...args: string[]) => main(args);
const split = (line: string) => line.split(' ');

describe('palazzo power', () => {
  it('prints exactly the promised JSON', () => {
    const run = palazzo('power', ...split('--treatments 2 --replicates 17 --cv 10 --difference 10 --json'));
    expect(run.status).toBe(0);
    const out = JSON.parse(run.stdout);
    expect(Object.keys(out)).toEqual([
      'replicates',
      'difference',
      'powerVersusControl',
      'powerPair',
      'powerAnova',
    ]);
    // R: power.t.test(n = 17, delta = 1, sd = 1)$power is 0.8070367
    expect(out).toMatchObject({ replicates: 17, difference: 10 });
    expect(out.powerVersusControl).toBeCloseTo(0.8070367, 5);
  });
  it('solves for whichever is left out', () => {
    const solved = JSON.parse(power(split('--treatments 4 --cv 10 --difference 15 --json')));
    expect(solved.powerVersusControl).toBeGreaterThanOrEqual(0.8);
    const fewer = JSON.parse(
      power(split(`--treatments 4 --cv 10 --difference 15 --replicates ${solved.replicates - 1} --json`)),
    );
    expect(fewer.powerVersusControl).toBeLessThan(0.8);
    const difference = JSON.parse(
      power(split('--treatments 4 --cv 10 --replicates 6 --blocks 6 --power .9 --json')),
    );
    expect(difference.powerVersusControl).toBeCloseTo(0.9, 6);
  });
  it.each([
    ['--treatments 4 --cv 10', /--replicates or --difference/],
    ['--treatments 1 --cv 10 --replicates 3', /--treatments must be a whole number from 2/],
    ['--treatments 3 --cv ten --replicates 3', /--cv must be a number.*“ten”/],
    ['--treatments 3 --replicates 3', /--cv is missing/],
    ['--treatments 3 --cv 10 --replicates 1 --difference 5', /no residual/],
    ['--treatments 3 --cv 10 --replicates 3 --alpha 2', /--alpha must lie between/],
    ['--treatments 3 --cv 10 --replicates 3 --wat 2', /wat/],
    ['--treatments 3 --cv 900 --difference 1', /Even 5,000/],
  ])('refuses %s', (line, said) => expect(() => power(split(line))).toThrow(said));
  it('reads well without --json', () => {
    expect(power(split('--treatments 3 --replicates 5 --cv 10 --difference 20 --blocks 5'))).toMatch(
      /8 residual degrees.*\n.*20 % of the control.*\n.*Dunnett.*%\n/s,
    );
  });
});

describe('palazzo layout', () => {
  const cellsOf = (line: string) => JSON.parse(layout(split(`${line} --json`)));
  it('prints exactly the promised JSON, the same for the same seed', () => {
    const run = palazzo(
      'layout',
      ...split('--design rcbd --treatments A,B,C --replicates 4 --columns 3 --seed 7 --json'),
    );
    expect(run.status).toBe(0);
    const out = JSON.parse(run.stdout);
    expect(Object.keys(out)).toEqual(['seed', 'cells']);
    expect(out.cells).toHaveLength(12);
    expect(Object.keys(out.cells[0])).toEqual(['row', 'column', 'block', 'treatment']);
    expect(out.cells[0]).toMatchObject({ row: 1, column: 1, block: 1 });
    expect(cellsOf('--design rcbd --treatments A,B,C --replicates 4 --columns 3 --seed 7')).toEqual(out);
  });
  it.each(['crd', 'rcbd', 'latin', 'split', 'interleave'])(
    '%s uses each treatment as often as asked',
    (design) => {
      const { cells } = cellsOf(`--design ${design} --treatments A,B,C,D --replicates 4 --seed 1`);
      for (const t of ['A', 'B', 'C', 'D']) {
        expect(cells.filter((c: { treatment: string }) => c.treatment === t)).toHaveLength(4);
      }
      expect(new Set(cells.map((c: { row: number; column: number }) => `${c.row}/${c.column}`)).size).toBe(
        16,
      );
    },
  );
  it('draws the plan without --json', () => {
    expect(layout(split('--design latin --treatments A,B,C --seed 2')).split('\n')).toHaveLength(4);
    expect(layout(split('--design crd --treatments A,B --replicates 2 --columns 3 --seed 2'))).toMatch(/·/);
  });
  it.each([
    ['--treatments A,B --replicates 2 --seed 1', /--design is missing/],
    ['--design round --treatments A,B --replicates 2 --seed 1', /--design must be one of/],
    ['--design crd --treatments A,,B --replicates 2 --seed 1', /empty name/],
    ['--design crd --treatments A,A --replicates 2 --seed 1', /names “A” twice/],
    ['--design crd --treatments A,B --replicates 2', /--seed is missing/],
    ['--design crd --treatments A,B --seed 1', /--replicates is missing/],
    ['--design crd --treatments A,B --replicates 2 --settings x --seed 1', /--settings go with/],
    ['--design latin --treatments A,B,C --replicates 4 --seed 1', /or a multiple; not 4/],
    ['--design latin --treatments A,B,C --columns 2 --seed 1', /9 units need 9 positions/],
  ])('refuses %s', (line, said) => expect(() => layout(split(line))).toThrow(said));
});
