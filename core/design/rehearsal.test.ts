import { describe, expect, it } from 'vitest';
import { plan } from '../testing/trial';
import type { Plan } from '../model/plan';
import { layOut } from './layOut';
import { powerOf, sizeOf } from './power';
import { type RehearsalInput, type RehearsalResult, rehearse } from './rehearsal';
import { answer, plantAnswer } from './rehearsalOutcome';
import { seededRandom } from '../stats/random';
import { compareTreatments } from '../stats/compareTreatments';
import { pooledErrors } from '../stats/contrast';
import { dunnettFamily } from '../stats/dunnett';
import { prepareLinearModel } from '../stats/linearModel';
import { plantsPerUnit, predictedPercent, rehearsalInput } from './rehearsalInput';

const assumptions = {
  unitCvPercent: 10,
  blockCvPercent: 8,
  gradientPercent: 0,
  plantCvPercent: 20,
  lossPercent: 0,
  runs: 4000,
  seed: 3,
  alpha: 0.05,
};
const names = ['Water', 'A', 'B', 'C'];

function inputFor(
  kind: 'crd' | 'rcbd' | 'latin' | 'split' | 'interleave',
  over: Partial<RehearsalInput> = {},
) {
  const base = plan({ treatments: names, replicates: 4 });
  const units = layOut(base, { kind, replicates: 4, seed: 5, settings: [], balance: null });
  if (!units.ok) throw new Error(units.error.tag);
  const input = rehearsalInput({ ...base, units: units.value }, assumptions);
  if (!input.ok) throw new Error(input.error.tag);
  return { ...input.value, ...over };
}

function run(input: RehearsalInput): RehearsalResult {
  const r = rehearse(input);
  if (!r.ok) throw new Error(r.error.tag);
  while (!r.value.step(500));
  return r.value.result();
}

/** Four standard errors of a share near alpha. */
const tolerance = (runs: number, share = 0.05) => 4 * Math.sqrt((share * (1 - share)) / runs);

describe('when nothing differs', () => {
  it.each(['crd', 'rcbd', 'latin', 'split', 'interleave'] as const)(
    '%s: a false winner comes up as often as alpha says',
    (kind) => {
      const { nothing } = run(inputFor(kind));
      expect(Math.abs(nothing.plan.falseWinner - 0.05)).toBeLessThan(tolerance(4000));
      expect(nothing.plan.right).toBe(0);
    },
  );
  it('so too with lost units', () => {
    const lossy = run(inputFor('rcbd', { lossPercent: 12 }));
    expect(lossy.nothing.plan.falseWinner).toBeLessThan(0.05 + tolerance(4000));
  });
  it('plants counted as units find winners that aren’t there', () => {
    const { nothing } = run(inputFor('rcbd', { plants: 6, plantCvPercent: 10 }));
    expect(nothing.plantsAsUnits!.falseWinner).toBeGreaterThan(0.15);
  });
  it('a layout with the control at the dark end finds them too', () => {
    const input = inputFor('crd', { gradientPercent: 40 });
    const unfair = input.units.map((u) => ({ ...u, gradient: u.treatment === 0 ? -0.5 : 0.2 }));
    expect(run({ ...input, units: unfair }).nothing.plan.falseWinner).toBeGreaterThan(0.5);
  });
});

describe('when one product differs', () => {
  it.each(['rcbd', 'crd'] as const)(
    '%s: the right one is found as often as the power of findings says',
    (kind) => {
      const input = inputFor(kind, { predictedPercent: [0, 25, 0, 0], runs: 4000 });
      const size = sizeOf(4, 4, kind === 'crd' ? 1 : 'perReplicate', 0.05, 'own');
      const power = powerOf(size, 10, 25)!.versusControl;
      const { predicted, sweep } = run(input);
      expect(Math.abs(predicted.plan.right + predicted.plan.falseWinner * power - power)).toBeLessThan(
        // Satterthwaite’s freedom is taken from the same values: a formula is good to about five in a hundred.
        0.05,
      );
      const shares = sweep.map((s) => s.outcome.right);
      expect([...shares].sort((a, b) => a - b)).toEqual(shares);
    },
  );
  it('blocks help where blocks differ', () => {
    const { predicted } = run(inputFor('rcbd', { predictedPercent: [0, 25, 0, 0], blockCvPercent: 25 }));
    expect(predicted.withoutBlocks!.right).toBeLessThan(predicted.plan.right - 0.1);
  });
  it('lower can be better', () => {
    const { predicted } = run(inputFor('crd', { predictedPercent: [0, -40, 0, 0], higherIsBetter: false }));
    expect(predicted.plan.right).toBeGreaterThan(0.8);
  });
  it('without a control a product worse than nothing still wins', () => {
    const input = inputFor('crd', { predictedPercent: [0, -30, -70, -70] });
    const { predicted } = run(input);
    expect(predicted.plan.right).toBe(0);
    expect(predicted.withoutControl!.falseWinner).toBeGreaterThan(0.8);
  });
});

it('is the same for the same seed, and can be stopped half-way', () => {
  const input = inputFor('rcbd');
  expect(run({ ...input, runs: 300 })).toEqual(run({ ...input, runs: 300 }));
  const half = rehearse(input);
  if (!half.ok) throw new Error(half.error.tag);
  half.value.step(250);
  expect(half.value.result().runs).toBe(250);
});

it('refuses one unit each', () => {
  const one = inputFor('crd');
  const units = [0, 1, 2, 3].map((treatment) => ({ treatment, block: 0, column: 0, gradient: 0 }));
  expect(rehearse({ ...one, units })).toEqual({ ok: false, error: { tag: 'noResidual' } });
});

describe('what a plan gives the rehearsal', () => {
  const p = plan({ treatments: names, replicates: 4 });
  it('the control comes first and keeps 0; what was expected is taken', () => {
    const expecting: Plan = {
      ...p,
      treatments: p.treatments.map((t, i) => ({ ...t, expectedPercent: i === 2 ? 12 : null })),
    };
    expect([...predictedPercent(expecting, 10).values()]).toEqual([0, 0, 12, 0]);
    expect([...predictedPercent(p, 10).values()]).toEqual([0, 10, 0, 0]);
  });
  it('without a layout one is imagined', () => {
    const input = rehearsalInput({ ...p, units: [], design: null, areas: [] }, assumptions);
    expect(input.ok && input.value.units).toHaveLength(16);
  });
  it('readings become places between the worst and the best', () => {
    const readings = p.units.map((u) => ({ position: u.position, value: 100 + 50 * u.position.column }));
    const input = rehearsalInput({ ...p, gradient: { name: 'Light', unit: '', readings } }, assumptions);
    expect(input.ok && input.value.units.map((u) => u.gradient).slice(0, 4)).toEqual(
      [-0.5, -1 / 6, 1 / 6, 0.5].map((x) => expect.closeTo(x, 9)),
    );
  });
  it('plants per unit are what the treatments or the samples say', () => {
    expect(plantsPerUnit(p)).toBe(1);
    const six = { ...p.treatments[0]!, conditions: { ...p.treatments[0]!.conditions, plantsPerUnit: 6 } };
    expect(plantsPerUnit({ ...p, treatments: [six] })).toBe(6);
  });
  it('says what is missing', () => {
    expect(rehearsalInput({ ...p, treatments: [] }, assumptions)).toMatchObject({
      error: { tag: 'tooFewTreatments' },
    });
    const tests = p.treatments.map((t) => ({ ...t, role: 'test' as const }));
    expect(rehearsalInput({ ...p, treatments: tests }, assumptions)).toMatchObject({
      error: { tag: 'noControl' },
    });
  });
});

it('plants taken for units are what a model of all plants says', () => {
  const random = seededRandom(9);
  const units = inputFor('rcbd').units;
  const [plants, n] = [3, units.length];
  const means = units.map(() => random.normal());
  const rows = units.flatMap((u) => Array<typeof u>(plants).fill(u));
  const deviations = units.map(() => {
    const d = Array.from({ length: plants }, () => random.normal());
    const m = d.reduce((s, x) => s + x, 0) / plants;
    return d.map((x) => x - m);
  });
  const values = units.flatMap((_, i) => deviations[i]!.map((d) => means[i]! + d));
  const within = deviations.flat().reduce((s, d) => s + d * d, 0);
  const small = prepareLinearModel(units, 4, 4);
  const large = prepareLinearModel(rows, 4, 4);
  if (!small.ok || !large.ok) throw new Error('a model');
  const of = { treatments: 4, alpha: 0.05, peers: false };
  const fast = plantAnswer({ ...of, model: small.value, rows: units }, means, { plants, within });
  const fit = large.value.fit(values);
  const { covariance: v, df } = pooledErrors(fit)!;
  expect(rows).toHaveLength(n * plants);
  expect(fast.se(1, 0)).toBeCloseTo(Math.sqrt(v(1, 1) + v(0, 0) - 2 * v(1, 0)), 10);
  const half = [1, 2, 3].map((i) => [1, 2, 3].map((j) => (i === j ? 1 : 0.5)));
  expect(fast.dunnett(1)).toBeCloseTo(dunnettFamily(half, df(1, 0)).criticalValue(0.05), 9);
  fast.means.forEach((m, i) => expect(m).toBeCloseTo(fit.adjustedMeans[i]!, 10));
});

it('a run says what the finding of the same values says', () => {
  const random = seededRandom(4);
  for (const kind of ['crd', 'rcbd', 'latin'] as const) {
    const { units } = inputFor(kind);
    const values = units.map(() => 100 + 10 * random.normal());
    const [blocks, columns] = [units, units].map((u, i) => 1 + Math.max(...u.map((x) => (i === 0 ? x.block : x.column)))); // prettier-ignore
    const model = prepareLinearModel(units, 4, blocks!, columns);
    const made = compareTreatments({
      rows: units.map((u, i) => ({
        ...{ treatment: names[u.treatment]!, unit: `${i}`, value: values[i]! },
        ...(blocks! > 1 && { block: `${u.block}` }),
        ...(columns! > 1 && { column: `${u.column}` }),
      })),
      control: 'Water',
      order: names,
      spreads: 'own',
    });
    if (!model.ok || !made.ok) throw new Error('a model');
    const a = answer({ model: model.value, rows: units, treatments: 4, alpha: 0.05, peers: false }, values)!;
    for (const v of made.value.versusControl) {
      const i = names.indexOf(v.name);
      expect(a.means[i]! - a.means[0]!).toBeCloseTo(v.difference, 8);
      expect(a.dunnett(i) * a.se(i, 0)).toBeCloseTo(v.high! - v.difference, 8);
    }
  }
});
