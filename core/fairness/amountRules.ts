import type { Plan, ProductUse, Treatment } from '../model/plan';
import { kindOf } from '../model/plan';
import { dimensionOf } from '../quantity/amount';
import { formatFigure, plural } from '../quantity/format';
import { groundOf, groundRatio } from '../plan/divisor';
import { type Rule, comparesCategory, differenceText } from './rule';

/** Ground or volumes that differ by less than this, per cent, are called equal (practice). */
const EQUAL_WITHIN_PERCENT = 2;

const differ = (ratio: number) => ratio > 1 + EQUAL_WITHIN_PERCENT / 100;

/** Traits of which a larger unit has more, compared as if units were of one size. */
const perUnitTraits = (plan: Plan) =>
  plan.traits.filter(
    (t) =>
      t.per === undefined &&
      kindOf(t).fields.includes('per') &&
      (kindOf(t).takenBy === 'scale' || kindOf(t).observes === 'count'),
  );

const unequalGround: Rule = {
  id: 'unequal-ground',
  severity: 'breaks',
  title: 'Unequal ground compared as if it were equal',
  why: 'A strip of twice the size gives twice the clippings, whatever it was given.',
  check: ({ plan }) => {
    const ratio = groundRatio(plan);
    const traits = perUnitTraits(plan);
    if (ratio === null || !differ(ratio) || traits.length === 0) return null;
    const grounds = plan.units.map((u) => groundOf(plan, u)!);
    return {
      found: `${plural(plan.unitNoun).replace(/^./, (c) => c.toUpperCase())} of ${formatFigure(Math.min(...grounds), 2)} to ${formatFigure(Math.max(...grounds), 2)} m²; ${traits.map((t) => t.name.toLowerCase()).join(', ')}: compared per ${plan.unitNoun}.`,
      units: plan.units.map((u) => u.id),
      cure: 'Compare per square metre.',
      room: 'question',
      fix: {
        label: 'Compare per m²',
        apply: () => ({
          plan: {
            ...plan,
            traits: plan.traits.map((t) => (traits.includes(t) ? { ...t, per: 'area' as const } : t)),
          },
        }),
      },
    };
  },
};

const unequalVolumes: Rule = {
  id: 'unequal-volumes',
  severity: 'weakens',
  title: 'Units get different volumes',
  why: 'The same strength in twice the water is twice the feed, and twice the water.',
  check: ({ plan }) => {
    if (plan.wholeSystem) return null;
    const fed = plan.treatments.flatMap((t) => {
      const litres = t.products.flatMap((u) => u.solutionLPerUnit ?? []);
      return litres.length === 0 ? [] : [{ t, litres: Math.max(...litres) }];
    });
    const litres = fed.map((x) => x.litres);
    if (fed.length < 2 || !differ(Math.max(...litres) / Math.min(...litres))) return null;
    return {
      found: `At a time, each ${plan.unitNoun}: ${fed.map((x) => `${x.t.name} ${formatFigure(x.litres, 2)} L`).join(', ')}.`,
      cure: 'The same litres for all, the control included; or make the nutrient a unit gets equal, in Mixing.',
      room: 'contenders',
    };
  },
};

/** Pieces, or grams without water, that one unit gets at a time; null for none. */
function directAmount(t: Treatment): string | null {
  const direct = t.products.filter((u: ProductUse) => u.solutionLPerUnit === null);
  const pieces = direct.filter((u) => dimensionOf(u.unit) === 'count');
  return pieces.length === 0 ? null : `${pieces.reduce((s, u) => s + u.amount, 0)} a time`;
}

const unequalPieces: Rule = {
  id: 'unequal-pieces',
  severity: 'weakens',
  title: 'Different numbers of tablets or pods',
  why: 'One tablet against three compares one dose with three, before it compares products.',
  check: ({ plan }) => {
    if (plan.matchedOn !== 'asIs' && plan.matchedOn !== 'label') return null;
    const text = differenceText(plan.treatments, directAmount);
    if (!text) return null;
    return {
      found: `${text}.`,
      cure: 'One number for all; or accept it with the reason, such as each label’s own rate for this pot.',
      room: 'contenders',
    };
  },
};

const sharedTank: Rule = {
  id: 'shared-tank',
  severity: 'breaks',
  title: 'All stand in one tank',
  why: 'Roots share the water: what one is fed, all drink, and stem plants feed from the water alone.',
  check: ({ plan }) => {
    const tanks = plan.areas.filter((a) => a.kind === 'tank');
    const shared = tanks.filter(
      (a) => new Set(plan.units.filter((u) => u.position.areaId === a.id).map((u) => u.treatmentId)).size > 1,
    );
    const fed = plan.treatments.some((t) => t.products.length > 0);
    if (shared.length === 0 || !fed || comparesCategory(plan, ['light'])) return null;
    return {
      found: `${shared.map((a) => a.name).join(', ')}: treatments share the water.`,
      cure: 'A tank for each treatment, several of each; else say that the water is shared, and judge root feeds alone.',
      room: 'layout',
    };
  },
};

export const amountRules: readonly Rule[] = [unequalGround, unequalVolumes, unequalPieces, sharedTank];
