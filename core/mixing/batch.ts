import { productCodeKey } from './productCodes';
import { type MixingStep, type Part, contentsOf, mixingConflicts, mixingSteps } from './order';
import { type FromStock, type RecipeLine, type Tools, lineFromStock, recipeOf, solutionMade } from './recipe';
import { spoonsText } from './spoons';
import { DOSE_ERROR_LIMIT } from './rounding';
import type { Solution } from './solution';
import type { PackLeft, StockLeft } from './packs';
import type { BodyOf } from '../log/entry';
import type { Pack } from '../model/product';
import { volumeText } from '../quantity/volume';
import type { Plan } from '../model/plan';
import type { DueMix } from './dueMixes';

/** A line of the card: what goes in, from where, and as it may be called. */
export interface BatchLine extends RecipeLine {
  name: string;
  pack: Pack | null;
  left: PackLeft | null;
  /** taken from a stock solution in place of the pack */
  stock: FromStock | null;
  /** stock solutions of this product that hold enough */
  stocks: string[];
  /** what really goes in: typed, else as measured; mL of a stock where it is taken from one */
  given: number;
  /** per cent off what was wanted */
  givenError: number;
}

export interface Batch {
  /** L of one vessel, or units of a direct dose */
  size: number;
  /** vessels that are mixed alike, one by one */
  vessels: number;
  lines: BatchLine[];
  wanted: Solution | null;
  made: Solution | null;
  worst: number;
  conflicts: string[];
  /** @param adding into a tank whose water isn’t changed */
  steps: (batchName: string, adding?: boolean) => MixingStep[];
}

/** What a batch is mixed from. */
interface MixingStore {
  plan: Plan;
  /** what products are called, by treatment and product (`productCodeKey`) */
  names: Readonly<Record<string, string>>;
  packs: readonly PackLeft[];
  /** stock solutions, newest first */
  stocks: readonly StockLeft[];
  /** names are hidden from whoever mixes */
  blind: boolean;
}

interface BatchAsked {
  data: MixingStore;
  bottle: Pick<DueMix, 'treatmentId' | 'uses' | 'kind' | 'tanks'>;
  tools: Tools;
  size: number;
  /** stock solution chosen by product; null: weighed from the pack */
  fromStock: Readonly<Record<string, string | null>>;
  /** amounts typed, by line; null where the recipe stands */
  actual: readonly (number | null)[];
}

/** Stock solutions are measured to the millilitre where no finer syringe is said. */
const stockStep = (tools: Tools) => tools.liquidStepMl ?? 1;

/**
 * Works a batch out: recipe, rounding, stock solutions, what really goes in, order. The card on the screen and the
 * line in the log are both made by it.
 */
export function batchOf({ data, bottle, tools, size, fromStock, actual }: BatchAsked): Batch {
  const { plan, names, packs, stocks } = data;
  const direct = bottle.kind === 'direct';
  const recipe = recipeOf(bottle.uses, plan.products, size, tools, plan.mixing.water, direct);
  const lines = recipe.lines.map((line, i): BatchLine => {
    const own = packs.filter((p) => p.product.id === line.product.id);
    const left =
      own.find((p) => p.pack.id === line.use.packId) ?? own.find((p) => p.left > 0) ?? own[0] ?? null;
    const solutions = stocks.flatMap((s) => {
      if (s.productId !== line.product.id) return [];
      const fromStock = lineFromStock(line, s.body, stockStep(tools));
      return fromStock && fromStock.take.measured <= s.leftMl + 1e-9 ? [fromStock] : [];
    });
    const chosen = fromStock[line.product.id];
    const stock =
      chosen === null
        ? null
        : (solutions.find((s) => s.batch === chosen) ??
          (Math.abs(line.errorPercent) > DOSE_ERROR_LIMIT ? (solutions[0] ?? null) : null));
    const rounded = stock ? stock.take : line;
    const given = actual[i] ?? rounded.measured;
    return {
      ...line,
      name: names[productCodeKey(bottle.treatmentId, line.product.id)] ?? line.product.name,
      pack: left?.pack ?? null,
      left,
      stock: stock && {
        ...stock,
        held: stock.take.measured > 0 ? (stock.held * given) / stock.take.measured : 0,
      },
      stocks: solutions.map((s) => s.batch),
      given,
      givenError: rounded.wanted > 0 ? (100 * (given - rounded.wanted)) / rounded.wanted : 0,
    };
  });
  const parts = lines.map((l): Part => ({
    id: l.product.id,
    name: l.stock ? `of stock ${l.stock.batch} (${l.name})` : data.blind ? `from ${l.name}` : l.name,
    amount: l.stock
      ? `${Number(l.given.toPrecision(6))} mL`
      : l.spooned
        ? `${spoonsText(l.given, plan.mixing.measures)}, level,`
        : `${measuredFigure(l)} ${l.unit === 'piece' ? 'pieces of' : l.unit}`,
    contents: contentsOf(l.product),
    dissolved: l.stock !== null,
  }));
  const volume = volumeText(size, tools.bucketIn ?? 'L', plan.mixing.measures);
  const vessels = bottle.tanks ?? 1;
  return {
    size,
    vessels,
    lines,
    wanted: recipe.wanted,
    made: direct
      ? null
      : solutionMade(
          lines.map((l) => ({ product: l.product, unit: l.unit, amount: l.stock ? l.stock.held : l.given })),
          size,
          plan.mixing.water,
        ),
    worst: Math.max(0, ...lines.map((l) => Math.abs(l.givenError))),
    conflicts: mixingConflicts(parts),
    steps: (batch, adding = false) =>
      direct
        ? directSteps(lines, size)
        : mixingSteps(parts, { volume, measure: plan.mixing.regimen === 'measure', batch, adding }),
  };
}

/** An amount as it is said: to the tool's step; where no tool is said, as exactly as a good one shows. */
const measuredFigure = (l: BatchLine): string => String(Number(l.given.toPrecision(l.step > 0 ? 6 : 3)));

/** Doses without water: so much to each. */
const directSteps = (lines: readonly BatchLine[], units: number): MixingStep[] =>
  lines.map((l) => ({
    id: `part ${l.product.id}`,
    partId: l.product.id,
    text: `Give each ${Number((l.given / units).toPrecision(4))} ${l.unit === 'piece' ? 'of' : l.unit} ${l.name}; ${Number(l.given.toPrecision(6))} ${l.unit === 'piece' ? 'in all' : `${l.unit} in all`}.`,
    why: 'the same to all of them, at the same time',
    caution: l.product.form === 'liquid' ? null : 'Don’t breathe the dust; gloves. The label comes first.',
  }));

/** The amounts of a batch as the log keeps them: of all its vessels together. */
export const loggedAmounts = (batch: Batch): BodyOf<'mix'>['amounts'] =>
  batch.lines.map((l) => ({
    productId: l.product.id,
    amount: ofAll(batch, l.given),
    unit: l.stock ? 'mL' : l.unit,
    wanted: ofAll(batch, l.stock?.take.wanted ?? l.wanted),
    ...(l.stock ? { fromStock: l.stock.batch } : l.pack && { packId: l.pack.id }),
  }));

/** So much in each vessel, in all of them. */
export const ofAll = ({ vessels }: Pick<Batch, 'vessels'>, inOne: number): number =>
  Number((inOne * vessels).toPrecision(10));
