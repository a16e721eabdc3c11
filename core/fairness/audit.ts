import { amountRules } from './amountRules';
import { doseRules } from './doseRules';
import { placeRules } from './placeRules';
import { endingRules } from './endingRules';
import { productRules } from './productRules';
import { questionRules } from './questionRules';
import { runningRules } from './runningRules';
import { samenessRules } from './samenessRules';
import { unitRules } from './unitRules';
import type { Plan } from '../model/plan';
import type { AuditInput, Cured, Found, Rule, Severity } from './rule';

/** Every rule, in the order of the rooms. */
export const rules: readonly Rule[] = [
  ...questionRules,
  ...productRules,
  ...doseRules,
  ...amountRules,
  ...samenessRules,
  ...unitRules,
  ...placeRules,
  ...runningRules,
  ...endingRules,
];

/** A rule that fires on a plan. Plain data, apart from what `cure` works out. */
export interface AuditFinding extends Omit<Found, 'fix'> {
  ruleId: string;
  severity: Severity;
  title: string;
  why: string;
  /** what the button of the cure says; null when it is done by hand */
  fixLabel: string | null;
  /** the cure asks for nothing that only the reviewer knows */
  curesItself: boolean;
  /** the reason it was accepted with, or null */
  accepted: string | null;
}

const order: Severity[] = ['breaks', 'weakens', 'note'];

/**
 * The fairness audit: everything a reader could object to in a plan.
 * @returns findings, gravest first; accepted ones last. Empty for a clean plan
 * @example audit({ plan, labelsPrinted: true, disclosure: '', me: '', ecByTreatment: new Map() })
 */
export function audit(input: AuditInput): AuditFinding[] {
  const findings = rules.flatMap((rule): AuditFinding[] => {
    const found = rule.check(input);
    if (!found) return [];
    const { fix, ...rest } = found;
    const accepted = input.plan.accepted.find((a) => a.ruleId === rule.id)?.reason ?? null;
    return [
      {
        ...rest,
        ruleId: rule.id,
        severity: rule.severity,
        title: rule.title,
        why: rule.why,
        fixLabel: fix?.label ?? null,
        curesItself: fix?.byItself ?? false,
        accepted,
      },
    ];
  });
  const rank = (f: AuditFinding) => (f.accepted === null ? 0 : 10) + order.indexOf(f.severity);
  return findings.sort((a, b) => rank(a) - rank(b));
}

/** What a rule's cure changes, or null when the rule doesn't fire or has no button. */
export function cure(input: AuditInput, ruleId: string, seed: number): Cured | null {
  const found = rules.find((r) => r.id === ruleId)?.check(input);
  return found?.fix?.apply(seed) ?? null;
}

/**
 * Every open finding whose cure says nothing of the world, cured, the gravest first. A cure may bring another finding or
 * take one away, so the audit looks again after each; none is cured twice.
 * @returns the plan, and the titles of what was cured in it
 */
export function cureAll(input: AuditInput, seed: number): { plan: Plan; cured: string[] } {
  let { plan } = input;
  const tried = new Set<string>();
  const cured: string[] = [];
  for (;;) {
    const next = openFindings(audit({ ...input, plan })).find((f) => f.curesItself && !tried.has(f.ruleId));
    if (!next) return { plan, cured };
    tried.add(next.ruleId);
    const after = cure({ ...input, plan }, next.ruleId, seed)?.plan;
    if (!after) continue;
    plan = after;
    cured.push(next.title);
  }
}

/** Findings that are neither cured nor accepted. */
export const openFindings = (findings: readonly AuditFinding[]): AuditFinding[] =>
  findings.filter((f) => f.accepted === null);
