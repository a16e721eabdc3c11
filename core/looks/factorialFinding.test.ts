// Sentences about factors, settings and crops, each with data that make it and data that don't. The F tests themselves
// are held against R in core/stats/factorial.reference.test.ts.
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import type { Plan } from '../model/plan';
import { entry, harvest, plan, unitId, weighing } from '../testing/trial';
import { factorialFindings, saysFactorial } from './factorialFinding';
import { findingInput } from '../account/findingInput';

const cells = ['tap · none', 'tap · Add', 'feed · none', 'feed · Add'];
const crossed: Plan = {
  ...plan({ treatments: cells, replicates: 4 }),
  factors: [
    { name: 'Base', levels: ['tap', 'feed'] },
    { name: 'Additive', levels: ['none', 'Add'] },
  ],
};
const withLevels: Plan = {
  ...crossed,
  treatments: crossed.treatments.map((t) => {
    const [base, additive] = t.name.split(' · ') as [string, string];
    return { ...t, levels: { Base: base, Additive: additive } };
  }),
};
const noise = [-1, 0.5, -0.4, 1];
const log = (p: Plan, means: number[]) =>
  p.treatments.flatMap((t, i) => noise.map((e, r) => entry(weighing(unitId(t.name, r), means[i]! + e))));
const said = (p: Plan, means: number[]) =>
  factorialFindings(findingInput(deriveState(p, log(p, means)), p.traits[0]!)).flatMap(saysFactorial);

describe('factorials in words', () => {
  it('an additive that works with one base alone', () => {
    expect(said(withLevels, [50, 50, 60, 75])[0]).toMatch(
      /^What Additive does depends on Base \(p < 0\.001\): read it level by level\.$/,
    );
  });
  it('an additive that works as well with either', () => {
    const s = said(withLevels, [50, 58, 60, 68]);
    expect(s[0]).toMatch(/^No sign that Additive works differently with different Base \(p = 1\.000\)/);
    expect(s).toContainEqual(
      expect.stringMatching(/^Over all the rest, Additive made a difference \(p < 0\.001\)/),
    );
  });
  it('one that does nothing', () => {
    expect(said(withLevels, [50, 50, 60, 60])).toContainEqual(
      expect.stringMatching(/^Over all the rest, no difference by Additive was shown/),
    );
  });
  it('means without anything left over are judged by nobody', () => {
    const exact = withLevels.treatments.flatMap((t, i) =>
      noise.map((_, r) => entry(weighing(unitId(t.name, r), 50 + i))),
    );
    const f = factorialFindings(findingInput(deriveState(withLevels, exact), withLevels.traits[0]!));
    expect(f.flatMap(saysFactorial)).toEqual([
      'Nothing is left over to test this against: the means stand for themselves, no judgement.',
    ]);
  });
  it('nothing is said of a plain trial; where a cell is empty the means stand, untested', () => {
    expect(said(plan({ treatments: cells, replicates: 4 }), [50, 50, 60, 75])).toEqual([]);
    const state = deriveState(withLevels, log(withLevels, [50, 50, 60, 75]).slice(0, 12));
    const [made] = factorialFindings(findingInput(state, withLevels.traits[0]!));
    expect(made).toMatchObject({ terms: [] });
    expect(made!.cells).toHaveLength(3);
    expect(saysFactorial(made!)).toEqual([
      expect.stringMatching(/^Nothing is left over to test this against/),
    ]);
  });
  it('an untreated arm beside the factorial takes nothing from it', () => {
    const bare = {
      ...withLevels.treatments[0]!,
      id: 'bare' as (typeof withLevels.treatments)[number]['id'],
      name: 'bare',
      levels: {},
    };
    const p: Plan = {
      ...withLevels,
      treatments: [bare, ...withLevels.treatments],
      units: [
        ...withLevels.units,
        { ...withLevels.units[0]!, id: 'bare-0' as never, code: 'TST-99', treatmentId: bare.id },
      ],
    };
    const lines = log(withLevels, [50, 50, 60, 75]);
    const more = harvest({ bare: [40] });
    const [made] = factorialFindings(findingInput(deriveState(p, [...lines, ...more]), p.traits[0]!));
    const [without] = factorialFindings(findingInput(deriveState(withLevels, lines), withLevels.traits[0]!));
    expect(made!.terms.map((t) => [t.term, t.p])).toEqual(without!.terms.map((t) => [t.term, t.p]));
  });
});

describe('crops within units', () => {
  const machines: Plan = {
    ...plan({ treatments: ['Old', 'New'], replicates: 3 }),
    cropsWithin: ['basil', 'mint'],
  };
  const grown = (of: (t: number, crop: number) => number) =>
    factorialFindings(
      findingInput(
        deriveState(
          machines,
          machines.treatments.flatMap((t, i) =>
            [0, 1, 2].flatMap((r) =>
              [0, 1].map((crop) =>
                entry(
                  weighing(unitId(t.name, r), of(i, crop) + noise[r]! + 0.3 * ((r + crop) % 2), {
                    sample: crop + 1,
                  }),
                ),
              ),
            ),
          ),
        ),
        machines.traits[0]!,
      ),
    ).flatMap(saysFactorial);
  it('that rank contenders alike, and that don’t', () => {
    expect(grown((t, c) => 40 + 5 * t + 10 * c)).toEqual([
      expect.stringMatching(/^No sign that contenders rank differently from crop to crop/),
    ]);
    expect(grown((t, c) => 40 + (c === 0 ? 15 : -15) * t)).toEqual([
      expect.stringMatching(/^The contenders don’t rank alike on every crop \(p/),
    ]);
  });
});

describe('settings of main plots', () => {
  const base = plan({ treatments: ['Water', 'A'], replicates: 4, blocked: true });
  const split: Plan = {
    ...base,
    units: base.units.map((u) => ({ ...u, setting: u.block! <= 2 ? 'low' : 'high' })),
  };
  const lit = (of: (t: number, high: boolean) => number) =>
    factorialFindings(
      findingInput(
        deriveState(
          split,
          split.treatments.flatMap((t, i) =>
            noise.map((e, r) => entry(weighing(unitId(t.name, r), of(i, r > 1) + 0.2 * e + 0.1 * (i * r)))),
          ),
        ),
        split.traits[0]!,
      ),
    ).flatMap(saysFactorial);
  it('are tested against main plots: four plots tell a large effect, and the products within them', () => {
    const s = lit((t, high) => 40 + 3 * t + (high ? 30 : 0));
    expect(s).toContainEqual(expect.stringMatching(/^Over all the rest, the setting made a difference/));
    expect(s).toContainEqual(
      expect.stringMatching(/^No sign that contenders do differently from setting to setting/),
    );
    expect(lit((t) => 40 + 3 * t)).toContainEqual(
      expect.stringMatching(/^Over all the rest, no difference by the setting was shown/),
    );
    expect(lit((t, high) => 40 + (high ? 20 : 0) * t)).toContainEqual(
      expect.stringMatching(/^What a contender does depends on the setting of its main plot/),
    );
  });
});
