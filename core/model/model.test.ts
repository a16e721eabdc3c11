import { createHash } from 'node:crypto';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Entry } from '../log/entry';
import { Trial } from '../log/trial';
import { entryAsVersion3, planAsVersion2, planAsVersion3, without } from '../testing/olderFiles';
import { analysis, entry, height, plan, product, trait, unitId, use, weighing } from '../testing/trial';
import { describeMigrationError, migrate } from './migrations';
import { newInVersion2 } from './blankPlan';
import { Plan } from './plan';
import { controlOf } from '../plan/control';
import { canonicalJson, missingForSeal, planSha256 } from '../plan/seal';

describe('the sealed hash', () => {
  it('is SHA-256 of the canonical JSON, as Node’s crypto has it', () => {
    const expected = createHash('sha256').update(canonicalJson(plan())).digest('hex');
    expect(planSha256(plan())).toBe(expected);
  });
  it('doesn’t depend on the order of keys (RFC 8785)', () => {
    fc.assert(
      fc.property(fc.dictionary(fc.string(), fc.jsonValue()), (o) => {
        const turned = Object.fromEntries(Object.entries(o).reverse());
        expect(canonicalJson(turned)).toBe(canonicalJson(o));
        expect(JSON.parse(canonicalJson(o))).toEqual(JSON.parse(JSON.stringify(o)));
      }),
    );
  });
  it('changes with any change of the plan', () => {
    expect(planSha256({ ...plan(), prediction: 'No.' })).not.toBe(planSha256(plan()));
  });
});

describe('what is missing before the seal', () => {
  it('nothing on a whole plan', () => expect(missingForSeal(plan())).toEqual([]));
  it.each([
    [{ prediction: '' }, 'question'],
    [{ primaryTraitId: null }, 'question'],
    [{ smallestDifference: null }, 'question'],
    [{ rounds: [] }, 'question'],
    [{ rounds: plan().rounds.filter((r) => r.name === 'First') }, 'question'],
    [{ treatments: plan().treatments.map((t) => ({ ...t, role: 'test' as const })) }, 'contenders'],
    [{ units: [] }, 'layout'],
    [{ units: plan().units.filter((u) => u.treatmentId === 'A') }, 'layout'],
  ])('%#', (over, room) => {
    expect(missingForSeal({ ...plan(), ...over }).map((m) => m.room)).toEqual([room]);
  });
});

describe('the plan’s schema', () => {
  const issues = (over: object) => {
    const read = Plan.safeParse({ ...plan(), ...over });
    return read.success ? [] : read.error.issues.map((i) => i.message);
  };
  const [first, ...rest] = plan().units;
  it.each([
    [{ primaryTraitId: 'nobody' }, /primary trait/],
    [{ rounds: [{ ...plan().rounds[0]!, traitIds: ['nobody'] }] }, /unknown trait/],
    [{ units: [{ ...first, treatmentId: 'nobody' }, ...rest] }, /unknown treatment/],
    [
      { units: [{ ...first, position: { areaId: 'shelf', row: 99, column: 0 } }, ...rest] },
      /outside its area/,
    ],
    [{ units: [first, { ...rest[0]!, position: first!.position }] }, /one position/],
    [{ traits: [trait({ direction: 'band' })], rounds: [] }, /lower and a higher end/],
    [{ currency: 'euro' }, /three-letter code/],
    [{ startDate: 'tomorrow' }, /whole day, such as/],
  ])('%#', (over, said) => expect(issues(over).join()).toMatch(said));
});

it('the control is the untreated treatment, else the base, else the reference', () => {
  const [a, b] = plan().treatments;
  expect(
    controlOf({
      treatments: [
        { ...a!, role: 'reference' },
        { ...b!, role: 'base' },
      ],
    })!.name,
  ).toBe('A');
  expect(controlOf({ treatments: [{ ...a!, role: 'test' }] })).toBeNull();
});

it('log lines of every kind are read, others refused', () => {
  expect(Entry.safeParse(entry(height(unitId('A', 0), 3))).success).toBe(true);
  expect(Entry.safeParse(entry({ kind: 'note', unitId: null, text: ' ' })).success).toBe(false);
  expect(Entry.safeParse({ ...entry(height(unitId('A', 0), 3)), at: 'noon' }).success).toBe(false);
  expect(
    Entry.safeParse(
      entry({ kind: 'correction', supersedes: 'x', replacement: { kind: 'correction' }, reason: '' }),
    ).success,
  ).toBe(false);
});

describe('migrations', () => {
  const steps = [
    {
      from: 1,
      what: 'a is called b',
      migrate: ({ a, ...rest }: Record<string, unknown>) => ({ ...rest, b: a }),
    },
    {
      from: 2,
      what: 'b counts double',
      migrate: (f: Record<string, unknown>) => ({ ...f, b: Number(f.b) * 2 }),
    },
  ];
  it('run in order up to the newest', () => {
    expect(migrate({ version: 1, a: 4 }, steps, 3)).toEqual({ ok: true, value: { version: 3, b: 8 } });
    expect(migrate({ version: 3, b: 1 }, steps, 3)).toEqual({ ok: true, value: { version: 3, b: 1 } });
  });
  it.each([
    [{ a: 1 }, 'noVersion'],
    [null, 'noVersion'],
    [{ version: 4 }, 'newer'],
    [{ version: 0 }, 'noPath'],
  ])('%j is %s', (file, tag) => {
    const read = migrate(file, steps, 3);
    expect(read).toMatchObject({ ok: false, error: { tag } });
    if (!read.ok) expect(describeMigrationError(read.error)).toMatch(/\.$/);
  });
});

const emptyTexts = () => ({ author: '', introduction: '', conclusion: '', disclosure: '' });

describe('earlier versions of the trial file', () => {
  const old = () => {
    const p = plan();
    const second = planAsVersion2({
      ...p,
      products: [product()],
      treatments: p.treatments.map((t) => ({ ...t, products: [use()] })),
    }) as unknown as Plan;
    return {
      palazzo: 'trial',
      version: 1,
      log: [],
      review: { author: '', introduction: '', conclusion: '', disclosure: '' },
      plan: {
        ...without(second, ...Object.keys(newInVersion2())),
        traits: p.traits.map((t) => without(t, 'outOf', 'scale')),
        treatments: second.treatments.map((t) => ({
          ...without(t, 'system', 'conditions', 'levels', 'expectedPercent'),
          products: t.products.map((u) => without(u, 'stage')),
        })),
        areas: p.areas.map((a) => without(a, 'reserved')),
        units: p.units.map((u) => without(u, 'columnBlock', 'setting', 'startSize')),
        design: without(p.design!, 'settings', 'balance'),
      },
    };
  };
  it('version 1 is read with everything new empty', () => {
    const read = migrate(old());
    if (!read.ok) throw new Error(read.error.tag);
    const trial = Trial.parse(read.value);
    const p = plan();
    expect(trial.key).toBeNull();
    expect(trial.plan).toEqual({
      ...p,
      products: [product()],
      treatments: p.treatments.map((t) => ({ ...t, products: [use()] })),
    });
  });
  it('version 3 is reached from version 2: doses at full strength, on no fixed days, by the chart', () => {
    const p = plan();
    const label = analysis({ nPercent: 10, p2o5Percent: 4, k2oPercent: 5 });
    const now = {
      ...p,
      products: [product({ analysis: label })],
      treatments: p.treatments.map((t) => ({ ...t, products: [use()] })),
    };
    const file = { palazzo: 'trial', version: 2, key: null, log: [], review: old().review };
    const read = migrate({ ...file, plan: planAsVersion2(now) });
    if (!read.ok) throw new Error(read.error.tag);
    expect(Trial.parse(read.value).plan).toEqual(now);
  });
  it('version 4 is reached from version 3: lines get a clock, the same on every device; a sealed plan keeps a copy', () => {
    const now = { ...plan(), matchedOn: 'element' as const };
    const log = [
      entry({ kind: 'seal', planSha256: 'a'.repeat(64) }, 's'),
      entry(weighing(unitId('A', 0), 20), 'w'),
      entry(
        { kind: 'correction', supersedes: 'w', replacement: weighing(unitId('A', 0), 21), reason: '' },
        'c',
      ),
    ];
    const old = {
      version: 3,
      key: null,
      review: emptyTexts(),
      plan: planAsVersion3(now),
      log: log.map(entryAsVersion3),
    };
    const read = migrate(old);
    if (!read.ok) throw new Error(read.error.tag);
    const trial = Trial.parse(read.value);
    expect(trial.plan).toEqual(now);
    expect(trial.log.map((e) => e.counter)).toEqual(log.map((e) => Date.parse(e.recordedAt)));
    expect(trial.log.every((e) => e.device === '' && e.offsetMin === null)).toBe(true);
    expect(trial.log[1]).toMatchObject({ kind: 'weighing', sample: null });
    expect(trial.log[2]).toMatchObject({ replacement: { sample: null } });
    expect(trial.sealedAs).toEqual({ version: 3, plan: planAsVersion3(now) });
    const unsealed = migrate({ ...old, log: [] });
    expect(unsealed.ok && unsealed.value.sealedAs).toBeNull();
  });
  it('a plan of version 1 without a layout stays so', () => {
    const bare = old();
    const read = migrate({ ...bare, plan: { ...bare.plan, design: null, units: [] } });
    expect(read.ok && (read.value.plan as Plan).design).toBeNull();
  });
});
