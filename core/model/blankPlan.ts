import type { TreatmentId } from './ids';
import type { SizeUnits } from '../quantity/sizeText';
import { drawnId } from './newId';
import { type Plan, type Role, type Treatment, noConditions, plainSetUp } from './plan';

/** The fields that came with version 2 of the file format, empty. */
export const newInVersion2 = () =>
  ({
    alsoAsked: '',
    protocolId: null,
    winning: '',
    scorer: '',
    cvPercent: null,
    factors: [],
    matchedOn: 'asIs',
    wholeSystem: false,
    cropsWithin: [],
    blinding: 'open',
    unitShape: 'rectangle',
    unitWidthCm: null,
    unitDepthCm: null,
    gradient: null,
    rotation: null,
    spares: 0,
    scaleStepG: null,
    accepted: [],
  }) satisfies Partial<Plan>;

/** The fields that came with version 3 of the file format, empty. */
export const newInVersion3 = () => ({ mixing: plainSetUp }) satisfies Partial<Plan>;

type Begun = Pick<Plan, 'id' | 'question' | 'code' | 'crop' | 'unitNoun' | 'startDate' | 'currency'>;

/** A plan with nothing in it yet but its name, crop and dates. */
export const blankPlan = (begun: Begun): Plan => ({
  ...newInVersion2(),
  ...newInVersion3(),
  prediction: '',
  finishingRule: '',
  primaryTraitId: null,
  smallestDifference: null,
  traits: [],
  rounds: [],
  treatments: [],
  areas: [],
  design: null,
  units: [],
  products: [],
  ...begun,
});

/** The sizes and measures a plan begins with: inches and whose spoons and gallons. */
export const beginsIn = ({ inches, measures }: SizeUnits): Pick<Plan, 'inches' | 'mixing'> => ({
  ...(inches && { inches }),
  mixing: { ...plainSetUp, measures },
});

/** A treatment with nothing in it yet but its name and role. */
export const blankTreatment = (name: string, role: Role, id = drawnId<TreatmentId>()): Treatment => ({
  id,
  name,
  role,
  products: [],
  flushDays: [],
  container: '',
  medium: '',
  light: '',
  system: '',
  water: '',
  conditions: noConditions,
  levels: {},
  expectedPercent: null,
  notes: '',
});
