import type { AreaKind, ScaleStep, Trait, TraitKind } from '../../model/plan';
import type { ProductCategory } from '../../model/product';

/** A trait as a protocol proposes it; the first trait of a protocol decides. */
export interface ProtocolTrait {
  key: string;
  name: string;
  unit: string;
  kind: TraitKind;
  direction: 'higher' | 'lower' | 'band';
  band?: [low: number, high: number];
  decimals: number;
  summary: 'last' | 'sum';
  /** samples measured inside each unit */
  samples: number;
  outOf?: number;
  scale?: ScaleStep[];
  role?: Trait['role'];
}

/**
 * How one kind of trial is run, as data. Everything is a proposal that fills the plan and can be changed.
 * Days, spreads and numbers of samples are common practice unless a source is named.
 */
export interface Protocol {
  id: string;
  /** the kind of trial, as a reviewer would call it */
  name: string;
  /** what one experimental unit is called */
  unitNoun: string;
  /** plants, plugs or cuttings in one unit */
  plantsPerUnit: number;
  /** what stands in the way of calling a plant a unit, in a sentence; empty when the plant is the unit */
  unitNote: string;
  area: AreaKind;
  /** several crops in each unit are usual */
  cropsWithin: boolean;
  /** what is compared, where it is a thing that is put in place; left out: something that is dosed */
  compares?: Exclude<ProductCategory, 'fertilizer' | 'additive'>;
  /** what is compared is strewn or worked in, by the kilo, not given in water */
  dry?: true;
  /** additives are compared: all get one base feed, which stands alone as the control */
  onBase?: true;
  /** whole systems differ, not one part of them */
  wholeSystem: boolean;
  traits: ProtocolTrait[];
  rounds: { name: string; day: number; traits: string[] }[];
  finishingRule: string;
  /** usual spread of the deciding trait from unit to unit, per cent (practice; to be replaced by one's own) */
  cvPercent: number;
  /** what usually goes wrong */
  faults: string[];
  /** what can hurt someone in this kind of trial */
  cautions: string[];
}

/**
 * A protocol's rule for the end, in a trial whose last round may be on another day than the protocol's.
 *
 * @param rounds of the trial; without any the rule stays as it is
 * @example finishingRuleFor(protocolOf('shoots-sheets')!, [{ day: 12 }]) // 'All trays are cut on day 12.'
 */
export function finishingRuleFor(
  { finishingRule, rounds: usual }: Pick<Protocol, 'finishingRule' | 'rounds'>,
  rounds: readonly { day: number }[],
): string {
  if (rounds.length === 0) return finishingRule;
  const [was, is] = [usual, rounds].map((all) => Math.max(...all.map((r) => r.day)));
  return finishingRule.replace(new RegExp(`\\bday ${was}\\b`), `day ${is}`);
}

type Extra = Partial<Omit<ProtocolTrait, 'key' | 'name'>>;

/** A weight in grams, taken in Weigh-in; picks are summed. */
export const weight = (key: string, name: string, extra: Extra = {}): ProtocolTrait => ({
  key,
  name,
  unit: 'g',
  kind: 'weighing',
  direction: 'higher',
  decimals: 1,
  summary: 'sum',
  samples: 1,
  ...extra,
});

/** A measured figure. */
export const number = (key: string, name: string, unit: string, extra: Extra = {}): ProtocolTrait => ({
  key,
  name,
  unit,
  kind: 'number',
  direction: 'higher',
  decimals: 1,
  summary: 'last',
  samples: 1,
  ...extra,
});

export const count = (key: string, name: string, unit: string, extra: Extra = {}): ProtocolTrait =>
  number(key, name, unit, { kind: 'count', decimals: 0, ...extra });

export const height = (samples = 1, extra: Extra = {}): ProtocolTrait =>
  number('height', 'Plant height', 'cm', { samples, role: 'height', ...extra });

/** k of n of the plants in a unit. */
export const ratio = (key: string, name: string, outOf: number, extra: Extra = {}): ProtocolTrait =>
  number(key, name, '%', { kind: 'ratio', decimals: 0, outOf, ...extra });

/** Days from the start until something happened. */
export const daysUntil = (key: string, name: string, extra: Extra = {}): ProtocolTrait =>
  number(key, name, 'd', { kind: 'time', direction: 'lower', decimals: 0, ...extra });

/** A score on a written scale, worst step first, counted from 1. */
export const score = (key: string, name: string, steps: string[], extra: Extra = {}): ProtocolTrait =>
  number(key, name, 'points', {
    kind: 'score',
    decimals: 1,
    scale: steps.map((text, i) => ({ value: i + 1, text })),
    ...extra,
  });

export const words = (key: string, name: string): ProtocolTrait =>
  number(key, name, '', { kind: 'text', decimals: 0 });

export const lookScale = [
  'dead or mostly yellow or brown',
  'many leaves pale, spotted or burnt',
  'some leaves pale, spotted or burnt',
  'a mark or two, seen only up close',
  'evenly green, firm, no marks',
];
export const rootScale = [
  'brown, soft or smelling',
  'few roots, partly brown',
  'white but few',
  'white, filling half of the space',
  'white, dense, filling the space',
];
export const tasteScale = [
  'unpleasant: would not eat it again',
  'dull or bitter',
  'plain, nothing wrong',
  'good',
  'very good: would ask for more',
];

/** Cautions that several kinds of trial share. */
export const cautions = {
  mains:
    'Mains power near water: earthed outlets with residual-current protection and drip loops; fixed wiring is an electrician’s work.',
  concentrates:
    'Concentrates are never mixed with each other: each goes into the water on its own. Labels and safety data sheets come first.',
  tasting:
    'Taste only food crops grown with inputs meant for food crops, with clean knives and cups, and no one with an allergy. When in doubt, don’t taste.',
  shoots: 'Shoots kept warm and wet can carry bacteria: clean trays, clean water, cold after cutting.',
  dust: 'Peat, perlite and vermiculite dust: damp it and wear a mask. Composts can carry Legionella: gloves, wash hands.',
  lamps:
    'Don’t stare into lamps; keep clear of heat and of anything that burns; hang them from what holds them.',
  lifting: 'Full containers are heavy: lift together, or move them empty.',
  hormones:
    'Rooting powders and gels: gloves, no food near, follow the label; some aren’t allowed on food plants.',
  runoff:
    'Spent solution goes on garden soil within reason, never into a watercourse; local rules come first.',
  lawn: 'Moss killers, weed-and-feed and iron: follow the label and local rules; keep children and pets off as long as it says.',
} as const;

/**
 * Plants in a unit of this kind of trial, as doses by the plant are worked out; null where it has none to count (sown, a lawn).
 *
 * @example plantsIn({ plantsPerUnit: 4, unitNoun: 'row', unitNote: 'its plants are samples', area: 'bed' }) // 4
 */
export const plantsIn = ({
  plantsPerUnit,
  unitNoun,
  unitNote,
  area,
}: Pick<Protocol, 'plantsPerUnit' | 'unitNoun' | 'unitNote' | 'area'>): number | null =>
  plantsPerUnit > 1 || (unitNote === '' && unitNoun !== 'plant' && area !== 'lawn') ? plantsPerUnit : null;

/** Whether a feed that all get is asked for: under additives, and where what is compared isn't a feed itself. */
export const getsFeed = (protocol: Protocol | null): boolean =>
  protocol !== null && (protocol.onBase === true || protocol.compares !== undefined || protocol.wholeSystem);

/** Whether several units of such a trial may stand in one tank, tent or house that gives all of them what is compared. */
export const mayShare = (protocol: Pick<Protocol, 'wholeSystem' | 'area'> | null): boolean =>
  protocol !== null && (protocol.wholeSystem || protocol.area === 'tank');

/**
 * What stands beside the contenders as the untreated control, as it is called: water where feeds are given in it,
 * nothing at all where something is strewn; null where neither tells anything.
 *
 * @param protocol null: a blank one
 */
export function untreatedBeside(
  protocol: Pick<Protocol, 'compares' | 'onBase' | 'dry'> | null,
): 'Water' | 'Untreated' | null {
  if (protocol?.compares || protocol?.onBase) return null;
  return protocol?.dry ? 'Untreated' : 'Water';
}
