import type { Analysis, AnalysisError, AnalysisRow, Method } from '../analysis/analysis';
import { type Contrast, distance } from '../analysis/contrast';
import { moreIsBetter } from '../analysis/goodness';
import { methodOf, methodsFor } from '../analysis/methods';
import { figureOfRow } from '../analysis/number';
import type { Basis } from '../analysis/basis';
import type { FindingRow, LeftOut, RowOptions } from '../analysis/rows';
import type { RoundId } from '../model/ids';
import { type Result, err, ok } from '../model/result';
import type { Plan, Trait } from '../model/plan';
import { kindOf } from '../model/traitKinds';
import type { SeedlingFigure } from '../analysis/seedlings';
import { type UnitFigures, unitTable } from '../analysis/unitTable';
import { letterDisplay } from '../stats/letters';
import type { Against } from '../plan/against';
import { whyNoFigure } from './absence';
import { type AsGood, asGoodAs, asGoodByShift } from './asGood';
import { describedAlone } from './describedAlone';
import { gated } from './gate';
import { type PairOutcome, type RankedTreatment, pairOutcome, rankTreatments, untestedPair } from './rank';

export type { LeftOut } from '../analysis/rows';

/** A unit's value as it stands in a finding. */
interface FindingUnit {
  unitId: string;
  code: string;
  treatmentId: string;
  value: number;
  /** day of the trial from which on a spare stands in it */
  spareSince?: number;
  /** what it was divided by, where the trait is per plant or per m² */
  divisor?: number;
  /** of k of n: as it was counted */
  counted?: { k: number; n: number; /** so many of k weren't true to type */ offType?: number };
  /** of days until: the day it was seen to have happened, or of the last look */
  seen?: { day: number; happened: boolean };
}

/** The answer for one trait, with everything it was made from. Plain data: it crosses from a worker. */
export interface Finding {
  trait: Trait;
  roundId: RoundId | null;
  roundName: string | null;
  /** the crop within the units that alone was looked at; null: all of them */
  crop: string | null;
  /** contrasts of treatments by their ids; for a wanted band, of the distance outside it */
  analysis: Analysis;
  units: FindingUnit[];
  leftOut: LeftOut[];
  basis: Basis;
  /** smallest difference that matters, in the trait's unit; null for traits that have none set */
  smallestDifference: number | null;
  /** what each contrast says; pairs with the control as they stand against the control */
  outcomes: PairOutcome[];
  ranking: RankedTreatment[];
  /** treatments that share a letter can't be told apart; empty where nothing was tested */
  letters: Record<string, string>;
  /** nobody is a control: equals are compared, or the control is lost. The analysis' own is then but the first of them */
  peers: boolean;
  /** controls that have figures */
  controls: string[];
  /** controls that have no figure, and why: nothing can be held against them; empty where none is missing */
  lost: { id: string; why: string }[];
  /** contenders other than those that have no figure, and why */
  absent: { id: string; why: string }[];
  /** every contender with what it is held against, both with figures: its own control wherever there is one */
  against: Against[];
  /** the ground each contender is tried on (species, seed lots); left out where it is one for all */
  grounds?: Record<string, string>;
  /** whether each other is as good as the one it is held against; left out where that isn't the question */
  asGood?: AsGood[];
  /** units per treatment that would make the widest interval as narrow as ± the smallest difference */
  replicatesToSee: number | null;
}

export type FindingError =
  | AnalysisError
  | { tag: 'noControl' }
  | { tag: 'noValues' }
  | { tag: 'words' }
  /** picks were begun and none is finished for all */
  | { tag: 'unfinished'; open: Basis['open'] };

export interface FindingOptions extends RowOptions {
  alpha?: number;
  /** of k of n counted day by day: the days in place of the share */
  as?: SeedlingFigure | null;
  /** id of the method; default: the usual one for the kind of value */
  method?: string | null;
}

/** Everything a finding is worked out from, in plain data: what goes to a worker. */
export interface FindingInput {
  trait: Trait;
  isPrimary: boolean;
  rows: FindingRow[];
  leftOut: LeftOut[];
  basis: Basis;
  unfinished: boolean;
  roundId: RoundId | null;
  roundName: string | null;
  crop: string | null;
  control: string | null;
  peers: boolean;
  /** what “as good as” is held against; left out where that isn't the question */
  heldAgainst?: string;
  order: string[];
  /** what each contender is held against by the plan */
  against: Against[];
  /** the ground each contender is tried on; left out where it is one for all */
  grounds?: Record<string, string>;
  /** factors whose levels the contenders combine, and the level of each; left out where there are none */
  factors?: { names: string[]; levels: Record<string, string[]> };
  /** what each unit's main plot was given; left out where plots weren't split */
  settings?: Record<string, string>;
  /** where each unit stands: reading of the light there, row and column */
  places?: Record<
    string,
    { reading: number | null; area: string; row: number; column: number; edge: boolean }
  >;
  alpha: number;
  smallestDifference: Plan['smallestDifference'];
  method: string | null;
  /** the same had the trial ended before its last visit; left out where nobody asked, or there was but one */
  earlier?: Earlier;
}

/** What a finding would have rested on, had the trial ended on an earlier day. */
export interface Earlier {
  day: number;
  name: string | null;
  rows: FindingRow[];
}

/**
 * What an analysis counts its differences from: the control that has figures. Where none has, and among equals, it is the
 * first that has, without being more than the others.
 *
 * @returns null without any figure
 */
export function baseOf({
  rows,
  control,
  order,
  ...input
}: Pick<FindingInput, 'rows' | 'control' | 'order' | 'peers' | 'against'>): {
  base: string;
  peers: boolean;
} | null {
  const has = new Set(rows.map((r) => r.treatment));
  const first = order.find((id) => has.has(id));
  if (first === undefined) return null;
  if (input.peers) return { base: first, peers: true };
  if (control !== null && has.has(control)) return { base: control, peers: false };
  const other = input.against.find((o) => has.has(o.id) && has.has(o.control))?.control;
  return { base: other ?? first, peers: other === undefined };
}

/**
 * Works out the finding for one trait: treatments compared on their units by the method asked for, the ranking
 * and what is too close to call.
 */
export function makeFinding(input: FindingInput): Result<Finding, FindingError> {
  const { trait, rows, control } = input;
  const usual = methodsFor(trait);
  if (usual.length === 0) return err({ tag: 'words' });
  if (control === null && !input.peers) return err({ tag: 'noControl' });
  if (input.unfinished) return err({ tag: 'unfinished', open: input.basis.open });
  if (rows.length === 0) return err({ tag: 'noValues' });
  const method = (input.method === null ? undefined : methodOf(input.method)) ?? usual[0]!;
  if (!usual.includes(method)) return err({ tag: 'notForThis', method: method.name });

  // Whoever is lost takes nobody's figures away: the others stand, without a control where it is the control that is lost.
  const has = new Set(rows.map((r) => r.treatment));
  const { base, peers } = baseOf(input)!;
  const asked = { trait, rows, control: base, peers, alpha: input.alpha, order: input.order };
  const analysed = method.analyse(asked);
  const alone = analysed.ok ? null : describedAlone(asked, method.id, analysed.error);
  if (!analysed.ok && !alone) return analysed;
  const analysis = gated(analysed.ok ? analysed.value : alone!, peers, input.against);
  const smallestDifference = differenceThatMatters(input, analysis, peers);
  const higher = moreIsBetter(trait);
  const table = unitTable(rows, trait);
  const margin = marginOf(analysis, smallestDifference, peers);
  const { grounds } = input;
  const sameGround = (c: Pick<Contrast, 'a' | 'b'>) => !grounds || grounds[c.a] === grounds[c.b];
  // One unit is a number: what it says may be the unit, its place or the product, whatever the others' spread.
  const single = new Set(analysis.summaries.filter((s) => s.n === 1).map((s) => s.name));
  const outcomes = analysis.pairs
    .filter(sameGround)
    .map((c) => (single.has(c.a) || single.has(c.b) ? untestedPair(c) : pairOutcome(c, margin, higher)));
  const controls = [...new Set(input.against.map((o) => o.control))];
  const { leftOut } = input;
  const without = (id: string) => ({ id, why: whyNoFigure({ leftOut }, id) });
  return ok({
    trait,
    roundId: input.roundId,
    roundName: input.roundName,
    crop: input.crop,
    analysis,
    units: rows.map((r, i) => ({
      unitId: r.unit,
      ...asSeen(table[i]!),
      code: r.code,
      treatmentId: r.treatment,
      value: figureOfRow(r, trait),
      ...(trait.per === undefined ? {} : { divisor: r.divisor }),
      ...(r.spareSince === undefined ? {} : { spareSince: r.spareSince }),
    })),
    leftOut,
    basis: input.basis,
    smallestDifference,
    outcomes,
    ranking: rankTreatments(analysis, outcomes, higher, single),
    letters: grounds ? {} : lettersOf(analysis, outcomes, single),
    peers,
    controls: controls.filter((id) => has.has(id)),
    lost: controls.filter((id) => !has.has(id)).map(without),
    absent: input.order.filter((id) => !has.has(id) && !controls.includes(id)).map(without),
    against: input.against.filter((o) => has.has(o.id) && has.has(o.control)),
    ...(grounds && { grounds }),
    ...(input.isPrimary &&
      input.heldAgainst !== undefined &&
      has.has(input.heldAgainst) && {
        asGood: heldAgainst(input, method, analysis, margin, peers).map((g) =>
          single.has(g.id) || single.has(g.against) ? { ...g, verdict: 'untested' as const } : g,
        ),
      }),
    replicatesToSee: replicatesToSee(analysis, margin),
  });
}

const asSeen = ({ k, n, offType, day, happened }: UnitFigures): Pick<FindingUnit, 'counted' | 'seen'> => ({
  ...(k !== null && n !== null && { counted: { k, n, ...(offType > 0 && { offType }) } }),
  ...(day !== null && happened !== null && { seen: { day, happened } }),
});

/** Whether others are as good as what they are held against: by the interval, or for scores and days by a shift. */
function heldAgainst(
  input: FindingInput,
  method: Method,
  analysis: Analysis,
  margin: number | null,
  peers: boolean,
): AsGood[] {
  const { trait, rows, smallestDifference: d } = input;
  const against = input.heldAgainst!;
  const higher = moreIsBetter(trait);
  if (analysis.pairs[0]?.scale !== 'superiority' || d === null)
    return asGoodAs(analysis, against, margin, higher);
  const base = analysis.summaries.find((s) => s.name === against)?.estimate ?? 0;
  const within = d.kind === 'absolute' ? d.value : (Math.abs(base) * d.value) / 100;
  if (!(within > 0) || kindOf(trait).observes === 'rank') return asGoodAs(analysis, against, null, higher);
  const analyse = (other: typeof input.rows | readonly AnalysisRow[]) => {
    const made = method.analyse({ ...input, peers, rows: other, control: analysis.control });
    return made.ok ? made.value : null;
  };
  return asGoodByShift(rows, analyse, against, within, higher);
}

/** What per cents are of: the control's figure; among equals, or where the control is lost, the mean of all. */
export const levelOf = (
  { summaries, control }: Pick<Analysis, 'summaries' | 'control'>,
  peers: boolean,
): number =>
  peers
    ? summaries.reduce((s, t) => s + t.estimate, 0) / summaries.length
    : summaries.find((t) => t.name === control)!.estimate;

/**
 * The plan's smallest difference holds for the primary trait; as a per cent it also serves the others. In the trait's
 * unit, whatever scale effects are on; on a scale of pairs it says nothing.
 */
function differenceThatMatters(
  { smallestDifference: d, isPrimary, trait }: FindingInput,
  analysis: Analysis,
  peers: boolean,
): number | null {
  if (!d || analysis.pairs.some((c) => c.scale !== 'difference' && c.scale !== 'ratio')) return null;
  if (d.kind === 'absolute') return isPrimary ? d.value : null;
  if (trait.direction === 'band') return null;
  const size = Math.abs(levelOf(analysis, peers)) * (d.value / 100);
  return size > 0 ? size : null;
}

/** The smallest difference as a distance on the scale of the contrasts. */
function marginOf(analysis: Analysis, smallest: number | null, peers: boolean): number | null {
  // Where differences in the trait's unit are known the margin stays on the scale it was set on.
  if (smallest === null || analysis.pairs[0]?.scale !== 'ratio' || analysis.pairs.some((c) => c.units)) return smallest; // prettier-ignore
  const base = levelOf(analysis, peers);
  return base > 0 ? distance('ratio', 1 + smallest / base) : null;
}

/** Letters by the same outcomes as all else, largest figure first (Piepho 2004). */
function lettersOf(
  analysis: Analysis,
  outcomes: readonly PairOutcome[],
  single: ReadonlySet<string>,
): Record<string, string> {
  if (analysis.spread !== 'shown') return {};
  // A letter says what it can't be told from: nothing was tried of a single unit.
  const summaries = analysis.summaries.filter((s) => !single.has(s.name));
  if (summaries.length < 2) return {};
  const order = summaries.map((_, i) => i).sort((x, y) => summaries[y]!.estimate - summaries[x]!.estimate);
  const apart = new Set(outcomes.flatMap((o) => (o.verdict === 'better' ? [`${o.a}\n${o.b}`] : [])));
  const letters = letterDisplay(order, (a, b) => {
    const [x, y] = [summaries[a]!.name, summaries[b]!.name];
    return apart.has(`${x}\n${y}`) || apart.has(`${y}\n${x}`);
  });
  return Object.fromEntries(summaries.map((s, i) => [s.name, letters[i]!]));
}

/** Intervals shrink with the square root of the units; the search stops at 200 units per treatment. */
function replicatesToSee({ summaries, pairs }: Analysis, margin: number | null): number | null {
  if (margin === null) return null;
  const at = (c: Contrast, x: number) => distance(c.scale, x);
  const halves = pairs.flatMap((c) =>
    c.low === null || c.high === null
      ? []
      : [c.units ? (c.units.high - c.units.low) / 2 : (at(c, c.high) - at(c, c.low)) / 2],
  );
  const widest = Math.max(0, ...halves);
  if (widest <= margin) return null;
  const n = summaries.reduce((s, t) => s + 1 / t.n, 0) / summaries.length;
  const wanted = Math.ceil((widest / margin) ** 2 / n);
  return wanted <= 200 ? wanted : null;
}
