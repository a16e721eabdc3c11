// Whatever is typed, ticked, added and removed in a form: it is said at a field, or what it makes can be kept.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { z } from 'zod';
import { Plan } from '~core/model/plan';
import { demoBench } from '../demo/demoBench';
import { Product } from '~core/model/product';
import { type RecordForm, applied } from '../form/recordForm';
import { productRecord } from '../library/productForm';
import { contendersRecord } from './contenders/contendersForm';
import { questionRecord } from './question/questionForm';
import { untidyTrial } from '~core/testing/untidy';
import { recordForms } from './recordForms';

const bench = demoBench(new Date('2026-05-04T10:00:00'));

type Leaf = { holder: Record<string, unknown>; key: string };

/** Every text, tick and list of a form. Ids aren’t typed. */
function leavesOf(holder: object): Leaf[] {
  return Object.entries(holder).flatMap(([key, value]) => [
    { holder: holder as Record<string, unknown>, key },
    ...(typeof value === 'object' && value !== null ? leavesOf(value as object) : []),
  ]);
}

const typed = fc.oneof(
  {
    arbitrary: fc.constantFrom('', '0', '1', '-1', '0.5', '1,5', '90', '100', '200', '3000', '1e9'),
    weight: 3,
  },
  {
    arbitrary: fc.constantFrom(
      ' ',
      'abc',
      '7, 7',
      '1 tsp/gal',
      '2 gal',
      'Fe 90',
      '1 x\n2 y',
      'x'.repeat(90),
      '4 '.repeat(21),
    ),
    weight: 1,
  },
  { arbitrary: fc.string({ maxLength: 4 }), weight: 1 },
);

/** One thing somebody does: types over a text, turns a tick round, takes an item of a list away or has it twice. */
const act = fc.record({ at: fc.nat(), text: typed, twice: fc.boolean() });

function doIt(form: object, { at, text, twice }: { at: number; text: string; twice: boolean }): void {
  const leaves = leavesOf(form).filter(({ holder, key }) => !Array.isArray(holder) && !/^id$|Id$/.test(key));
  const { holder, key } = leaves[at % leaves.length]!;
  const value = holder[key];
  if (typeof value === 'string') holder[key] = text;
  if (typeof value === 'boolean') holder[key] = !value;
  if (Array.isArray(value) && value.length > 0) {
    const i = at % value.length;
    if (twice && typeof value[i] === 'object') value.push({ ...structuredClone(value[i]), id: 'another' });
    else value.splice(i, 1);
  }
}

/** @param model what the record has to be by */
function holds<R, S extends z.ZodType>(
  records: readonly R[],
  form: RecordForm<R, S>,
  model: z.ZodType,
  library: (record: R) => readonly Product[],
): void {
  let taken = 0;
  fc.assert(
    fc.property(fc.nat(records.length - 1), fc.array(act, { minLength: 1, maxLength: 4 }), (i, acts) => {
      const record = records[i]!;
      const values = structuredClone(form.shown(record));
      for (const each of acts) doIt(values as object, each);
      const result = applied(form, { values }, record, library(record));
      if (!result.ok) return result.error.tag === 'refused' && Object.keys(result.error.errors).length > 0;
      taken += 1;
      expect(model.safeParse(result.value).error?.issues).toBeUndefined();
      return true;
    }),
    { numRuns: 400 },
  );
  // Forms that are never taken would show nothing.
  expect(taken).toBeGreaterThan(20);
}

describe('what a form takes can be kept', () => {
  const plans = bench.trials.map((t) => t.plan);
  it('Question', () => holds(plans, questionRecord, Plan, () => []));
  it('Contenders', () => holds(plans, contendersRecord, Plan, (plan) => plan.products));
  it('a product', () => holds(bench.products, productRecord, Product, () => []));
});

describe('what is kept is shown, whatever made it', () => {
  const plans = [
    ...bench.trials.map((t) => t.plan),
    ...Array.from({ length: 120 }, (_, seed) => untidyTrial(seed + 1).trial.plan),
    // By older rules and from other hands: what the form wouldn't take.
    ...bench.trials.map(({ plan }) => ({
      ...plan,
      question: '',
      traits: plan.traits.map((t) => ({ ...t, name: '', samplesPerUnit: 0 })),
      rounds: plan.rounds.map((r) => ({ ...r, day: -3, traitIds: [] })),
      treatments: plan.treatments.map((t) => ({ ...t, name: 'the same' })),
    })),
  ];
  it.each(recordForms.plan.map((form) => [form.name, form] as const))('%s', (_, form) => {
    for (const plan of plans) {
      const values = form.shown(plan);
      expect(JSON.stringify(values)).not.toMatch(/null|NaN|undefined/);
      const again = applied(form, { values }, plan, plan.products);
      // Saved as it is it stands, or is asked about at a field; a form may set right what stands beside it.
      if (again.ok) expect(form.shown(again.value)).toEqual(values);
      else expect(again.error.tag).toBe('refused');
    }
  });
});
