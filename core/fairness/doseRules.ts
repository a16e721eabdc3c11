import { formatMoney } from '../quantity/money';
import { treatmentCost } from '../cost/treatmentCost';
import { joined } from '../mixing/apart';
import { armAt } from '../mixing/armAt';
import { againstLabel } from '../mixing/matching';
import { elementPerUnit } from '../mixing/perUnit';
import { roundToStep } from '../mixing/rounding';
import { solutionOf } from '../mixing/solution';
import { type Plan, type Treatment, doseAmount } from '../model/plan';
import { convertAmount, dimensionOf } from '../quantity/amount';
import { formatFigure } from '../quantity/format';
import type { Rule } from './rule';

/** Doses promised to be equal may differ by this much, per cent. */
const MATCH_TOLERANCE = 10;

/** Strength of a treatment's first solution by its labels; null where they don't say enough. */
function estimatedEc(t: Treatment, plan: Plan): number | null {
  const { doses } = armAt(plan, t, 0);
  if (doses.length === 0) return null;
  const { strength } = solutionOf(doses, plan.mixing.water);
  return strength.incomplete || strength.ec === 0 ? null : strength.ec;
}

const unequalDose: Rule = {
  id: 'unequal-dose',
  severity: 'breaks',
  title: 'Doses promised equal aren’t',
  why: 'More of the same nutrient is no better product.',
  check: ({ plan, ecByTreatment }) => {
    const fed = plan.treatments.filter((t) => t.products.length > 0);
    if (fed.length < 2 || plan.matchedOn === 'label' || plan.matchedOn === 'asIs') return null;
    const element = plan.mixing.matchedElement;
    // Readings when all have one, else estimates for all: the two aren't held against each other.
    const allRead = fed.every((t) => ecByTreatment.has(t.id));
    const amountOf = (t: Treatment): number | null => {
      if (plan.matchedOn === 'element') return elementPerUnit(t, plan, element);
      if (plan.matchedOn === 'strength') {
        return allRead ? ecByTreatment.get(t.id)! : estimatedEc(t, plan);
      }
      const cost = treatmentCost(t, plan.products, plan.currency, plan.mixing.exchange);
      return cost.ok ? cost.value.perUnit.minor : null;
    };
    const amounts = fed.map((t) => ({ t, value: amountOf(t) }));
    const unknown = amounts.filter((a) => a.value === null).map((a) => a.t.name);
    const what = { element: element === 'N' ? 'nitrogen' : element, strength: 'strength', money: 'money' }[
      plan.matchedOn
    ];
    if (unknown.length > 0) {
      return {
        found: `Equal ${what} was promised, but it can’t be worked out for ${unknown.join(', ')}.`,
        cure:
          plan.matchedOn === 'strength'
            ? 'Mix each solution, read its strength and write it down; or enter the label analyses.'
            : plan.matchedOn === 'element'
              ? 'Enter the label analysis (of liquids by weight the density, of powders by the spoon five weighed spoons) in the library.'
              : 'Give each product a pack with a price, all in one currency.',
        room: plan.matchedOn === 'strength' ? 'mixing' : 'library',
      };
    }
    const values = amounts.map((a) => a.value!);
    const [low, high] = [Math.min(...values), Math.max(...values)];
    if (high <= low * (1 + MATCH_TOLERANCE / 100)) return null;
    const unit =
      plan.matchedOn === 'element' ? ` g ${element}` : plan.matchedOn === 'strength' ? ' mS/cm' : '';
    const figure = (v: number) =>
      plan.matchedOn === 'money'
        ? formatMoney({ minor: v, currency: plan.currency })
        : `${Number(v.toPrecision(3))}${unit}`;
    return {
      found: `Equal ${what} was promised; per ${plan.unitNoun}: ${amounts.map((a) => `${a.t.name} ${figure(a.value!)}`).join(', ')}.`,
      cure: 'Change the doses, or say that each is used at its label rate.',
      room: 'contenders',
      fix: { label: 'Say: each at its label rate', apply: () => ({ plan: { ...plan, matchedOn: 'label' } }) },
    };
  },
};

/** A dose that the scale's step changes by more than this, per cent, is in doubt. */
const DOSE_TOLERANCE = 5;

const doseError: Rule = {
  id: 'dose-error',
  severity: 'weakens',
  title: 'The scale is too coarse for a dose',
  why: 'A whole-gram scale makes 2.4 g into 2 g: a sixth of the dose is missing.',
  check: ({ plan }) => {
    const step = plan.scaleStepG;
    if (step === null) return null;
    const off = plan.treatments.flatMap((t) =>
      t.products.flatMap((u) => {
        if (dimensionOf(u.unit) !== 'mass') return [];
        const grams = convertAmount(doseAmount(u), u.unit, 'g', null);
        if (!grams.ok) return [];
        const units = plan.units.filter((x) => x.treatmentId === t.id).length || 1;
        const wanted = grams.value * (u.solutionLPerUnit ?? 1) * units;
        const { errorPercent: error, measured } = roundToStep(wanted, step);
        const name = plan.products.find((p) => p.id === u.productId)?.name ?? t.name;
        return Math.abs(error) > DOSE_TOLERANCE
          ? [
              `${name} for ${units} ${units > 1 ? 'units' : 'unit'}: ${Number(wanted.toPrecision(3))} g becomes ${Number(measured.toPrecision(3))} g (${error > 0 ? '+' : '−'}${formatFigure(Math.abs(error), 1)} %)`,
            ]
          : [];
      }),
    );
    if (off.length === 0) return null;
    return {
      found: `${off.join('; ')}, on a scale with steps of ${step} g.`,
      cure: 'Mix a bigger batch or a stock solution (Mixing proposes both), or weigh on a finer scale.',
      room: 'mixing',
      ...(step > 0.1 && {
        fix: { label: 'There is a 0.1 g scale', apply: () => ({ plan: { ...plan, scaleStepG: 0.1 } }) },
      }),
    };
  },
};

/** Doses as plants get them: parts dissolved apart are in all the water once they have met. */
const dosesOf = (t: Treatment, plan: Pick<Plan, 'products'>) =>
  joined(t.products).flatMap((met, i) => {
    const use = t.products[i]!;
    const product = plan.products.find((p) => p.id === use.productId);
    return product && use.solutionLPerUnit !== null
      ? [{ use, dose: { product, amount: doseAmount(met), unit: met.unit } }]
      : [];
  });

const aboveLabel: Rule = {
  id: 'above-label',
  severity: 'weakens',
  title: 'A dose above its label',
  why: 'More than the label allows can harm plants, and isn’t what a buyer would use.',
  check: ({ plan }) => {
    const over = plan.treatments.flatMap((t) =>
      dosesOf(t, plan).flatMap(({ use, dose }) => {
        const stand = againstLabel(dose);
        return stand?.stand === 'above' ? [{ t, use, dose, times: stand.times }] : [];
      }),
    );
    if (over.length === 0) return null;
    return {
      found: `${over.map((o) => `${o.t.name}: ${o.dose.product.name} at ${Number(o.times.toPrecision(2))} times the highest rate on its label`).join('; ')}.`,
      cure: 'Go down to the label’s highest rate.',
      room: 'contenders',
      fix: {
        label: 'Take the label’s highest rate',
        apply: () => ({
          plan: {
            ...plan,
            treatments: plan.treatments.map((t) => ({
              ...t,
              products: t.products.map((u) => {
                const mine = over.find((o) => o.use === u);
                return mine
                  ? { ...u, amount: Number((u.amount / mine.times).toPrecision(6)), rateText: '' }
                  : u;
              }),
            })),
          },
        }),
      },
    };
  },
};

export const doseRules: readonly Rule[] = [unequalDose, doseError, aboveLabel];
