import { layOut } from '~core/design/layOut';
import { describeLayoutError } from '~core/design/randomise';
import { withRoom } from '~core/schedule/withRoom';
import type { RoundId, TraitId, TrialId } from '~core/model/ids';
import { blankPlan, beginsIn } from '~core/model/blankPlan';
import { newId } from '~core/model/newId';
import type { AreaKind, Design, Factor, Plan, ProductUse, Trait } from '~core/model/plan';
import type { Product, ProductCategory } from '~core/model/product';
import { type Result, err, ok } from '~core/model/result';
import { additivesOn, contendersOf } from '~core/plan/beginning';
import { NOTHING_WRITTEN } from '~core/plan/nothingWritten';
import { winningBy } from '~core/plan/winning';
import { proposeCode } from '~core/plan/proposeCode';
import { listNames, plural } from '~core/quantity/format';
import { parseRate } from '~core/quantity/rate';
import type { MeasureSystem } from '~core/quantity/units';
import { numberIn } from '~core/quantity/number';
import { aroundProduct, isByArea, readRate } from '~core/mixing/resolveRate';
import { protocolOf } from '~core/schedule/protocols';
import { plantsIn, untreatedBeside } from '~core/schedule/protocols/protocol';
import { applyProtocol } from '~core/schedule/protocols/applyProtocol';
import { MOST_ARMS } from '../../rooms/contenders/factorial';
import { newUse } from '../../rooms/contenders/newContender';
import { type DoseError, type UnitShape, resolveDose } from '../../rooms/contenders/dose';
import { newTrait } from '../../rooms/question/newRows';
import type { SizeUnits } from '~core/quantity/sizeText';
import { type Entry, namedIn } from './namedProducts';

/** What is asked for a new trial. */
export interface BeginInput {
  /** '' a height and a weight; `blank` nothing; else a kind of trial */
  protocolId: string;
  /** names of products or kits of the library, or new ones, with price and label rate behind: “Foglia 12.90, 5 mL/L” */
  names: readonly string[];
  /** an untreated control beside them, where the kind of trial has one */
  withWater: boolean;
  /** the feed that all get, under additives or beside things that aren't a feed; read as `names` are */
  base: string;
  /** shares of the label's rate, per cent: several make each product a contender at each of them */
  rates: readonly number[];
  /** of each contender */
  each: number;
  /** what stands in an area of this kind got its product together; null: each on its own */
  share: AreaKind | null;
  /** how many stand in one such area */
  inEach: number;
  /** several between commas, where each unit holds several */
  crop: string;
  /** left empty: as the kind of trial calls it */
  unitNoun: string;
  /** left empty: made of what is compared */
  question: string;
  prediction: string;
  /** solution each unit gets at a time, as it was typed: 0.5, 1 gal; empty: not said */
  solution: string;
  /** the smallest difference that matters, per cent of the control; null: not said yet */
  differencePercent: number | null;
  /** ground of a unit, cm²; null: not said */
  areaCm2: number | null;
  /** left empty: proposed */
  code: string;
  startDate: string;
  currency: string;
  /** sealed at once, or planned further */
  next: 'seal' | 'plan';
}

export interface Around {
  library: readonly Product[];
  taken: readonly string[];
  /** sizes and measures it begins with */
  units: SizeUnits;
}

export interface Begun {
  plan: Plan;
  /** products that weren't in the library */
  added: Product[];
  /** products that aren't in the plan: nobody said how much */
  undosed: string[];
  /** the same in a sentence, with what was asked for and goes with them; null where all was taken over */
  open: string | null;
}

const anyOf = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} or ${names.at(-1)}`;

const number = (text: string) => (text === '' ? null : Number(text));

/** A height to begin with and a weight at the end, where no kind of trial is chosen. */
function plainTraits(plan: Plan): Plan {
  const made = (['height', 'weight'] as const).map((kind): Trait => {
    const t = newTrait(kind);
    return {
      ...{ id: t.id as TraitId, name: t.name, unit: t.unit, kind: t.kind, direction: 'higher' },
      ...{ bandLow: null, bandHigh: null, plausibleLow: 0, plausibleHigh: null },
      ...{ decimals: number(t.decimals) ?? 1, samplesPerUnit: 1, summary: t.summary, outOf: null, scale: [] },
    };
  });
  const [height, weight] = made.map((t) => t.id);
  const round = (name: string, day: number, traitIds: TraitId[]) => ({ id: newId<RoundId>(), name, day, traitIds }); // prettier-ignore
  return {
    ...plan,
    traits: made,
    primaryTraitId: weight!,
    rounds: [round('Start', 0, [height!]), round('Harvest', 14, [height!, weight!])],
  };
}

/** What stands in each unit as one piece, and isn't used up by the spoon. */
const asPieces: readonly ProductCategory[] = ['container', 'light', 'system', 'accessory'];

const once = {
  packId: null,
  timesPerUnit: 1,
  stage: '',
  strengthPercent: 100,
  fromDay: null,
  everyDays: null,
};

/** A product's use: one piece of what is put in place, else by its label; or why it can't be worked out. */
function useOf(
  product: Product,
  solution: string,
  measures: MeasureSystem,
  unit: UnitShape,
  inEach: number,
): Result<ProductUse, DoseError | null> {
  if (asPieces.includes(product.category) && (product.packs[0]?.unit ?? 'piece') === 'piece') {
    // One for all that share an area.
    const written = `1 piece per ${inEach} ${plural(unit.noun)}`;
    const rateText = inEach > 1 && parseRate(written).ok ? written : '';
    const piece = { amount: 1 / inEach, unit: 'piece', rateText, solutionLPerUnit: null } as const;
    return ok({ ...once, productId: product.id, ...piece });
  }
  const typed = newUse(product);
  if (typed.amount === '') return err(null);
  const rate = readRate(typed.amount, aroundProduct(product, measures));
  // What is strewn isn't dissolved, though others get a feed.
  const perL = rate.ok && rate.value.per === 'L';
  const dose = resolveDose({ ...typed, solutionLPerUnit: perL ? solution : '' }, product, measures, unit);
  return dose.ok ? ok({ ...once, productId: product.id, ...dose.value }) : err(dose.error);
}

/** What couldn't be taken over. @param solution as it was asked for */
function sayUndosed(
  undosed: readonly { name: string; why: DoseError | null }[],
  solution: string,
): string | null {
  if (undosed.length === 0) return null;
  const unsaid = undosed.filter((u) => u.why === null).map((u) => u.name);
  const feed =
    solution === '' ? '' : `, nor is the feed of ${solution}${numberIn(solution) === null ? '' : ' L'}`;
  return [
    ...(unsaid.length > 0
      ? [
          `How much of ${listNames(unsaid)} each gets isn’t in the plan${feed}: no label in the library says it.`,
        ]
      : []),
    ...undosed.flatMap((u) => (u.why === null ? [] : [`${u.name} isn’t dosed yet: ${u.why.message}`])),
  ].join(' ');
}

/** A height to begin with and a weight at the end; nothing; or what the kind of trial brings. */
function filledBy(protocolId: string, plan: Plan): Plan {
  const protocol = protocolOf(protocolId);
  if (protocol) return applyProtocol(plan, protocol);
  return protocolId === 'blank' ? plan : plainTraits(plan);
}

type Faults = Partial<Record<keyof BeginInput, string>>;

/**
 * A plan from the few answers a reviewer gives first: kind, contenders, how many of each. What isn't said is left as open
 * as the audit finds it; with nothing to compare yet there are no contenders and no layout.
 *
 * @returns the plan, or what is wrong, by field
 */
export function beginTrial(input: BeginInput, around: Around): Result<Begun, Faults> {
  const protocol = protocolOf(input.protocolId);
  const noun = input.unitNoun || protocol?.unitNoun || 'tray';
  const named = namedIn(input, around, protocol);
  if (!named.ok) return named;
  const { base, entries, added } = named.value;
  const control = input.withWater && entries.length > 0 ? untreatedBeside(protocol) : null;
  const compared = entries.length + Number(control !== null || base !== null);
  if (compared < 2 && (input.next === 'seal' || entries.length > 0)) {
    const alone = untreatedBeside(protocol) !== null && input.withWater ? true : base !== null;
    return err({ names: alone ? 'Choose a product, or write a name.' : 'Two at least are compared.' });
  }
  // All that is missing is said at once.
  const missing: Faults = {};
  if (input.next === 'seal' && input.differencePercent === null)
    missing.differencePercent = 'How much would a reader pay or change for?';
  if (input.question === '' && entries.length === 0) missing.question = 'Write the question.';
  const plants = protocol && plantsIn(protocol);
  // What isn't asked for this kind of trial may have been typed before it was chosen.
  const poured = base !== null || !protocol?.compares;
  const solution = !poured || protocol?.dry ? '' : input.solution.trim();
  const areaCm2 = protocol?.dry ? input.areaCm2 : null;
  const everything = [...new Set([...(base?.products ?? []), ...entries.flatMap((e) => e.products)])];
  const uses = new Map(
    everything.map((p) => [
      p,
      useOf(
        p,
        solution,
        around.units.measures,
        { noun, plants, areaCm2, mediumL: null },
        input.share === null ? 1 : input.inEach,
      ),
    ]),
  );
  for (const [product, use] of uses) {
    if (use.ok) continue;
    if (protocol?.dry && areaCm2 === null && isByArea(product.labelRate))
      missing.areaCm2 ??= `How much ground has each ${noun}? ${product.name} is given by the ground.`;
    if (use.error?.field !== 'solutionLPerUnit' || !poured || protocol?.dry) continue;
    missing.solution ??=
      solution === ''
        ? `How much feed does each ${noun} get at a time? ${product.name} is given by the litre.`
        : use.error.message;
  }
  if (Object.keys(missing).length > 0) return err(missing);
  const alike = { crop: input.crop, plantsPerUnit: plants, areaPerUnitCm2: areaCm2 };
  const arms = armsOf(entries, input.rates);
  if (arms.length > MOST_ARMS)
    return err({ names: `${arms.length} contenders are more than a trial can carry; ${MOST_ARMS} at most.` });
  const onBase = base !== null && protocol?.onBase === true;
  const begun = onBase ? additivesOn(base, arms, alike) : contendersOf(arms, control, alike);
  const given = (products: readonly Product[], rate = 100) =>
    products.flatMap((p) => (uses.get(p)!.ok ? [{ ...valueOf(uses.get(p)!), strengthPercent: rate }] : []));
  const treatments = begun.map((t, i) => {
    const own = arms[i - Number(onBase || control !== null)];
    const products = [...given(base?.products ?? []), ...given(own?.products ?? [], own?.rate)];
    return { ...t, products, levels: own?.levels ?? {} };
  });
  const code = input.code || proposeCode(input.crop, `${entries.map((e) => e.name).join(' ')} ${input.question} trial`, around.taken); // prettier-ignore
  const blank: Plan = {
    ...blankPlan({
      ...{ id: newId<TrialId>(), crop: input.crop, unitNoun: noun, code },
      question: input.question || asksOf(onBase ? base : null, entries, control, input.crop),
      ...{ startDate: input.startDate, currency: input.currency },
    }),
    ...beginsIn(around.units),
    prediction: input.prediction || (input.next === 'seal' ? NOTHING_WRITTEN : ''),
    ...(input.differencePercent !== null && {
      smallestDifference: { kind: 'percent', value: input.differencePercent },
    }),
    ...(compared > 1 && control === null && !onBase && { peers: true }),
    factors: factorsOf(arms),
    ...(protocol?.cropsWithin && { cropsWithin: cropsIn(input.crop) }),
    treatments,
    products: everything.filter((p) => uses.get(p)!.ok),
  };
  const filled = { ...filledBy(input.protocolId, blank), unitNoun: noun };
  const undosed = everything.flatMap((p) => {
    const use = uses.get(p)!;
    return use.ok ? [] : [{ name: p.name, why: use.error }];
  });
  const rest = { added, undosed: undosed.map((u) => u.name), open: sayUndosed(undosed, solution) };
  if (compared < 2) return ok({ plan: filled, ...rest });
  const design: Design = { kind: input.share === null ? 'rcbd' : 'crd', replicates: input.each, seed: 1 + (Number.parseInt(blank.id.slice(-6), 16) % 1e6 || 0), settings: [], balance: null }; // prettier-ignore
  const shared = input.share === null ? {} : { unitsShare: 'place' as const };
  const plan = withRoom({ ...filled, ...shared, design }, design, input.inEach, input.share ?? undefined);
  const units = layOut(plan, design);
  if (!units.ok) return err({ each: describeLayoutError(units.error) });
  return ok({ plan: { ...plan, units: units.value, winning: winningBy(plan) }, ...rest });
}

const valueOf = (use: Result<ProductUse, unknown>): ProductUse => {
  if (!use.ok) throw new Error('a dose that isn’t one');
  return use.value;
};

/** A product, or a kit, at one rate: what becomes a contender. */
interface Arm extends Entry {
  rate: number;
  levels: Record<string, string>;
}

/** Shares of a rate as they are listed; null where they can't be read. @example ratesIn('50, 100 and 150 %') // [50, 100, 150] */
export function ratesIn(text: string): number[] | null {
  const rates = [
    ...new Set(
      text
        .split(/[\s,;%]+|and/)
        .filter(Boolean)
        .map(Number),
    ),
  ];
  return rates.length > 0 && rates.length <= 8 && rates.every((r) => r > 0 && r <= 1000) ? rates : null;
}

/** Each product at each rate; a grid where there are several of both. */
function armsOf(entries: readonly Entry[], rates: readonly number[]): Arm[] {
  const grid = entries.length > 1 && rates.length > 1;
  return entries.flatMap((e) =>
    rates.map((rate) => ({
      ...e,
      rate,
      name: rates.length > 1 ? `${e.name.slice(0, 72)} ${rate} %` : e.name,
      levels: (grid ? { Product: e.name.slice(0, 60), Rate: `${rate} %` } : {}) as Record<string, string>,
    })),
  );
}

/** The factors of a grid; none where there is no grid. */
const factorsOf = (arms: readonly Arm[]): Factor[] =>
  [...new Set(arms.flatMap((a) => Object.keys(a.levels)))].map((name) => ({
    name,
    levels: [...new Set(arms.map((a) => a.levels[name]!))],
  }));

/** Several crops as they are listed; none where there is one. */
function cropsIn(text: string): string[] {
  const crops = [...new Set(text.split(/[,;]/).map((c) => c.trim().slice(0, 60)))].filter(Boolean);
  return crops.length > 1 ? crops.slice(0, 20) : [];
}

/** The question in its usual words; empty where nothing is compared yet. */
function asksOf(
  base: Entry | null,
  entries: readonly Entry[],
  control: 'Water' | 'Untreated' | null,
  crop: string,
): string {
  if (entries.length === 0) return '';
  const all = [
    ...(control === null ? [] : [control === 'Water' ? 'water' : 'nothing']),
    ...entries.map((e) => e.name),
  ];
  const on = crop ? ` on ${crop}` : '';
  return (
    base
      ? `Is ${base.name}${on} better with ${anyOf(all)} than alone?`
      : `Which does best${on}: ${anyOf(all)}?`
  ).slice(0, 200);
}
