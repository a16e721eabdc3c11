import { treatmentCost } from '../cost/treatmentCost';
import type { Money } from '../quantity/money';
import type { Plan } from '../model/plan';
import { comparesPeers } from '../plan/control';
import { experimentalUnits, replicatesOf, sharesPlace } from '../plan/sharing';
import { positionsOf } from './layOut';
import { type Blocking, detectableDifference, powerOf, replicatesNeeded, residualDf, sizeOf } from './power';

/** What a plan of a certain size can see, and what it takes. Per cents are of the control's mean. */
export interface HowMany {
  treatments: number;
  /** units of each treatment in the plan, or what its design asks for; 0 before a layout */
  replicates: number;
  dfResidual: number;
  /** smallest difference seen against the control with the wanted power; null without a residual */
  seenVersusControl: number | null;
  /** smallest difference seen between any two */
  seenPair: number | null;
  /** power to see the difference that matters; null without one or without a residual */
  powerVersusControl: number | null;
  powerPair: number | null;
  /** units of each treatment that see the difference that matters, and between any two */
  neededVersusControl: number | null;
  neededPair: number | null;
  /** positions there are, and those so many units take; areas, where units share them */
  positions: number;
  positionsNeeded: number | null;
  /** products for one unit of each treatment; null when something can't be priced */
  costPerReplicate: Money | null;
  costNeeded: Money | null;
}

/** How the blocks of a design grow with its replicates. */
export const blockingOf = (plan: Pick<Plan, 'design'>): Blocking => {
  switch (plan.design?.kind) {
    // A fixed order has no blocks to take off.
    case 'crd':
    case 'hand':
    case 'interleave':
      return 1;
    case 'latin':
      return 'latin';
    default:
      return 'perReplicate';
  }
};

const times = (money: Money | null, n: number | null): Money | null =>
  money && n !== null ? { ...money, minor: money.minor * n } : null;

function costOf(plan: Plan): Money | null {
  let minor = 0;
  for (const t of plan.treatments) {
    const cost = treatmentCost(t, plan.products, plan.currency, plan.mixing.exchange);
    if (!cost.ok || cost.value.perUnit.currency !== plan.currency) return null;
    minor += cost.value.perUnit.minor;
  }
  return { minor, currency: plan.currency };
}

/**
 * What a plan can see with its units, and how many it would need, tested as findings will be.
 *
 * @param cvPercent spread from unit to unit of the deciding trait
 * @param differencePercent difference that matters; null when none is set
 * @param power wanted, e.g. 0.8
 * Replicates needed for a Latin square count whole squares only in the layout; here they are counted one by one.
 */
export function howMany(
  plan: Plan,
  cvPercent: number,
  differencePercent: number | null,
  power: number,
  alpha = 0.05,
): HowMany | null {
  const k = plan.treatments.length;
  if (k < 2) return null;
  const counts = plan.treatments.map((t) => replicatesOf(plan, t.id));
  const settings = Math.max(1, plan.design?.settings.length ?? 1);
  const replicates = plan.units.length > 0 ? Math.min(...counts) : (plan.design?.replicates ?? 0) * settings;
  const blocking = sharesPlace(plan) ? 1 : blockingOf(plan);
  // Equals have no control whose spread is its own; their own differ little from one for all.
  const spreads = comparesPeers(plan) ? undefined : 'own';
  const size = sizeOf(k, Math.max(1, replicates), blocking, alpha, spreads);
  const found =
    differencePercent !== null && replicates > 0 ? powerOf(size, cvPercent, differencePercent) : null;
  const needed = (against: 'control' | 'pair') =>
    differencePercent === null
      ? null
      : replicatesNeeded(
          k,
          blocking === 'latin' ? 'perReplicate' : blocking,
          alpha,
          cvPercent,
          differencePercent,
          power,
          against,
          spreads,
        );
  const neededVersusControl = needed('control');
  // Where units share their area, the area is the repeat: so many of them, each with what stands in it.
  const shared = sharesPlace(plan);
  const inEach = shared ? plan.units.length / Math.max(1, experimentalUnits(plan).length) : 1;
  const costPerReplicate = times(costOf(plan), inEach);
  return {
    treatments: k,
    replicates,
    dfResidual: Math.max(0, residualDf(size)),
    seenVersusControl: replicates > 0 ? detectableDifference(size, cvPercent, power, 'control') : null,
    seenPair: replicates > 0 ? detectableDifference(size, cvPercent, power, 'pair') : null,
    powerVersusControl: found?.versusControl ?? null,
    powerPair: found?.pair ?? null,
    neededVersusControl,
    neededPair: needed('pair'),
    positions: shared ? plan.areas.length : positionsOf(plan.areas).length,
    positionsNeeded: neededVersusControl === null ? null : neededVersusControl * k,
    costPerReplicate,
    costNeeded: times(costPerReplicate, neededVersusControl),
  };
}
