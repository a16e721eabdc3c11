import { formatMoney } from '../quantity/money';
import type { AuditFinding } from '../fairness/audit';
import type { CardHeading } from '../model/judgement';
import type { Plan } from '../model/plan';
import { countWord, listNames, plural, sentenceCase } from '../quantity/format';
import { makeCard } from '../scorecard/card';
import type { CardInput } from '../scorecard/cardSource';
import { sayAlone, sayCard } from './cardWords';
import { type JudgedClaim, claimVerdictNames } from '../verdict/claims';
import type { Verdict } from '../verdict/verdict';

/**
 * Every heading of a scorecard with who wins it and how surely, then all together by their weights.
 * @example sayHeadings(input, headings) // ['Yield: Duo Lume leads in 58 of 100, given the uncertainty: little separates it from the others.', …]
 */
export function sayHeadings(input: Omit<CardInput, 'headings'>, headings: readonly CardHeading[]): string[] {
  if (headings.length === 0) return [];
  const alone = headings.map(
    (h) => [h.name, makeCard({ ...input, headings: [{ ...h, weight: 100 }] })] as const,
  );
  const all = makeCard({ ...input, headings: [...headings] });
  return [
    ...alone.map(([name, card]) =>
      card.rows.length === 0
        ? `${name}: there are no figures for it yet.`
        : `${name}: ${sayCard(card, input.nameOf)}`,
    ),
    ...(headings.length > 1
      ? [`All together, by the weights of the card: ${sayCard(all, input.nameOf)}`]
      : []),
  ];
}

/** Who should take what, heading by heading. */
export const sayWhoTakes = (input: Omit<CardInput, 'headings'>, headings: readonly CardHeading[]): string[] =>
  headings.length === 0 ? [] : sayAlone(makeCard({ ...input, headings: [...headings] }), input.nameOf);

/** Claims with what became of them, a line each. @example 'Prova, “a quarter more”: borne out.' */
export const sayClaims = (claims: readonly JudgedClaim[]): string[] =>
  claims.map((c) => `${c.product.name}, “${c.claim.text}”: ${claimVerdictNames[c.verdict]}.`);

/**
 * What became of all claims, counted.
 * @example 'Six claims: two in part, one not shown, one contradicted and two not tested here.'
 */
export function sayClaimCount(claims: readonly JudgedClaim[]): string {
  const kinds = Object.entries(claimVerdictNames).flatMap(([verdict, name]) => {
    const n = claims.filter((c) => c.verdict === verdict).length;
    return n === 0 ? [] : [claims.length === 1 ? name : `${countWord(n)} ${name}`];
  });
  return `${sentenceCase(countWord(claims.length))} ${claims.length === 1 ? 'claim' : 'claims'}: ${listNames(kinds)}.`;
}

/**
 * What the retest needs: units, what their products cost at this trial's cost of a unit, and what to put right first.
 *
 * @param next units of each, as the spread of this trial asks for; null where it can't be said
 * @param found what the audit finds; what only is to be noted isn't asked for
 */
export function sayRetest(
  plan: Plan,
  verdict: Verdict,
  next: { units: number; cvPercent: number } | null,
  found: readonly AuditFinding[],
): string[] {
  const wrong = found.filter((f) => f.severity !== 'note' && f.accepted === null);
  const priced = verdict.lines.flatMap(({ cost }) =>
    cost.ok && (cost.value.perUnit.currency === plan.currency || cost.value.perUnit.minor === 0)
      ? [cost.value.perUnit.minor]
      : [],
  );
  const whole = priced.length === verdict.lines.length;
  const minor = priced.reduce((s, m) => s + m, 0) * (next?.units ?? 0);
  return [
    next
      ? `Units varied by ${Math.round(next.cvPercent)} %; ${next.units} of each, ${next.units * verdict.lines.length} ${plural(plan.unitNoun)} in all, see the difference that matters in four of five trials.`
      : 'The same question again, laid out and sealed anew.',
    ...(next && whole && minor > 0
      ? [`Their products cost about ${formatMoney({ minor, currency: plan.currency })}.`]
      : []),
    ...(wrong.length > 0
      ? [`To put right: ${listNames(wrong.map((f) => f.title.charAt(0).toLowerCase() + f.title.slice(1)))}.`]
      : []),
  ];
}
