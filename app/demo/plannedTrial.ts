import type { ProductId } from '~core/model/ids';
import { type Trial, emptyReview } from '~core/log/trial';
import type { Day } from './demoParts';
import { demoProducts } from './demoProducts';
import { planOf } from './demoTrials';

/** Being planned, with faults to find: an additive on radish without its base alone, in whole columns. */
export function planned(day: Day): Trial {
  const code = 'RAD';
  const plan = planOf({
    code,
    question: 'Does an algae additive make rounder radishes, and which box needs less water?',
    crop: 'radish',
    unitNoun: 'box',
    startDate: day(6),
    prediction: '',
    finishingRule: '',
    traits: [
      { key: 'weight', name: 'Root weight', unit: 'g', kind: 'weighing', decimals: 1, summary: 'sum' },
      { key: 'round', name: 'Roundness', unit: 'points', kind: 'score', decimals: 1, summary: 'last' },
    ],
    primary: 'weight',
    smallest: null,
    rounds: [{ name: 'Harvest', day: 30, traits: ['weight', 'round'] }],
    arms: [
      { key: 'water', name: 'Water', role: 'untreated' },
      {
        key: 'duo',
        name: 'Duo Lume',
        role: 'reference',
        use: { product: 'duo', amount: 0.5, unit: 'g', solutionL: 0.4, times: 4 },
      },
      {
        key: 'mosto',
        name: 'Palestra + Mosto Alga',
        role: 'test',
        use: { product: 'palestra', amount: 5, unit: 'mL', solutionL: 0.5, times: 4 },
      },
    ],
    areas: [{ name: 'Garden bed', rows: 4, columns: 3, widthCm: 180, depthCm: 200 }],
    design: { kind: 'hand', replicates: 4, seed: 1 },
    more: (p) => ({
      ...p,
      unitWidthCm: 50,
      unitDepthCm: 40,
      scaleStepG: 1,
      areas: p.areas.map((a) => ({ ...a, kind: 'bed' })),
      products: demoProducts.filter((x) => ['demo-duo', 'demo-palestra', 'demo-mosto'].includes(x.id)),
      treatments: p.treatments.map((t, i) => ({
        ...t,
        container: 'box of 20 L',
        light: 'full sun',
        water: i === 0 ? 'tap water' : 'rain water',
        conditions: {
          ...t.conditions,
          crop: 'radish',
          seedLot: i === 2 ? 'packet of last year' : 'new packet',
        },
        products:
          i === 2
            ? [
                ...t.products,
                {
                  productId: 'demo-mosto' as ProductId,
                  packId: null,
                  amount: 2,
                  unit: 'mL',
                  solutionLPerUnit: 0.5,
                  rateText: '',
                  timesPerUnit: 4,
                  fromDay: null,
                  everyDays: null,
                  strengthPercent: 100,
                  stage: 'from the third leaf',
                },
              ]
            : t.products,
      })),
      gradient: {
        name: 'Light',
        unit: 'µmol m⁻² s⁻¹',
        readings: Array.from({ length: 12 }, (_, i) => ({
          position: { areaId: p.areas[0]!.id, row: Math.floor(i / 3), column: i % 3 },
          value: [520, 480, 390][i % 3]! - 8 * Math.floor(i / 3),
        })),
      },
    }),
  });
  // Set out by hand, a column to each contender.
  const columns = {
    ...plan,
    units: plan.units.map((u) => ({ ...u, treatmentId: plan.treatments[u.position.column]!.id })),
  };
  return { plan: columns, log: [], review: emptyReview, key: null, sealedAs: null, conflicts: [] };
}
