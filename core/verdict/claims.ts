import type { SetClaim } from '../model/judgement';
import type { RoundId } from '../model/ids';
import type { Plan, Trait } from '../model/plan';
import type { Claim, Product } from '../model/product';
import { contrastOf } from '../account/outcomes';
import { kindOf } from '../model/traitKinds';
import { againstIn } from '../plan/against';
import { comparesPeers } from '../plan/control';
import { planIndex } from '../plan/planIndex';
import { formatFigure } from '../quantity/format';
import { clopperPearson } from '../stats/clopperPearson';
import { readChange } from './readChange';
import type { Finding } from '../account/finding';

/**
 * What a trial says of a label's claim, by the interval:
 * - borneOut: right direction, and the size lies within what was seen or below it
 * - inPart: right direction, the size claimed not reached
 * - notShown: the interval holds no effect
 * - contradicted: the other way round
 * - notTested: this trial says nothing of it
 */
export type ClaimVerdict = 'borneOut' | 'inPart' | 'notShown' | 'contradicted' | 'notTested';

export const claimVerdictNames: Record<ClaimVerdict, string> = {
  borneOut: 'borne out',
  inPart: 'in part',
  notShown: 'not shown',
  contradicted: 'contradicted',
  notTested: 'not tested here',
};

/** A claim with what the trial says of it. */
export interface JudgedClaim {
  claim: Claim;
  product: Product;
  set: SetClaim | null;
  verdict: ClaimVerdict;
  /** the figures behind it, in a sentence */
  text: string;
}

/** Never more than this is said of a label. */
export const CLAIM_LINE =
  'What this trial saw, under its own conditions, with the dose it gave; not a judgement of law.';

/** Rounds that claims name: of which traits a finding is wanted by when. */
export const claimedRounds = (plan: Plan, set: readonly SetClaim[]): { trait: Trait; roundId: RoundId }[] =>
  set.flatMap(({ traitId, roundId }) => {
    const trait = traitId === null ? undefined : planIndex(plan).trait(traitId);
    const round = roundId === undefined ? undefined : planIndex(plan).round(roundId);
    return trait && round ? [{ trait, roundId: round.id }] : [];
  });

/**
 * Every claim of every product in the plan, judged where it was set against a trait.
 * @param dated findings at single rounds, for claims that say by when
 */
export function judgeClaims(
  plan: Plan,
  set: readonly SetClaim[],
  findings: readonly Finding[],
  nameOf: (id: string) => string,
  dated: readonly Finding[] = [],
): JudgedClaim[] {
  return plan.products.flatMap((product) =>
    product.claims.map((claim): JudgedClaim => {
      const own = set.find((s) => s.claimId === claim.id && s.productId === product.id) ?? null;
      const base = { claim, product, set: own };
      if (!own || own.traitId === null)
        return {
          ...base,
          verdict: 'notTested',
          text: 'Nothing measured here bears on it; a trait that does, and a control, would test it.',
        };
      const trait = planIndex(plan).trait(own.traitId);
      const round = own.roundId === undefined ? undefined : planIndex(plan).round(own.roundId);
      const finding =
        own.roundId === undefined
          ? findings.find((f) => f.trait.id === own.traitId)
          : dated.find((f) => f.trait.id === own.traitId && f.roundId === own.roundId);
      if (!finding)
        return {
          ...base,
          verdict: 'notTested',
          text: `${trait?.name ?? 'Its trait'} has no finding ${round ? `at ${round.name} ` : ''}yet.`,
        };
      const made = own.absolute ? judgeShare(own, finding) : judgeChange(own, finding, plan, nameOf);
      const by = round ? `By ${round.name}, day ${round.day}. ` : '';
      return { ...base, verdict: made.verdict, text: `${by}${made.text}` };
    }),
  );
}

type Judged = Pick<JudgedClaim, 'verdict' | 'text'>;

/** “99 % pure”: the exact interval of what was counted, against the share that is claimed. */
function judgeShare(
  { treatmentId, percent, direction }: SetClaim,
  { units, trait, analysis }: Finding,
): Judged {
  const counted = units.flatMap((u) => (u.treatmentId === treatmentId && u.counted ? [u.counted] : []));
  const [k, n] = [counted.reduce((s, c) => s + c.k, 0), counted.reduce((s, c) => s + c.n, 0)];
  if (n === 0 || percent === null)
    return {
      verdict: 'notTested',
      text: `${trait.name} wasn’t counted for it, or the claim names no share.`,
    };
  const { low, high } = clopperPearson(k, n, analysis.alpha);
  const seen = `${k}/${n} counted, ${formatFigure((100 * k) / n, 1)} % (${formatFigure(100 * low, 1)} to ${formatFigure(100 * high, 1)} %, exact binomial) against ${percent} %`;
  const [least, most] = direction === 'more' ? [low, high] : [1 - high, 1 - low];
  const wanted = direction === 'more' ? percent / 100 : 1 - percent / 100;
  if (most < wanted) return { verdict: 'contradicted', text: `${seen}: what was counted rules it out.` };
  if (least >= wanted) return { verdict: 'borneOut', text: `${seen}.` };
  return {
    verdict: 'notShown',
    text: `${seen}: in keeping with it, but too few were counted to bear it out.`,
  };
}

/** Limits behind a figure; an end that is open is said to be. @example sayEnds(80, Infinity, String) // ' (80 at least, no upper end)' */
const sayEnds = (low: number, high: number, show: (x: number) => string): string =>
  Number.isFinite(high) ? ` (${show(low)} to ${show(high)})` : ` (${show(low)} at least, no upper end)`;

/** “A quarter more”: the change against the control, against the size that is claimed. */
function judgeChange(own: SetClaim, finding: Finding, plan: Plan, nameOf: (id: string) => string): Judged {
  const { analysis, trait } = finding;
  const notTested = (text: string): Judged => ({ verdict: 'notTested', text });
  const control = own.againstId ?? againstIn(plan).find((o) => o.id === own.treatmentId)?.control;
  if (control === undefined)
    return notTested(
      comparesPeers(plan)
        ? 'There is no control to hold it against; one would test it.'
        : 'The contender is the control itself.',
    );
  if (own.treatmentId === control) return notTested('It is held against itself.');
  const without = [own.treatmentId, control].find((id) => !analysis.summaries.some((s) => s.name === id));
  if (without !== undefined)
    return notTested(`${nameOf(without)} has no value for ${trait.name.toLowerCase()}.`);
  const c = contrastOf(finding, own.treatmentId, control);
  if (!c || c.low === null || c.high === null)
    return notTested('Nothing could be tested: too few units, or no spread to go by.');
  const change = readChange(c, finding);
  const sign = own.direction === 'more' ? 1 : -1;
  if (change === null) {
    // Shares of pairs: a direction, no size.
    const half = 0.5;
    const [low, high] = sign > 0 ? [c.low, c.high] : [1 - c.high, 1 - c.low];
    const verdict =
      low > half ? (own.percent === null ? 'borneOut' : 'inPart') : high < half ? 'contradicted' : 'notShown';
    const size = own.percent === null ? '' : ' A size in per cent can’t be read off this kind of value.';
    return {
      verdict,
      text: `${nameOf(own.treatmentId)} lies above ${nameOf(control)} in ${formatFigure(10 * c.estimate, 1)} of ten pairs (${formatFigure(10 * c.low, 1)} to ${formatFigure(10 * c.high, 1)}).${size}`,
    };
  }
  const { estimate, low, high, unit } = change;
  const ends = sign > 0 ? [low, high] : [-high, -low];
  const mid = sign * estimate;
  const show = (x: number) =>
    `${x > 0 ? '+' : x < 0 ? '−' : ''}${formatFigure(Math.abs(x), unit === '%' ? 0 : Math.max(1, trait.decimals))}`;
  // Of shares points and per cent are two things: both are named.
  const share = analysis.summaries.find((s) => s.name === control)!.estimate;
  const more =
    kindOf(trait).observes === 'kOfN' && share > 0
      ? `, which is ${formatFigure((100 * Math.abs(estimate)) / share, 1)} % ${estimate < 0 ? 'less' : 'more'} than its ${formatFigure(share, 1)} %`
      : '';
  const seen = `${trait.name} against ${nameOf(control)}: ${show(estimate)} ${unit}${sayEnds(low, high, show)}${more}`;
  const claimed =
    own.percent === null ? '' : `; claimed ${own.upTo ? 'up to ' : ''}${own.percent} % ${own.direction}`;
  const upTo = own.upTo ? ' “Up to” promises nothing below it.' : '';
  if (ends[1]! < 0) return { verdict: 'contradicted', text: `${seen}${claimed}: the other way round.` };
  if (ends[0]! <= 0) {
    const out =
      own.percent !== null && unit === '%' && ends[1]! < own.percent ? ' The size claimed is ruled out.' : '';
    return { verdict: 'notShown', text: `${seen}${claimed}: no change was shown.${out}` };
  }
  if (own.percent === null) return { verdict: 'borneOut', text: `${seen}.` };
  if (unit !== '%')
    return {
      verdict: 'inPart',
      text: `${seen}${claimed}: right direction; ${kindOf(trait).observes === 'kOfN' ? 'whether the claim means points or per cent of the control’s share it doesn’t say' : 'a per cent of this control says nothing'}.${upTo}`,
    };
  if (ends[0]! >= own.percent)
    return { verdict: 'borneOut', text: `${seen}${claimed}: reached even at the low end.` };
  if (mid >= own.percent)
    return { verdict: 'borneOut', text: `${seen}${claimed}: reached by what was seen, not at the low end.` };
  return {
    verdict: 'inPart',
    text: `${seen}${claimed}: right direction, ${ends[1]! < own.percent ? 'the size is ruled out' : 'the size not reached, though not ruled out'}.${upTo}`,
  };
}
