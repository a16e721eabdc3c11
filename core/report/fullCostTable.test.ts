// Plain arithmetic: money for a tray over grams of a tray, whatever the figures are per.
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import type { ProductId } from '../model/ids';
import { noCosts } from '../model/judgement';
import { entry, harvest, plan, sold, unitId, use } from '../testing/trial';
import { costsOf, sayCosts } from '../say/costWords';
import { findingOf } from '../account/findingInput';
import { makeVerdict } from '../verdict/verdict';
import { cellText } from './cell';
import { fullCostTable } from './judgementBlocks';

const names = ['Water', 'A', 'B'];
const base = plan({ treatments: names, replicates: 4 });
/** A costs 10 cents a tray, B 40; a tray gives 50, 60 and 62 g from five plants planned. */
function rows(per: 'plant' | undefined, pulled = 0) {
  const p = {
    ...base,
    products: [sold('a', 1000), sold('b', 4000)],
    traits: base.traits.map((t) => ({ ...t, ...(per && { per }) })),
    treatments: base.treatments.map((t, i) => ({
      ...t,
      conditions: { ...t.conditions, plantsPerUnit: 5 },
      products: i === 0 ? [] : [use({ productId: (i === 1 ? 'a' : 'b') as ProductId, amount: 10 })],
    })),
  };
  const log = harvest(
    Object.fromEntries(names.map((n, i) => [n, [-1.5, -0.5, 0.5, 1.5].map((x) => [50, 60, 62][i]! + x)])),
  );
  const thinned = names.flatMap((n) =>
    [0, 1, 2, 3].map((r) =>
      entry({ kind: 'stand', stage: 'thinned', unitId: unitId(n, r), count: 5 - pulled }),
    ),
  );
  const state = deriveState(p, [...log, ...(pulled > 0 ? thinned : [])]);
  const f = findingOf(state, p.traits[0]!);
  if (!f.ok) throw new Error(f.error.tag);
  const verdict = makeVerdict(p, f.value, (id) => id, { state });
  const costs = costsOf(state, verdict, noCosts);
  const table = fullCostTable(costs, verdict, f.value, p, (id) => id);
  return {
    extra: table.rows.map((r) => cellText(r.cells.at(-1)!)),
    perGram: verdict.lines.map((l) => [l.treatment.id, l.perResult?.minor]),
    said: sayCosts(costs, noCosts, verdict, f.value, (id) => id, p),
  };
}

describe('what each extra gram took', () => {
  it('with its interval, for a tray', () => {
    // B: 40 cents over 12 g; A: 10 over 10; Water is what they are held against.
    const { extra, said } = rows(undefined);
    expect(extra).toEqual(['€0.0333', '€0.0100', '–']);
    // Dunnett's interval of the gain: 12 ± 2.4 and 10 ± 2.4.
    expect(said[0]).toMatch(
      /^Each g more than Water took, with its 95 % interval: B 3\.3 ct \(2\.\d ct to 4\.\d ct\) and A 1\.0 ct \(0\.\d ct to 1\.\d ct\)\.$/,
    );
  });
  it('is the same where figures are per plant, as planned or as they were thinned', () => {
    const whole = rows(undefined);
    for (const other of [rows('plant'), rows('plant', 2)]) {
      expect(other.extra).toEqual(whole.extra);
      expect(other.said).toEqual(whole.said);
      other.perGram.forEach(([id, minor], i) => {
        expect(id).toBe(whole.perGram[i]![0]);
        expect(minor).toBeCloseTo(whole.perGram[i]![1] as number, 9);
      });
    }
  });
});
