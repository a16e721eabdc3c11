// A finding looked at otherwise: every sentence with data that make it and data that don't.
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import type { Plan } from '../model/plan';
import { entry, harvest, height, plan, unitId } from '../testing/trial';
import { makeFinding } from '../account/finding';
import { endedEarlier, findingInput } from '../account/findingInput';
import { saySecondLooks } from '../say/saySecondLooks';
import { secondLooks } from './secondLooks';

const names = ['Water', 'A', 'B'];
const six = plan({ treatments: names, replicates: 6 });
const steady = [0.5, -2, 1, -0.4, 2.1, -1];
const at = (m: number, by = 1) => steady.map((x) => Number((m + x * by).toFixed(1)));

function looked(values: Record<string, number[]>, p: Plan = six) {
  const input = findingInput(deriveState(p, harvest(values)), p.traits[0]!);
  const f = makeFinding(input);
  if (!f.ok) throw new Error(f.error.tag);
  const looks = secondLooks(input, f.value);
  const notes = saySecondLooks(looks, f.value, (id) => id, 'tray');
  return {
    looks,
    of: (id: string) => notes.find((n) => n.id === id)?.text ?? null,
    ids: notes.map((n) => n.id),
  };
}

const quiet = { Water: at(50), A: at(60), B: at(62) };

describe('second looks', () => {
  it('a clear and even trial says only that swapping agrees, and what the next one needs', () => {
    const { ids, of } = looked(quiet);
    expect(ids).toEqual(['swapped', 'next']);
    expect(of('swapped')).toBe('By swapping labels, which assumes no normal curve, the same.');
    expect(of('next')).toMatch(
      /^Next time: tray to tray varied by 3 %; to see 5\.0 g in four of five trials takes no more than the six of each used here\.$/,
    );
  });
  it('swapping that disagrees is said with whom it concerns; one value that weighs much is named', () => {
    const { of, looks } = looked({
      Water: [50, 51, 49, 50, 52, 50],
      A: [53, 52.5, 51.5, 53, 52.2, 53.3],
      B: [50, 50, 49, 51, 50, 62],
    });
    const o = looks.outliers[0]!;
    expect(o.value).toBe(62);
    expect(of(`outlier-${o.unit}`)).toMatch(
      /^TST-\d+ \(B, 62\.0 g\) lies far from .* Without it: A is clearly better\.$/,
    );
    expect(looked(quiet).looks.outliers).toEqual([]);
  });
  it('few units: the least p there can be', () => {
    const two = plan({ treatments: ['Water', 'A'], replicates: 2 });
    const { of } = looked({ Water: [50, 51], A: [70, 71.5] }, two);
    expect(of('leastP')).toBe('With so few trays the smallest p that swapping them can give is 0.33.');
    expect(of('swapped')).toMatch(/can’t tell anything: the finding leans on it/);
    expect(looked(quiet).of('leastP')).toBeNull();
  });
  it('few blocks: units are swapped inside them, two of sixteen ways at best', () => {
    const four = plan({ treatments: ['Water', 'A'], replicates: 4, blocked: true });
    const { of } = looked({ Water: [50, 51, 49.5, 50.5], A: [70, 71.5, 70.2, 70.9] }, four);
    expect(of('leastP')).toBe('With so few trays the smallest p that swapping them can give is 0.13.');
    // The same without blocks: two of seventy.
    const loose = plan({ treatments: ['Water', 'A'], replicates: 4 });
    expect(looked({ Water: [50, 51, 49.5, 50.5], A: [70, 71.5, 70.2, 70.9] }, loose).of('leastP')).toBeNull();
  });
  it('uneven contenders are a finding of their own, with what a spread each changes', () => {
    const { of } = looked({ Water: at(50, 0.5), A: at(60, 8), B: at(61, 1) });
    expect(of('uneven')).toMatch(
      /^A is more uneven than Water: its spread is 16\.2 times as large \(\d+\.\d to \d+\.\d; Brown–Forsythe over all p/,
    );
    expect(of('welch')).toMatch(/^With a spread of its own for each: (A|B) .*\.$/);
    expect(looked(quiet).of('uneven')).toBeNull();
  });
  it('spread that grows with the value is looked at on the log scale', () => {
    const grown = { Water: at(10, 0.5), A: at(20, 1.6), B: at(100, 18) };
    expect(looked(grown).of('growing')).toMatch(
      /^Spread grows with the value; on the log scale, as per cent: A is clearly better\.$/,
    );
    expect(looked({ Water: at(50, 6), A: at(60, 0.5), B: at(61, 1) }).of('growing')).toBeNull();
  });
  it('a block without which it is another finding is named', () => {
    const blocks = plan({ treatments: names, replicates: 4, blocked: true });
    const { ids } = looked(
      { Water: [50, 51, 49, 50], A: [51, 52, 50.5, 66], B: [50.5, 51, 49.5, 51] },
      blocks,
    );
    expect(
      looked(
        { Water: [50, 51, 49, 50], A: [60, 61, 59.5, 60.4], B: [50, 51.2, 48.8, 50.2] },
        blocks,
      ).ids.filter((i) => i.startsWith('block')),
    ).toEqual([]);
    const carried = looked(
      { Water: [50, 50, 50.3, 50], A: [52.5, 53, 52.8, 51.2], B: [50.2, 49.9, 50.4, 50.1] },
      blocks,
    );
    expect([...ids, ...carried.ids].some((i) => i === 'block-4' || i === 'outlier-A-3')).toBe(true);
  });
  it('place that goes with what is left over is said', () => {
    const slope = (m: number) => [0, 1, 2, 3, 4, 5].map((row) => m + 3 * row + (row % 2) * 0.3);
    expect(looked({ Water: slope(50), A: slope(60), B: slope(62) }).of('place-row')).toMatch(
      /goes with the row \(r = 1\.00, p < 0\.001\): position played a part/,
    );
    expect(looked(quiet).of('place-column')).toBeNull();
  });
});

describe('had it ended earlier', () => {
  const tall = (first: Record<string, number[]>, last: Record<string, number[]>) =>
    [['r1', first] as const, ['r2', last] as const].flatMap(([round, values]) =>
      Object.entries(values).flatMap(([name, list]) =>
        list.map((v, i) => entry(height(unitId(name, i), v, round))),
      ),
    );
  const look = (log: ReturnType<typeof tall>, roundId: 'r1' | null = null) => {
    const state = deriveState(six, log);
    const heights = six.traits[1]!;
    const input = findingInput(state, heights);
    const earlier = endedEarlier(state, heights, roundId ? { roundId: six.rounds[0]!.id } : {});
    const f = makeFinding(input);
    if (!f.ok) throw new Error(f.error.tag);
    const looks = secondLooks(earlier ? { ...input, earlier } : input, f.value);
    return saySecondLooks(looks, f.value, (id) => id, 'tray').find((n) => n.id === 'earlier') ?? null;
  };
  const level = { Water: at(50), A: at(50.2), B: at(49.9) };
  it('a finding that came with the last visit is said to have done so', () => {
    expect(look(tall(level, quiet))).toEqual({
      id: 'earlier',
      tone: 'open',
      text: 'Had it ended at the visit before, first (day 3): A is no longer told from the control and B is no longer told from the control.',
    });
  });
  it('a finding that was there a visit before is said to be the same', () => {
    expect(look(tall(quiet, quiet))).toMatchObject({
      tone: 'plain',
      text: 'Had it ended at the visit before, first (day 3): the same.',
    });
  });
  it('nothing is said with one visit, with a unit missing the visit before, or of one round alone', () => {
    expect(look(tall({}, quiet))).toBeNull();
    expect(look(tall({ ...quiet, A: at(60).slice(1) }, quiet))).toBeNull();
    expect(look(tall(quiet, quiet), 'r1')).toBeNull();
  });
});
