import type { Finding } from '../account/finding';
import { inseparable, leaders, soleControl } from '../account/outcomes';
import { formatFigure, listNames } from '../quantity/format';
import { formatMoney } from '../quantity/money';
import type { CostSettings } from '../model/judgement';
import type { NameOf } from '../model/nameOf';
import type { Plan } from '../model/plan';
import { resultUnit } from '../plan/divisor';
import type { Card } from '../scorecard/card';
import type { Verdict } from '../verdict/verdict';
import { isYield } from './bestValue';
import { sayCard } from './cardWords';
import { type Costs, turnsAt } from './costWords';
import { decimalsOfFinding } from './sayContrast';

/** One way to look at the trial, and who takes it. */
export interface Takes {
  id: 'trait' | 'money' | 'weights';
  title: string;
  /** contenders that take it; nobody where it can't be told */
  who: string[];
  text: string;
}

/**
 * Who gives most for the money, by pack price and with all that is counted, where those are two.
 * @returns null where nobody does, or it can't be told
 * @example 'By pack price Duo Lume; with all that is counted, your hour at €12.00, Sarmenta Fine.'
 */
export function sayValue(
  { costs, settings, verdict, finding, plan }: ValueInput,
  nameOf: NameOf,
): string | null {
  const { treatmentId } = verdict.bestValue;
  if (treatmentId === null || treatmentId === soleControl(finding)) return null;
  const turn = turnsAt(costs, verdict, finding, plan);
  if (turn === null || turn.factor >= 1) return `${nameOf(treatmentId)} is the best value.`;
  // An hour has a price only where work is counted.
  const worked = settings.workAsLogged || settings.minutesPerUnit !== null;
  const hour =
    settings.hourMinor === null || !worked
      ? ''
      : `, your hour at ${formatMoney({ minor: settings.hourMinor, currency: plan.currency })},`;
  return `By pack price ${nameOf(treatmentId)}; with all that is counted${hour} ${nameOf(turn.next)}.`;
}

export interface ValueInput {
  costs: Costs;
  settings: CostSettings;
  verdict: Verdict;
  finding: Finding;
  plan: Plan;
}

/** The three looks a verdict stands on: the deciding trait, the money, and the weights of the card where there is one. */
export function whoTakes({ verdict, finding }: ValueInput, card: Card | null, nameOf: NameOf): Takes[] {
  const first = leaders(finding);
  const all = finding.ranking.length;
  // Where nothing separates anybody, nobody takes it.
  const who = finding.analysis.spread !== 'shown' || (first.length === all && all > 1) ? [] : first;
  const value = verdict.bestValue.treatmentId;
  const most = card?.contenders.filter((c) => c.place === 1).map((c) => c.id) ?? [];
  return [
    {
      ...{ id: 'trait', who },
      title: isYield(finding) ? 'Takes the yield' : `Takes ${finding.trait.name.toLowerCase()}`,
      text: sayTrait(finding, who, nameOf),
    },
    {
      ...{ id: 'money', who: value === null ? [] : [value], title: 'Takes the money' },
      text: verdict.bestValue.text,
    },
    ...(card && card.rows.length > 0
      ? [
          {
            ...{ id: 'weights' as const, title: 'Takes it by your weights' },
            who: most.length === card.contenders.length ? [] : most,
            text: sayCard(card, nameOf),
          },
        ]
      : []),
  ];
}

function sayTrait(finding: Finding, who: readonly string[], nameOf: NameOf): string {
  const of = (id: string) => finding.analysis.summaries.find((s) => s.name === id);
  const unit = resultUnit(finding.trait);
  const figures = who.flatMap((id) => {
    const s = of(id);
    if (s === undefined) return [];
    const figure = s.shown ?? `${formatFigure(s.estimate, decimalsOfFinding(finding))} ${unit}`.trim();
    return [who.length === 1 ? figure : `${nameOf(id)} ${figure}`];
  });
  if (finding.analysis.spread !== 'shown') return 'Nothing was tested: there is no spread to judge by.';
  if (figures.length === 0) return 'Nobody was shown to be ahead.';
  if (who.length === 1) return `${listNames(figures)}.`;
  const apart = inseparable(finding, who)
    ? `Nothing separates ${who.length === 2 ? 'the two' : 'them'}.`
    : 'They share the lead.';
  return `${listNames(figures)}. ${apart}`;
}
