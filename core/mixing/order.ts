import type { Character, Product } from '../model/product';
import { elementShares } from './elements';

/** What is in a product, as far as the order of mixing goes. */
interface Contents {
  calcium: boolean;
  phosphate: boolean;
  sulfate: boolean;
  silicate: boolean;
  dry: boolean;
  acid: boolean;
  alkali: boolean;
  oxidiser: boolean;
  living: boolean;
}

/** Reads contents off the label: what its analysis has and what it is said to be, never its name. */
export function contentsOf(product: Pick<Product, 'analysis' | 'character' | 'form'>): Contents {
  const of = product.analysis ? elementShares(product.analysis).of : null;
  const is = (c: Character) => product.character.includes(c);
  return {
    calcium: (of?.Ca ?? 0) > 0,
    phosphate: (of?.P ?? 0) > 0,
    sulfate: (of?.S ?? 0) > 0,
    silicate: (of?.Si ?? 0) > 0,
    dry: product.form !== 'liquid',
    acid: is('acid'),
    alkali: is('alkali'),
    oxidiser: is('oxidiser'),
    living: is('living'),
  };
}

/** One product of a batch, called as it may be called (its name, or the code of its jar). */
export interface Part {
  id: string;
  name: string;
  /** as measured, e.g. 12 g */
  amount: string;
  contents: Contents;
  /** it is measured from a stock solution: dissolved already */
  dissolved?: boolean;
}

export interface MixingStep {
  id: string;
  text: string;
  /** why it stands where it stands; empty where that is plain */
  why: string;
  partId: string | null;
  caution: string | null;
}

/** The rank of a part: what goes in before what. */
function rankOf({ contents: c }: Part): number {
  // A silicate is alkaline by nature and still comes first; everything else that moves pH comes last.
  if (c.silicate && !c.acid) return 0;
  if (c.acid || c.alkali) return 6;
  if (c.living) return 5;
  if (c.oxidiser) return 4;
  if (c.calcium && !c.phosphate && !c.sulfate) return 2;
  if (c.phosphate || c.sulfate) return 1;
  return 3;
}

const GLOVES = 'Gloves and eye protection; the safety data sheet comes first. Out of children’s reach.';
const DUST = 'Don’t breathe the dust; gloves. The label comes first.';

function partStep(part: Part, parts: readonly Part[]): MixingStep {
  const { contents: c, name, amount } = part;
  const loose = c.dry && !part.dissolved;
  const others = parts.filter((p) => p !== part);
  const meets =
    c.calcium && others.some((p) => p.contents.phosphate || p.contents.sulfate)
      ? 'calcium makes gypsum or lime phosphate with sulfate and phosphate as long as they are strong; in the whole water they pass each other by'
      : (c.phosphate || c.sulfate) && others.some((p) => p.contents.calcium && !p.contents.silicate)
        ? 'what has phosphate or sulfate goes in well before what has calcium'
        : '';
  const pour = loose
    ? `Dissolve ${amount} ${name} apart in a cup of the water, then pour it in`
    : `Measure ${amount} ${name} and pour it in`;
  const common = { id: `part ${part.id}`, partId: part.id, caution: loose ? DUST : null };
  switch (rankOf(part)) {
    case 0:
      return {
        ...common,
        text: `${pour}, first of all; stir, wait some minutes.`,
        why: 'silicate gels where it meets other salts or acid while it is strong',
        caution: GLOVES,
      };
    case 6:
      return {
        ...common,
        text: `Give ${amount} ${name} into the water, a little at a time, last of all; stir.`,
        why: c.acid
          ? 'acid into water, never water into acid; last, because the feed changes the pH itself'
          : 'last, because the feed changes the pH itself',
        caution: GLOVES,
      };
    case 5:
      return {
        ...common,
        text: `${pour}, after everything else; don’t stir hard.`,
        why: 'living microbes suffer from strong salts, acid and peroxide',
        caution: common.caution,
      };
    case 4:
      return {
        ...common,
        text: `${pour}; stir.`,
        why: 'peroxide eats organic matter and microbes: nothing organic goes in with it',
        caution: GLOVES,
      };
    default: {
      // A powder with calcium and phosphate in one is made to be dissolved thin.
      const whole = loose && c.calcium && (c.phosphate || c.sulfate);
      return {
        ...common,
        text: whole
          ? `Strew ${amount} ${name} into the whole water while stirring.`
          : `${pour}; stir until it is clear.`,
        why: whole
          ? 'it has calcium and phosphate or sulfate in one: in a cup of water they would fall out'
          : meets,
      };
    }
  }
}

/** What should never be together in one vessel. */
export function mixingConflicts(parts: readonly Part[]): string[] {
  const some = (test: (c: Contents) => boolean) => parts.filter((p) => test(p.contents)).map((p) => p.name);
  const [acid, alkali, oxidiser, living] = [
    some((c) => c.acid),
    some((c) => c.alkali),
    some((c) => c.oxidiser),
    some((c) => c.living),
  ];
  return [
    acid.length && alkali.length
      ? `${acid.join(', ')} and ${alkali.join(', ')} undo each other, with heat if they meet undiluted: use one of them.`
      : '',
    oxidiser.length && living.length
      ? `${oxidiser.join(', ')} kills what lives in ${living.join(', ')}.`
      : '',
    oxidiser.length && acid.length
      ? `${oxidiser.join(', ')} and ${acid.join(', ')} never meet undiluted: fumes and heat.`
      : '',
  ].filter((line) => line !== '');
}

/** How a batch is mixed. */
export interface Mixing {
  /** as it is said, e.g. 4 L */
  volume: string;
  /** strength and pH are read */
  measure: boolean;
  batch: string;
  /** into a tank whose water isn’t changed */
  adding?: boolean;
}

/**
 * The order of mixing as steps to tick, with reasons.
 *
 * Source of the rules: what precipitates follows from solubility products (gypsum, calcium phosphates), what
 * comes last from acid handling; the order and “nine tenths of the water” are common practice.
 *
 * @param volume the batch's volume in words, e.g. 13.2 L
 * @param measure whether strength and pH are to be read (the regimen's choice)
 */
export function mixingSteps(
  parts: readonly Part[],
  { volume, measure, batch, adding = false }: Mixing,
): MixingStep[] {
  const step = (id: string, text: string, why = '', caution: string | null = null): MixingStep => ({
    id,
    text,
    why,
    partId: null,
    caution,
  });
  const ordered = [...parts].sort((a, b) => rankOf(a) - rankOf(b));
  const before = ordered.filter((p) => rankOf(p) < 6);
  const last = ordered.filter((p) => rankOf(p) === 6);
  if (parts.length === 0) {
    return [
      step('water', `Fill in ${volume} of the same water as everyone gets, at the same temperature.`),
      step('label', `Label the vessel ${batch}.`),
    ];
  }
  const look = measure
    ? step(
        'read',
        'Wait until it has mixed, read strength and pH, write both down.',
        'a band can only be kept if it is read',
      )
    : step('look', 'Look: clear, nothing at the bottom? If it is cloudy, write it down.');
  const apart =
    parts.length > 1 ? 'Never mix concentrates with each other: each goes into the water on its own.' : null;
  if (adding) {
    return [
      step(
        'before',
        'Read strength and pH of the tank as it is, write both down; stronger than this feed is meant to be: change the water instead.',
        'salts pile up where feed is added to what is left of the last one',
      ),
      step(
        'jug',
        `Take about a tenth of ${volume} out of the tank, in a clean jug.`,
        'concentrates never meet undiluted',
        apart,
      ),
      ...before.map((p) => partStep(p, parts)),
      step(
        'back',
        'Pour the jug back slowly where the water moves; let it go round for a quarter of an hour.',
      ),
      step('fill', `Top up with plain water to the mark of ${volume}.`),
      ...last.map((p) => partStep(p, parts)),
      look,
    ];
  }
  return [
    step('label first', `Label the vessel ${batch} before anything goes in.`, 'full vessels look alike'),
    step(
      'water',
      `Water first: about nine tenths of ${volume}, at room temperature.`,
      'concentrates never meet undiluted',
      apart,
    ),
    ...before.map((p) => partStep(p, parts)),
    step('fill', `Fill up with water to ${volume}; stir.`),
    ...last.map((p) => partStep(p, parts)),
    look,
  ];
}
