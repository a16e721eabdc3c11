import { usMeasures } from '../quantity/units';
import type { ProductId } from './ids';
import type { Product } from './product';

/** A product of which nothing is known but its name. */
export const blankProduct = (id: ProductId, name: string): Product => ({
  id,
  name,
  maker: '',
  category: 'fertilizer',
  form: 'liquid',
  analysis: null,
  densityKgPerL: null,
  directions: '',
  labelRate: '',
  labelMeasures: usMeasures,
  spoon: null,
  ownMeasures: [],
  solubilityGPerL: null,
  character: [],
  claims: [],
  packs: [],
  obtained: 'bought',
  notes: '',
});
