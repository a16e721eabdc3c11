import type { PackId, ProductId } from '~core/model/ids';
import type { AmountUnit, LabelAnalysis, Product } from '~core/model/product';
import { emptyAnalysis } from '~core/mixing/analysisText';
import { usMeasures } from '~core/quantity/units';

/** The made-up shelf of the demo bench. No real product, maker or claim. */

const label = (over: Partial<LabelAnalysis>): LabelAnalysis => ({ ...emptyAnalysis, ...over });

interface Sketch {
  key: string;
  name: string;
  maker: string;
  form: Product['form'];
  category?: Product['category'];
  analysis?: Partial<LabelAnalysis>;
  densityKgPerL?: number;
  rate: string;
  spoon?: Product['spoon'];
  solubilityGPerL?: number;
  ownMeasures?: Product['ownMeasures'];
  character?: Product['character'];
  directions: string;
  claims: string[];
  packs: [size: number, unit: AmountUnit, priceMinor: number][];
  obtained?: Product['obtained'];
}

const sketches: Sketch[] = [
  {
    key: 'palestra',
    name: 'Palestra Liquida',
    maker: 'Officina Brolo',
    form: 'liquid',
    analysis: { nPercent: 4, nitratePercent: 2.5, ammoniumPercent: 1.5, p2o5Percent: 2, k2oPercent: 5 },
    densityKgPerL: 1.12,
    rate: '5 mL/L',
    ownMeasures: [{ name: 'cap', amount: 10, unit: 'mL' }],
    directions: '5 mL per litre of water, once a week.',
    claims: ['Twice the harvest in three weeks'],
    packs: [
      [500, 'mL', 790],
      [1, 'L', 1290],
    ],
  },
  {
    key: 'duo',
    name: 'Duo Lume',
    maker: 'Casa Tramonto',
    form: 'powder',
    analysis: {
      nPercent: 12,
      nitratePercent: 10.5,
      ammoniumPercent: 1.5,
      p2o5Percent: 6,
      k2oPercent: 18,
      caPercent: 4,
      mgPercent: 1.5,
      micros: { Fe: 0.12, Mn: 0.05, Zn: 0.02, B: 0.02 },
    },
    rate: '0.8–1.2 g/L',
    spoon: { volumeMl: 5, massesG: [4.7, 4.9, 4.8, 4.7, 4.9] },
    solubilityGPerL: 250,
    directions: '1 g per litre at every watering.',
    claims: ['Feeds 1,000 L from one bag', 'Half as much leaf again', 'Stays compact'],
    packs: [[1, 'kg', 1850]],
  },
  {
    key: 'sarmenta',
    name: 'Sarmenta Fine',
    maker: 'Casa Tramonto',
    form: 'powder',
    analysis: {
      nPercent: 15,
      nitratePercent: 9,
      ureaPercent: 6,
      p2o5Percent: 5,
      k2oPercent: 20,
      mgPercent: 2,
    },
    rate: '0.8 g/L',
    solubilityGPerL: 300,
    directions: '0.8 g per litre at every watering.',
    claims: ['Up to 30 % more leaf than water'],
    packs: [[500, 'g', 2490]],
    obtained: 'sent free',
  },
  {
    key: 'ombretta',
    name: 'Ombretta Bio',
    maker: 'Fratelli Nessuno',
    form: 'liquid',
    analysis: { nPercent: 1.5, p2o5Percent: 0.5, k2oPercent: 2 },
    densityKgPerL: 1.05,
    rate: '10 mL/L',
    directions: '10 mL per litre, twice a week.',
    claims: ['Better taste, naturally'],
    packs: [[1, 'L', 990]],
  },
  {
    key: 'mosto',
    name: 'Mosto Alga',
    maker: 'Fratelli Nessuno',
    form: 'liquid',
    category: 'additive',
    rate: '2 mL/L',
    directions: '2 mL per litre with the base feed.',
    claims: ['Roots twice as fast'],
    packs: [[250, 'mL', 1450]],
  },
  {
    key: 'trittico-1',
    name: 'Trittico Primo',
    maker: 'Bottega Ventaglio',
    form: 'liquid',
    analysis: { basis: 'w/v', nPercent: 0, k2oPercent: 3, micros: { Si: 6 } },
    densityKgPerL: 1.18,
    rate: '0.5 mL/L',
    directions: '0.5 mL per litre, first into the water.',
    character: ['alkali'],
    claims: [],
    packs: [[250, 'mL', 890]],
  },
  {
    key: 'trittico-2',
    name: 'Trittico Secondo',
    maker: 'Bottega Ventaglio',
    form: 'powder',
    analysis: {
      p2o5Percent: 12,
      k2oPercent: 30,
      mgPercent: 4,
      sPercent: 6,
      micros: { Fe: 0.2, Mn: 0.08, Zn: 0.03 },
    },
    rate: '12 g / 5 gal',
    solubilityGPerL: 120,
    directions: '12 grams to five gallons.',
    claims: ['Nothing else needed'],
    packs: [[500, 'g', 1390]],
  },
  {
    key: 'trittico-3',
    name: 'Trittico Terzo',
    maker: 'Bottega Ventaglio',
    form: 'powder',
    analysis: { nPercent: 15.5, nitratePercent: 14.4, ammoniumPercent: 1.1, caPercent: 19 },
    rate: '12 g / 5 gal',
    spoon: { volumeMl: 5, massesG: [5.2, 5.4, 5.1, 5.3, 5.3] },
    solubilityGPerL: 1200,
    directions: '12 grams to five gallons, apart from the second part.',
    claims: [],
    packs: [[1, 'kg', 1190]],
  },
];

export const demoProducts: Product[] = sketches.map((s, n) => ({
  id: `demo-${s.key}` as ProductId,
  tile: n + 1,
  name: s.name,
  maker: s.maker,
  category: s.category ?? 'fertilizer',
  form: s.form,
  analysis: s.analysis ? label(s.analysis) : null,
  densityKgPerL: s.densityKgPerL ?? null,
  directions: s.directions,
  labelRate: s.rate,
  labelMeasures: usMeasures,
  spoon: s.spoon ?? null,
  ownMeasures: s.ownMeasures ?? [],
  solubilityGPerL: s.solubilityGPerL ?? null,
  character: s.character ?? [],
  claims: s.claims.map((text, i) => ({ id: `${s.key}-claim-${i + 1}`, text })),
  packs: s.packs.map(([size, unit, priceMinor], i) => ({
    id: `${s.key}-pack-${i + 1}` as PackId,
    size,
    unit,
    priceMinor,
    currency: 'EUR',
    boughtOn: null,
    shop: i === 0 ? ('garden centre' as const) : ('online shop' as const),
    count: 1,
  })),
  obtained: s.obtained ?? 'bought',
  notes: '',
}));
