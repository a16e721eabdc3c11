import type { PackId, ProductId } from '~core/model/ids';
import type { AmountUnit, LabelAnalysis, Product } from '~core/model/product';

/** The made-up shelf of the demo bench. No real product, maker or claim. */

const analysis = (
  n: number,
  p: number,
  k: number,
  ca: number | null = null,
  mg: number | null = null,
): LabelAnalysis => ({
  basis: 'w/w',
  nPercent: n,
  p2o5Percent: p,
  k2oPercent: k,
  caPercent: ca,
  mgPercent: mg,
  sPercent: null,
});

interface Sketch {
  key: string;
  name: string;
  maker: string;
  form: Product['form'];
  category?: Product['category'];
  analysis?: LabelAnalysis;
  densityKgPerL?: number;
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
    analysis: analysis(4, 2, 5),
    densityKgPerL: 1.12,
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
    analysis: analysis(12, 6, 18, 4, 1.5),
    directions: '1 g per litre at every watering.',
    claims: ['Feeds 1,000 L from one bag', 'Stronger stems'],
    packs: [[1, 'kg', 1850]],
  },
  {
    key: 'sarmenta',
    name: 'Sarmenta Fine',
    maker: 'Casa Tramonto',
    form: 'powder',
    analysis: analysis(15, 5, 20, null, 2),
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
    analysis: analysis(1.5, 0.5, 2),
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
    directions: '2 mL per litre with the base feed.',
    claims: ['Roots twice as fast'],
    packs: [[250, 'mL', 1450]],
  },
];

export const demoProducts: Product[] = sketches.map((s) => ({
  id: `demo-${s.key}` as ProductId,
  name: s.name,
  maker: s.maker,
  category: s.category ?? 'fertilizer',
  form: s.form,
  analysis: s.analysis ?? null,
  densityKgPerL: s.densityKgPerL ?? null,
  directions: s.directions,
  claims: s.claims.map((text, i) => ({ id: `${s.key}-claim-${i + 1}`, text })),
  packs: s.packs.map(([size, unit, priceMinor], i) => ({
    id: `${s.key}-pack-${i + 1}` as PackId,
    size,
    unit,
    priceMinor,
    currency: 'EUR',
    boughtOn: null,
  })),
  obtained: s.obtained ?? 'bought',
  notes: '',
}));
