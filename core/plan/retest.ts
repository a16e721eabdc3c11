import type { TrialId } from '../model/ids';
import type { Plan } from '../model/plan';

/** What was learned, for the next plan. */
export interface Learned {
  /** spread from unit to unit inside blocks, per cent of the control; null: none was seen */
  cvPercent: number | null;
  /** units of each that see the difference that matters in four of five trials; null: not known */
  replicates: number | null;
  /** contenders that aren't asked again */
  drop?: ReadonlySet<string>;
}

/**
 * A new plan from a finished one: the same question, contenders, traits, rounds and place, with the spread that was seen
 * and as many units as it takes. It is laid out, sealed and begun anew.
 *
 * @param begun its own id, code and start
 * @example retestOf(plan, { id, code: 'CRE', startDate: '2026-12-01' }, { cvPercent: 9, replicates: 8 }).cvPercent // 9
 */
export function retestOf(
  plan: Plan,
  begun: { id: TrialId; code: string; startDate: string },
  { cvPercent, replicates, drop = new Set() }: Learned,
): Plan {
  const { namesLeftOut: _, ...kept } = plan;
  const control = plan.treatments.find((t) => t.role === 'untreated' || t.role === 'base');
  const treatments = plan.treatments.filter((t) => t === control || !drop.has(t.id));
  const more =
    replicates !== null && plan.design ? Math.max(plan.design.replicates, Math.min(60, replicates)) : null;
  return {
    ...kept,
    ...begun,
    retestOf: plan.id,
    treatments,
    cvPercent: cvPercent === null ? plan.cvPercent : Number(cvPercent.toPrecision(2)),
    prediction: '',
    // Handed out anew: nothing stands anywhere yet, and no tested layout is taken over.
    units: [],
    rotation: null,
    accepted: [],
    design:
      plan.design && more !== null
        ? { ...plan.design, replicates: more, seed: plan.design.seed + 1, balance: null }
        : plan.design && { ...plan.design, seed: plan.design.seed + 1, balance: null },
  };
}
