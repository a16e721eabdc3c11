import fc from 'fast-check';
import { expect, it } from 'vitest';
import { layOut } from '../design/layOut';
import type { ProductId } from '../model/ids';
import { Plan, areaKinds, designKinds, matchings } from '../model/plan';
import { plan as somePlan, product, use } from '../testing/trial';
import { audit, cure, cureAll, openFindings } from './audit';
import type { AuditInput } from './rule';

const words = fc.constantFrom('', 'one', 'two');

/** Plans of every design, place and fault, laid out or not. */
const anyInput = fc
  .record({
    k: fc.integer({ min: 1, max: 5 }),
    replicates: fc.integer({ min: 1, max: 5 }),
    rows: fc.integer({ min: 1, max: 8 }),
    columns: fc.integer({ min: 1, max: 8 }),
    kind: fc.constantFrom(...designKinds),
    area: fc.constantFrom(...areaKinds),
    matchedOn: fc.constantFrom(...matchings),
    said: fc.array(words, { minLength: 5, maxLength: 5 }),
    fed: fc.array(fc.boolean(), { minLength: 5, maxLength: 5 }),
    lit: fc.boolean(),
    rotates: fc.boolean(),
    control: fc.boolean(),
    question: fc.constantFrom('One thing?', 'One, and which is greener?', 'A? B?', 'no mark'),
    seed: fc.nat(1e6),
  })
  .map((s): AuditInput => {
    const names = ['Water', 'A', 'B', 'C', 'D'].slice(0, s.k);
    const base = somePlan({ treatments: names, replicates: 1 });
    const area = {
      ...base.areas[0]!,
      kind: s.area,
      rows: s.rows,
      columns: s.columns,
      widthCm: 90,
      depthCm: 60,
    };
    const design = { kind: s.kind, replicates: s.replicates, seed: s.seed, settings: [], balance: null };
    const draft: Plan = {
      ...base,
      question: s.question,
      matchedOn: s.matchedOn,
      areas: [area],
      scaleStepG: 1,
      products: [product({ id: 'feed' as ProductId, obtained: 'sent free' })],
      rotation: s.rotates ? { everyDays: 2, within: 'all' } : null,
      treatments: base.treatments.map((t, i) => ({
        ...t,
        role: s.control && i === 0 ? 'untreated' : 'test',
        water: s.said[i]!,
        light: s.said[(i + 1) % 5]!,
        conditions: { ...t.conditions, seedLot: s.said[(i + 2) % 5]!, finishDay: s.fed[i] ? 9 : null },
        products: s.fed[i] ? [use({ amount: 0.7, unit: 'g' })] : [],
      })),
      gradient: s.lit
        ? {
            name: 'Light',
            unit: '',
            readings: Array.from({ length: s.rows * s.columns }, (_, i) => ({
              position: { areaId: area.id, row: Math.floor(i / s.columns), column: i % s.columns },
              value: 100 + 7 * (i % s.columns),
            })),
          }
        : null,
      units: [],
      design: null,
    };
    const units = layOut(draft, design);
    const plan = units.ok ? { ...draft, design, units: units.value } : draft;
    return { plan, labelsPrinted: false, disclosure: '', me: 'Marta', ecByTreatment: new Map() };
  });

it('whatever the plan, every finding says what, why and how, and its units are in the plan', () => {
  fc.assert(
    fc.property(anyInput, (input) => {
      expect(Plan.safeParse(input.plan).error).toBeUndefined();
      const known = new Set(input.plan.units.map((u) => u.id));
      for (const f of audit(input)) {
        expect(f.found.length).toBeGreaterThan(3);
        expect(f.why.length).toBeGreaterThan(3);
        expect(f.cure.length).toBeGreaterThan(3);
        for (const u of f.units ?? []) expect(known).toContain(u);
      }
    }),
    { numRuns: 150 },
  );
});

it('every cure leaves a plan that stands, with as many treatments or more, and is the same for a seed', () => {
  fc.assert(
    fc.property(anyInput, fc.nat(1e6), (input, seed) => {
      for (const f of audit(input)) {
        if (f.fixLabel === null) continue;
        const cured = cure(input, f.ruleId, seed)!;
        const plan = cured.plan ?? input.plan;
        expect(Plan.safeParse(plan).error).toBeUndefined();
        expect(plan.treatments.length).toBeGreaterThanOrEqual(input.plan.treatments.length);
        const arms = (p: Plan) =>
          p.units.map((u) => `${u.treatmentId}@${u.position.row}/${u.position.column}`);
        expect(arms(cure(input, f.ruleId, seed)!.plan ?? input.plan)).toEqual(arms(plan));
      }
    }),
    { numRuns: 60 },
  );
});

it('curing all that cures itself leaves a plan that stands, none of them open that it cured once, and what only the reviewer knows as it was', () => {
  const told = (p: Plan) => [
    p.treatments.map((t) => ({ ...t })),
    [p.winning, p.prediction, p.finishingRule, p.scaleStepG, p.matchedOn, p.wholeSystem],
  ];
  let cures = 0;
  fc.assert(
    fc.property(anyInput, fc.nat(1e6), (input, seed) => {
      const { plan, cured } = cureAll(input, seed);
      cures += cured.length;
      expect(Plan.safeParse(plan).error).toBeUndefined();
      expect(new Set(cured).size).toBe(cured.length);
      expect(told(plan)).toEqual(told(input.plan));
      if (cured.length === 0) expect(plan).toBe(input.plan);
      const before = openFindings(audit(input)).filter((f) => f.curesItself);
      const after = openFindings(audit({ ...input, plan })).filter((f) => f.curesItself);
      if (before.length > 0) expect(cured.length).toBeGreaterThan(0);
      // A draw can’t balance every shelf: what is open yet was tried, or came with a cure.
      expect(after.length).toBeLessThanOrEqual(before.length + cured.length);
      expect(cureAll(input, seed).cured).toEqual(cured);
    }),
    { numRuns: 40 },
  );
  expect(cures).toBeGreaterThan(20);
});

it('cures of words and conditions silence their rule at once', () => {
  const lays = new Set([
    'one-unit',
    'few-degrees',
    'unequal-repeats',
    'whole-lines',
    'gradient-unbalanced',
    'places-unbalanced',
    'edges',
    'not-randomised',
  ]);
  fc.assert(
    fc.property(anyInput, (input) => {
      for (const f of audit(input)) {
        if (f.fixLabel === null || lays.has(f.ruleId)) continue;
        const cured = cure(input, f.ruleId, 3)!;
        const after = audit({ ...input, plan: cured.plan ?? input.plan, disclosure: cured.disclosure ?? '' });
        expect(after.map((x) => x.ruleId)).not.toContain(f.ruleId);
      }
    }),
    { numRuns: 80 },
  );
});
