// Each rule has a plan that makes it fire and the clean plan that doesn't; each cure is applied and tried.
import { describe, expect, it } from 'vitest';
import { layOut } from '../design/layOut';
import type { AreaId, ProductId, TreatmentId } from '../model/ids';
import { type Conditions, Plan, type Treatment } from '../model/plan';
import type { Product } from '../model/product';
import { analysis as label, heightTrait, plan as somePlan, product, trait, use } from '../testing/trial';
import { type AuditFinding, audit, cure, openFindings, rules } from './audit';
import { roundToStep } from '../mixing/rounding';
import { seedCount } from './samenessRules';
import { layoutResidualDf } from './unitRules';
import type { AuditInput } from './rule';

const analysis = label({ nPercent: 10, p2o5Percent: 5, k2oPercent: 5 });
const powder = (id: string, over: Partial<Product> = {}): Product =>
  product({
    id: id as ProductId,
    name: `Prova ${id}`,
    form: 'powder',
    analysis,
    packs: [{ ...product().packs[0]!, size: 500, unit: 'g' }],
    ...over,
  });
const alike: Partial<Conditions> = {
  crop: 'cress',
  variety: 'plain',
  seedLot: '7',
  plantsPerUnit: 1,
  containerVolumeL: 2,
};

/** A plan no reader could object to: three treatments in five blocks, written, labelled, with spares. */
function clean(): Plan {
  const base = somePlan({ treatments: ['Water', 'A', 'B'], replicates: 7 });
  const treatments = base.treatments.map((t, i): Treatment => ({
    ...t,
    water: 'rain',
    light: 'LED 16 h',
    medium: 'plain coir',
    conditions: { ...t.conditions, ...alike },
    products:
      i === 0
        ? []
        : [use({ productId: ['', 'a', 'b'][i] as ProductId, amount: 2, unit: 'g', solutionLPerUnit: 1 })],
  }));
  const draft: Plan = {
    ...base,
    treatments,
    products: [powder('a'), powder('b')],
    winning: 'More weight than water.',
    scorer: 'Marta',
    matchedOn: 'label',
    spares: 3,
    scaleStepG: 0.1,
    areas: [{ ...base.areas[0]!, rows: 7, columns: 3 }],
    units: [],
  };
  const design = { kind: 'rcbd' as const, replicates: 7, seed: 6, settings: [], balance: null };
  const units = layOut(draft, design);
  if (!units.ok) throw new Error(units.error.tag);
  return { ...draft, design, units: units.value };
}

const input = (plan: Plan, over: Partial<AuditInput> = {}): AuditInput => ({
  plan,
  labelsPrinted: true,
  disclosure: '',
  me: 'Marta',
  ecByTreatment: new Map(),
  ...over,
});
const ids = (found: AuditFinding[]) => found.map((f) => f.ruleId);

const second = (p: Plan, change: (t: Treatment) => Treatment): Plan => ({
  ...p,
  treatments: p.treatments.map((t, i) => (i === 1 ? change(t) : t)),
});
const condition = (over: Partial<Conditions>) => (p: Plan) =>
  second(p, (t) => ({ ...t, conditions: { ...t.conditions, ...over } }));
const placed = (p: Plan, treatmentAt: (row: number, column: number) => number): Plan => ({
  ...p,
  design: { ...p.design!, kind: 'crd' },
  units: p.units.map((u) => ({
    ...u,
    block: null,
    treatmentId: p.treatments[treatmentAt(u.position.row, u.position.column)]!.id,
  })),
});
const bigArea = (p: Plan): Plan['areas'] => [{ ...p.areas[0]!, rows: 10, columns: 6 }];
const lit = (p: Plan, value: (row: number, column: number) => number): Plan => ({
  ...p,
  gradient: {
    name: 'Light',
    unit: 'µmol m⁻² s⁻¹',
    readings: Array.from({ length: 21 }, (_, i) => ({
      position: { areaId: p.areas[0]!.id, row: Math.floor(i / 3), column: i % 3 },
      value: value(Math.floor(i / 3), i % 3),
    })),
  },
});
/** One unit fewer of everything: the light belongs to the columns, and A has the bright one. */
const brightForA = (p: Plan) =>
  lit(
    placed(p, (row, column) => (column + (row > 5 ? 1 : 0)) % 3),
    (_, c) => 100 + 40 * c,
  );

interface Case {
  fault: (p: Plan) => Plan;
  over?: Partial<AuditInput> | ((p: Plan) => Partial<AuditInput>);
  found: RegExp;
  /** the rule has a button, and it cures */
  cures: boolean;
}

const cases: Record<string, Case> = {
  'two-questions': {
    fault: (p) => ({ ...p, question: 'Is it worth it, and which uses less water?' }),
    found: /“Is it worth it\?” and “Which uses less water\?”/,
    cures: true,
  },
  'hit-unevenly': {
    fault: (p) => p,
    over: (p) => ({
      happened: [
        {
          what: 'missedWatering',
          unitIds: p.units.flatMap((u) => (u.treatmentId === 'B' ? u.id : [])).slice(0, 2),
          text: 'jug empty',
        },
      ],
    }),
    found: /^Watering missed: 2 of 7 [a-z]+ of B\.$/,
    cures: false,
  },
  'not-the-same-air': {
    fault: (p) => ({
      ...p,
      areas: [...p.areas, { ...p.areas[0]!, id: 'upper' as AreaId, name: 'Upper' }],
      units: p.units.map((u) =>
        u.treatmentId === 'B' ? { ...u, position: { ...u.position, areaId: 'upper' as AreaId } } : u,
      ),
    }),
    over: {
      air: [
        { areaId: clean().areas[0]!.id, quantity: 'temperature', mean: 20 },
        { areaId: 'upper', quantity: 'temperature', mean: 21.8 },
      ],
    },
    found: /temperature: B 21.8, Water 20.0 °C on average/,
    cures: false,
  },
  'labels-lost': {
    fault: (p) => p,
    over: {
      lost: [
        clean()
          .units.slice(0, 2)
          .map((u) => u.id),
      ],
    },
    found: /not told apart yet/,
    cures: false,
  },
  'plants-unequal': {
    fault: (p) => p,
    over: (p) => ({ stands: p.units.map((u, i) => ({ unitId: u.id, count: i === 2 ? 11 : 9 })) }),
    found: /^By the counts in the log [A-Z]+-\d+ has 11 plants and [A-Z]+-\d+ 9\.$/,
    cures: false,
  },
  'split-unequal': {
    fault: (p) => p,
    over: (p) => ({ parts: new Map(p.units.slice(0, 2).map((u) => [u.id, 4])) }),
    found: /^19 in one vessel and 2 in 4 vessels\.$/,
    cures: false,
  },
  'neighbours-crowd': {
    fault: (p) => ({ ...p, areas: p.areas.map((a) => ({ ...a, widthCm: 100, depthCm: 100 })) }),
    over: (p) => ({
      positions: new Map(p.units.map((u) => [u.id, u.position])),
      heights: [{ unitId: p.units[0]!.id, cm: 99 }],
    }),
    found: /^1 of 21 [a-z]+: [A-Z]+-01 is 99 cm tall and \d+ cm from its neighbour\.$/,
    cures: false,
  },
  'ran-dry': {
    fault: (p) => p,
    over: (p) => ({
      happened: [
        { what: 'ranDry', unitIds: [p.units.find((u) => u.treatmentId === 'B')!.id], text: 'tank empty' },
      ],
    }),
    found: /^Out of water or feed: 1 of 7 of B \([A-Z]+-\d+\)\.$/,
    cures: false,
  },
  'ended-apart': {
    fault: (p) => p,
    over: (p) => ({
      ended: p.units.map((u) => ({ unitId: u.id, day: u.treatmentId === 'B' ? 24 : 21 })),
    }),
    found: /^[A-Za-z]+ was taken on day 21, B on day 24, on average\.$/,
    cures: false,
  },
  'dose-changed': {
    fault: (p) => p,
    over: (p) => ({
      doseChanges: [{ treatmentId: p.treatments.find((t) => t.products.length > 0)!.id, day: 9 }],
    }),
    found: /^From day 9 [A-Za-z]+: another dose than planned, the others as before\.$/,
    cures: false,
  },
  'mixed-otherwise': {
    fault: (p) => p,
    over: () => ({
      batches: [
        { batch: 'BOX-A-d0', amounts: [{ given: 44, wanted: 4.4 }] },
        {
          batch: 'BOX-B-d0',
          amounts: [
            { given: 4.6, wanted: 4.4 },
            { given: 0, wanted: 0.1 },
          ],
        },
        { batch: 'BOX-C-d0', amounts: [{ given: 4.8, wanted: 4.4 }] },
      ],
    }),
    found:
      /^More than 10 % off what was wanted of a product: BOX-A-d0 \(10 times as much\) and BOX-B-d0 \(nothing of it\)\.$/,
    cures: false,
  },
  'no-prediction': { fault: (p) => ({ ...p, prediction: '' }), found: /expect/, cures: false },
  'no-smallest-difference': {
    fault: (p) => ({ ...p, smallestDifference: null }),
    found: /how large/,
    cures: true,
  },
  'no-finishing-rule': {
    fault: (p) => ({ ...p, finishingRule: '' }),
    found: /when the trial ends/,
    cures: true,
  },
  'no-winning': { fault: (p) => ({ ...p, winning: '' }), found: /to win/, cures: true },
  'scale-without-steps': {
    fault: (p) => ({
      ...p,
      blinding: 'scorer',
      traits: [...p.traits, trait({ id: 'look' as never, name: 'Look', kind: 'score' })],
    }),
    found: /Look: its steps/,
    cures: true,
  },
  'nobody-scores': { fault: (p) => ({ ...p, scorer: '' }), found: /who measures/, cures: true },
  'scorer-not-blind': {
    fault: (p) => ({
      ...p,
      traits: [
        ...p.traits,
        trait({
          id: 'look' as never,
          name: 'Look',
          kind: 'score',
          scale: [
            { value: 1, text: 'bad' },
            { value: 2, text: 'good' },
          ],
        }),
      ],
    }),
    found: /Look is scored with the names in sight/,
    cures: true,
  },
  'no-control': {
    fault: (p) => ({ ...p, treatments: p.treatments.map((t) => ({ ...t, role: 'test' as const })) }),
    found: /No treatment is a control/,
    cures: true,
  },
  'additive-without-base': {
    fault: (p) =>
      second({ ...p, products: [...p.products, powder('c', { category: 'additive' })] }, (t) => ({
        ...t,
        products: [
          ...t.products,
          use({ productId: 'c' as ProductId, amount: 1, unit: 'g', solutionLPerUnit: 1 }),
        ],
      })),
    found: /A: no treatment has the base alone/,
    cures: true,
  },
  'several-changed': {
    fault: (p) => ({
      ...p,
      treatments: p.treatments.map((t, i) => ({ ...t, container: i === 1 ? 'fabric' : 'plastic' })),
    }),
    found: /A differs from Water in products and container/,
    cures: true,
  },
  'different-plants': {
    fault: condition({ seedLot: '8', variety: 'curly' }),
    found: /variety: .*seed lot: 7 \(Water, B\); 8 \(A\)/,
    cures: true,
  },
  'unequal-room': {
    fault: condition({ containerVolumeL: 3 }),
    found: /volume: 2 L \(Water, B\); 3 L \(A\)/,
    cures: true,
  },
  'nothing-said-alike': {
    fault: (p) => ({
      ...p,
      treatments: p.treatments.map((t) => ({
        ...t,
        container: '',
        medium: '',
        light: '',
        water: '',
        conditions: { ...t.conditions, seedLot: '', variety: '' },
      })),
    }),
    found: /Nothing is written about container/,
    cures: false,
  },
  'peers-only': {
    fault: (p) => ({
      ...p,
      peers: true,
      treatments: p.treatments.map((t, i) => ({
        ...t,
        role: 'test',
        products:
          i === 0
            ? [use({ productId: 'a' as ProductId, amount: 1, unit: 'g', solutionLPerUnit: 1 })]
            : t.products,
      })),
    }),
    found: /Water, A, B: none is a control/,
    cures: false,
  },
  'unequal-ground': {
    // Three strips of lawn side by side, the last one wider: what stands in the layout, not in the treatments.
    fault: (p) => ({
      ...p,
      areas: [50, 50, 85].map((widthCm, i) => ({
        ...p.areas[0]!,
        id: `strip${i}` as AreaId,
        kind: 'lawn' as const,
        rows: 7,
        columns: 1,
        widthCm,
        depthCm: 700,
      })),
      units: p.units.map((u) => ({
        ...u,
        position: { areaId: `strip${u.position.column}` as AreaId, row: u.position.row, column: 0 },
      })),
    }),
    found: /Trays of 0.50 to 0.85 m²; cut weight: compared per tray/,
    cures: true,
  },
  'unequal-volumes': {
    fault: (p) =>
      second(p, (t) => ({ ...t, products: [{ ...t.products[0]!, solutionLPerUnit: 1.8, amount: 2 }] })),
    found: /At a time, each tray: A 1.80 L, B 1.00 L/,
    cures: false,
  },
  'unequal-pieces': {
    fault: (p) => ({
      ...p,
      treatments: p.treatments.map((t, i) => ({
        ...t,
        products: t.products.map((u) => ({
          ...u,
          amount: i,
          unit: 'piece' as const,
          solutionLPerUnit: null,
        })),
      })),
    }),
    found: /1 a time \(A\); 2 a time \(B\)/,
    cures: false,
  },
  'shared-tank': {
    fault: (p) => ({ ...p, areas: [{ ...p.areas[0]!, kind: 'tank', name: 'Tank' }] }),
    found: /Tank: treatments share the water/,
    cures: false,
  },
  'unequal-dose': {
    fault: (p) =>
      second({ ...p, matchedOn: 'element' }, (t) => ({
        ...t,
        products: [{ ...t.products[0]!, amount: 4 }],
      })),
    found: /A 0\.4 g N, B 0\.2 g N/,
    cures: true,
  },
  'dose-error': {
    fault: (p) => ({
      ...second(p, (t) => ({ ...t, products: [{ ...t.products[0]!, amount: 0.2 }] })),
      scaleStepG: 1,
    }),
    found: /Prova a for 7 units: 1\.4 g becomes 1 g \(−28\.6 %\)/,
    cures: true,
  },
  'above-label': {
    fault: (p) => ({
      ...p,
      products: p.products.map((x) => ({ ...x, labelRate: '0.05 g/L' })),
    }),
    found: /A: Prova a at \d+ times the highest rate/,
    cures: true,
  },
  'fed-medium': { fault: condition({ mediumFed: true }), found: /A: plain coir carries feed/, cures: false },
  'control-water': {
    fault: (p) => second(p, (t) => ({ ...t, water: 'tap' })),
    found: /rain \(Water, B\); tap \(A\)/,
    cures: true,
  },
  'unequal-light': {
    fault: (p) => second(p, (t) => ({ ...t, light: 'window' })),
    found: /window \(A\)/,
    cures: true,
  },
  'unequal-handling': {
    fault: (p) => ({
      ...p,
      treatments: p.treatments.map((t, i) => ({
        ...t,
        conditions: { ...t.conditions, mediumLot: `bag ${i === 1 ? 2 : 1}` },
      })),
    }),
    found: /bag 2 \(A\)/,
    cures: true,
  },
  'unequal-finish': { fault: condition({ finishDay: 12 }), found: /A on day 12/, cures: true },
  'unequal-seed-count': {
    fault: (p) => ({
      ...p,
      treatments: p.treatments.map((t, i) => ({
        ...t,
        conditions: { ...t.conditions, seedWeightG: 10, thousandSeedG: i === 1 ? 4 : 2 },
      })),
    }),
    found: /Water 5000, A 2500, B 5000/,
    cures: true,
  },
  undisclosed: {
    fault: (p) => ({ ...p, products: [powder('a', { obtained: 'own product' }), powder('b')] }),
    found: /Prova a \(own product\)/,
    cures: true,
  },
  'same-treatment-twice': {
    fault: (p) => ({
      ...p,
      treatments: p.treatments.map((t, i) => (i === 2 ? { ...t, products: p.treatments[1]!.products } : t)),
    }),
    found: /A and B get the same/,
    cures: false,
  },
  'log-incomplete': {
    fault: (p) => p,
    over: { notLogged: [{ name: 'A', product: 'Prova', days: 1, planned: 5 }] },
    found: /A: Prova on 1 of 5 days/,
    cures: false,
  },
  'shared-place': {
    fault: (p) => ({
      ...p,
      areas: p.treatments.map((t) => ({
        ...bigArea(p)[0]!,
        id: `tent ${t.id}` as (typeof p.areas)[number]['id'],
        name: `Tent ${t.name}`,
        kind: 'tent' as const,
      })),
      units: p.treatments.flatMap((t, k) =>
        p.units.slice(2 * k, 2 * k + 2).map((u, i) => ({
          ...u,
          treatmentId: t.id,
          position: { areaId: `tent ${t.id}` as (typeof p.areas)[number]['id'], row: 0, column: i },
        })),
      ),
    }),
    found: /Tent Water: Water, 2 trays; Tent A: A, 2 trays.*one area/,
    cures: true,
  },
  'nearly-equal-room': {
    fault: (p) => ({
      ...p,
      treatments: p.treatments.map((t, i) => ({
        ...t,
        conditions: { ...t.conditions, containerVolumeL: 20 + i * 0.5 },
      })),
    }),
    found: /volume: 20 L \(Water\); 20.5 L \(A\); 21 L \(B\)/,
    cures: false,
  },
  'one-unit': {
    fault: (p) => ({
      ...p,
      areas: bigArea(p),
      units: p.units.slice(0, 3).map((u, i) => ({ ...u, treatmentId: p.treatments[i]!.id })),
    }),
    found: /Water, A, B: one tray each/,
    cures: true,
  },
  'samples-as-units': {
    fault: (p) => ({ ...p, unitNoun: 'pod', protocolId: 'pods' }),
    found: /called a pod, but in this kind of trial a device holds several/,
    cures: true,
  },
  'few-degrees': {
    fault: (p) => ({ ...p, areas: bigArea(p), units: p.units.slice(0, 9) }),
    found: /4 values over/,
    cures: true,
  },
  'few-for-days': {
    fault: (p) => ({
      ...p,
      units: p.units.filter((u) => u.position.row < 3).map((u) => ({ ...u, block: null })),
      traits: p.traits.map((t) => (t.id === p.primaryTraitId ? { ...t, kind: 'time' as const } : t)),
    }),
    found: /nothing can be told unless it happens to every one/,
    cures: false,
  },
  'unequal-repeats': { fault: (p) => ({ ...p, units: p.units.slice(1) }), found: /6/, cures: true },
  'not-randomised': {
    fault: (p) => ({ ...p, design: { ...p.design!, kind: 'hand' } }),
    found: /by hand/,
    cures: true,
  },
  'whole-lines': {
    fault: (p) => placed(p, (_, column) => column),
    found: /Water fills column 1 of Shelf/,
    cures: true,
  },
  'gradient-unbalanced': {
    fault: brightForA,
    found: /Light: Water 1\d\d, A 1\d\d, B 1\d\d µmol.*% apart/,
    cures: true,
  },
  'places-unbalanced': {
    fault: (p) =>
      placed(p, (row, column) => (row === 0 ? (column + 1) % 3 : row === 1 ? (column + 2) % 3 : column)),
    found: /stands mostly to the left/,
    cures: true,
  },
  edges: {
    fault: (p) => ({
      ...p,
      areas: [{ ...p.areas[0]!, kind: 'bed' }],
      units: p.units.map((u) => ({ ...u, block: null })),
    }),
    found: /stand at the edge/,
    cures: true,
  },
  shading: {
    fault: (p) => ({
      ...p,
      traits: [p.traits[0]!, heightTrait({ plausibleHigh: 80 })],
      areas: [{ ...p.areas[0]!, widthCm: 90, depthCm: 210 }],
    }),
    found: /Up to 80 cm tall; Shelf: 30 cm/,
    cures: true,
  },
  'start-sizes': {
    fault: (p) => ({
      ...p,
      units: p.units.map((u) => ({ ...u, startSize: u.treatmentId === p.treatments[1]!.id ? 6 : 5 })),
    }),
    found: /A 6.*19 % apart/,
    cures: false,
  },
  'no-spares': { fault: (p) => ({ ...p, spares: 0 }), found: /No reserves/, cures: true },
  'labels-not-printed': {
    fault: (p) => p,
    over: { labelsPrinted: false },
    found: /21 trays have no label/,
    cures: false,
  },
  'does-not-fit': {
    fault: (p) => ({
      ...p,
      unitWidthCm: 54,
      unitDepthCm: 28,
      areas: [{ ...p.areas[0]!, widthCm: 90, depthCm: 210 }],
    }),
    found: /30 × 30 cm a position/,
    cures: false,
  },
};

it('a base at the same rate on a strip of another size is the base alone', () => {
  const strip =
    (cm2: number, products: Treatment['products']) =>
    (t: Treatment): Treatment => ({
      ...t,
      conditions: { ...t.conditions, areaPerUnitCm2: cm2 },
      products,
    });
  const base = (grams: number) => use({ productId: 'a' as ProductId, amount: grams, unit: 'g' });
  const added = use({ productId: 'b' as ProductId, amount: 5, unit: 'g' });
  // 20 g/m² of the base on 1 m² and on 1.7 m²; the amendment comes on top of the second.
  const made = (baseGrams: number): Plan => {
    const p = clean();
    return {
      ...p,
      products: [powder('a'), powder('b', { category: 'additive' })],
      treatments: [
        p.treatments[0]!,
        strip(10_000, [base(baseGrams)])(p.treatments[1]!),
        strip(17_000, [base(34), added])(p.treatments[2]!),
      ],
    };
  };
  expect(ids(audit(input(made(20))))).not.toContain('additive-without-base');
  expect(ids(audit(input(made(34))))).toContain('additive-without-base');
});

it('nothing fires on a clean plan', () => {
  expect(audit(input(clean()))).toEqual([]);
});

it('every rule has a case here, and an id, reason and cure of its own', () => {
  expect(Object.keys(cases).sort()).toEqual(rules.map((r) => r.id).sort());
  expect(new Set(rules.map((r) => r.title)).size).toBe(rules.length);
});

describe.each(Object.entries(cases))('%s', (id, { fault, over: more, found, cures }) => {
  const faulty = fault(clean());
  const over = typeof more === 'function' ? more(faulty) : more;
  const finding = audit(input(faulty, over)).find((f) => f.ruleId === id);
  it('fires on its fault and says what it found', () => {
    expect(Plan.safeParse(faulty).error).toBeUndefined();
    expect(finding?.found).toMatch(found);
    expect(finding!.why).not.toBe('');
    expect(finding!.cure).not.toBe('');
  });
  it(cures ? 'is cured by its button' : 'is cured by hand', () => {
    expect(finding!.fixLabel === null).toBe(!cures);
    const cured = cure(input(faulty, over), id, 6);
    if (!cures) return expect(cured).toBeNull();
    const after = input(cured!.plan ?? faulty, { ...over, disclosure: cured!.disclosure ?? '' });
    expect(Plan.safeParse(after.plan).error).toBeUndefined();
    expect(ids(audit(after))).not.toContain(id);
  });
  it('can be accepted with a reason', () => {
    const accepted = { ...faulty, accepted: [{ ruleId: id, reason: 'It can’t be had otherwise.' }] };
    const after = audit(input(accepted, over));
    expect(after.find((f) => f.ruleId === id)?.accepted).toBe('It can’t be had otherwise.');
    expect(ids(openFindings(after))).not.toContain(id);
  });
});

describe('details', () => {
  it('what hits all alike, or no unit by name, isn’t uneven; places alike in the air aren’t told', () => {
    const p = clean();
    const one = p.treatments.map((t) => p.units.find((u) => u.treatmentId === t.id)!.id);
    const alike = [one, [], p.units.map((u) => u.id)].map((unitIds) => ({
      what: 'heat' as const,
      unitIds,
      text: '',
    }));
    const air = p.areas.map((a) => ({ areaId: a.id as string, quantity: 'temperature', mean: 20 }));
    expect(ids(audit(input(p, { happened: alike, air, lost: [] })))).toEqual([]);
  });
  it('equal strength asks for readings, and takes them', () => {
    const p: Plan = { ...clean(), matchedOn: 'strength' };
    const unknown = { ...p, products: p.products.map((x) => ({ ...x, analysis: null })) };
    expect(audit(input(unknown))[0]?.found).toMatch(/can’t be worked out for A, B/);
    // both doses are the same by their labels; one of them twice as strong isn't
    expect(ids(audit(input(p)))).toEqual([]);
    const strong = second(p, (t) => ({
      ...t,
      products: t.products.map((u) => ({ ...u, amount: u.amount * 3 })),
    }));
    expect(audit(input(strong)).find((f) => f.ruleId === 'unequal-dose')?.found).toMatch(/mS/);
    const read = new Map([
      ['A', 1.4],
      ['B', 1.45],
    ]);
    expect(ids(audit(input(p, { ecByTreatment: read })))).toEqual([]);
    expect(
      audit(
        input(p, {
          ecByTreatment: new Map([
            ['A', 1.4],
            ['B', 2],
          ]),
        }),
      )[0]?.found,
    ).toMatch(/B 2 mS/);
  });
  it('equal money compares prices per unit', () => {
    const dear = powder('a', { packs: [{ ...product().packs[0]!, size: 100, unit: 'g' }] });
    const p: Plan = { ...clean(), matchedOn: 'money', products: [dear, powder('b')] };
    expect(audit(input(p))[0]?.found).toMatch(/Equal money was promised; per tray/);
  });
  it('a trial of seeds or lamps may differ in them', () => {
    const seeds = {
      ...condition({ seedLot: '8' })(clean()),
      products: [powder('a', { category: 'seed' }), powder('b')],
    };
    expect(ids(audit(input(seeds)))).toEqual([]);
    const lamps = second(
      { ...clean(), products: [powder('a', { category: 'light' }), powder('b')] },
      (t) => ({ ...t, light: 'bars' }),
    );
    expect(ids(audit(input(lamps)))).not.toContain('unequal-light');
  });
  it('a rotation answers for lines, gradient and shade', () => {
    const lines = { ...placed(clean(), (_, c) => c), rotation: { everyDays: 1, within: 'all' as const } };
    expect(ids(audit(input(lines)))).not.toContain('whole-lines');
  });
  it('guards answer for the edge', () => {
    const faulty = cases.edges!.fault(clean());
    const area = faulty.areas[0]!;
    const guarded = {
      ...faulty,
      areas: [
        {
          ...area,
          id: area.id as AreaId,
          columns: 4,
          reserved: [{ row: 0, column: 3, use: 'guard' as const }],
        },
      ],
    };
    expect(ids(audit(input(guarded)))).not.toContain('edges');
  });
  it('gravest first, accepted last', () => {
    const p: Plan = {
      ...cases['different-plants']!.fault(clean()),
      prediction: '',
      spares: 0,
      accepted: [{ ruleId: 'different-plants', reason: 'no more seed' }],
    };
    expect(ids(audit(input(p)))).toEqual(['no-prediction', 'no-spares', 'different-plants']);
  });
  it('a 2.4 g dose on a whole-gram scale is 16.7 % short', () => {
    expect(roundToStep(2.4, 1).errorPercent).toBeCloseTo(-16.7, 1);
  });
  it('10 g of seed at 2.5 g a thousand are 4000 seeds', () => {
    expect(seedCount(10, 2.5)).toBe(4000);
  });
  it('a Latin square of five leaves 12 residual degrees of freedom, two of three leave 10 − 2', () => {
    const square = (k: number, replicates: number) => {
      const names = ['Water', 'A', 'B', 'C', 'D'].slice(0, k);
      const base = { ...somePlan({ treatments: names, replicates: 3 }) };
      const p = { ...base, areas: [{ ...base.areas[0]!, rows: replicates, columns: k }] };
      const units = layOut(
        { ...p, units: [] },
        { kind: 'latin', replicates, seed: 1, settings: [], balance: null },
      );
      if (!units.ok) throw new Error(units.error.tag);
      return layoutResidualDf({ ...p, units: units.value });
    };
    expect(square(5, 5)).toBe(12);
    // 18 units: 1 mean, 1 between squares, 4 rows, 4 columns, 2 treatments leave 6.
    expect(square(3, 6)).toBe(6);
  });
  it('no cure for a rule that doesn’t fire, or isn’t known', () => {
    expect(cure(input(clean()), 'no-control', 1)).toBeNull();
    expect(cure(input(clean()), 'nonsense', 1)).toBeNull();
    expect(clean().treatments[0]!.id).toBe('Water' as TreatmentId);
  });
});
