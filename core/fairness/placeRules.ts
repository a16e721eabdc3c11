import { balanceSearch } from '../design/balance';
import { exposureSpreadPercent, meanExposure } from '../design/rotation';
import type { Unit } from '../model/plan';
import { GRADIENT_LIMIT_PERCENT } from '../plan/limits';
import { sharesPlace } from '../plan/sharing';
import { formatFigure, plural } from '../quantity/format';
import { lengthText, sidesText, sizeUnitsOf } from '../quantity/sizeText';
import { blocksCure, fairlyRelaid, leastReplicates, linesOwned, relaid, sidesOf } from './relaying';
import type { Rule } from './rule';

const codesOf = (units: readonly Unit[]) => units.map((u) => u.code).join(', ');

const notRandomised: Rule = {
  id: 'not-randomised',
  severity: 'weakens',
  title: 'Not left to chance',
  why: 'What a hand or a pattern placed can run with the light; chance is what the tests rest on.',
  check: ({ plan }) => {
    if (plan.units.length === 0) return null;
    const kind = plan.design?.kind ?? 'hand';
    if (kind !== 'hand' && kind !== 'interleave') return null;
    const cure = blocksCure(plan, Math.max(1, leastReplicates(plan)), 'Randomise in blocks');
    return {
      found:
        kind === 'hand'
          ? 'Units were placed by hand.'
          : 'Treatments are interleaved in a fixed order, without blocks.',
      cure: 'Let chance lay them out.',
      room: 'layout',
      ...(cure && { fix: cure }),
    };
  },
};

const wholeLines: Rule = {
  id: 'whole-lines',
  severity: 'breaks',
  title: 'A treatment has a row, column or end to itself',
  why: 'The dark end or the draughty row then belongs to one product.',
  check: ({ plan }) => {
    // Where a place is the unit it holds one contender by design.
    if (plan.treatments.length < 2 || leastReplicates(plan) < 2 || plan.rotation || sharesPlace(plan))
      return null;
    const nameOf = (u: Unit) => plan.treatments.find((t) => t.id === u.treatmentId)?.name ?? '';
    const lines = linesOwned(plan);
    if (lines.length === 0) return null;
    const cure = blocksCure(plan, leastReplicates(plan), 'Randomise in blocks');
    return {
      found:
        lines
          .slice(0, 4)
          .map((l) => `${nameOf(l.units[0]!)} fills ${l.what}`)
          .join('; ') + (lines.length > 4 ? ' …' : '.'),
      units: [...new Set(lines.flatMap((l) => l.units.map((u) => u.id)))],
      cure: 'Mix the treatments over rows and columns.',
      room: 'layout',
      ...(cure && { fix: cure }),
    };
  },
};

const gradientUnbalanced: Rule = {
  id: 'gradient-unbalanced',
  severity: 'breaks',
  title: 'The light isn’t shared fairly',
  why: 'A tenth more light is about a tenth more growth: as much as most products promise.',
  check: ({ plan }) => {
    if (!plan.gradient || plan.units.length === 0) return null;
    const means = meanExposure(plan);
    const spread = exposureSpreadPercent(means);
    if (spread === null || spread <= GRADIENT_LIMIT_PERCENT) return null;
    const unit = plan.gradient.unit;
    return {
      found: `${plan.gradient.name}: ${plan.treatments
        .filter((t) => means.has(t.id))
        .map((t) => `${t.name} ${formatFigure(means.get(t.id)!, 0)}`)
        .join(', ')} ${unit}; ${formatFigure(spread, 0)} % apart.`,
      cure: 'Draw again until the means are alike, or rotate.',
      room: 'layout',
      ...(plan.design &&
        plan.design.kind !== 'hand' &&
        plan.design.kind !== 'interleave' && {
          fix: {
            label: 'Balance the light',
            byItself: true,
            apply: (seed) => {
              const search = balanceSearch(plan, { ...plan.design!, seed }, 400);
              if (!search.ok) return { plan };
              search.value.step(400);
              const best = search.value.result();
              return { plan: relaid(plan, { ...plan.design!, seed: best.seed, balance: best.balance }) };
            },
          },
        }),
    };
  },
};

const placesUnbalanced: Rule = {
  id: 'places-unbalanced',
  severity: 'weakens',
  title: 'A treatment stands to one side',
  why: 'Sides differ in light, warmth and draught even where nobody measured it.',
  check: ({ plan }) => {
    if (plan.gradient || plan.rotation || leastReplicates(plan) < 2 || plan.treatments.length < 2)
      return null;
    if (sharesPlace(plan)) return null;
    const sides = sidesOf(plan);
    if (sides.length === 0) return null;
    const again =
      plan.design && plan.design.kind !== 'hand' && plan.design.kind !== 'interleave' ? plan.design : null;
    return {
      found: `${sides.join('; ')}.`,
      cure: 'Randomise again, or read the light and balance it.',
      room: 'layout',
      ...(again && {
        fix: {
          label: 'Randomise again',
          byItself: true,
          apply: (seed) => ({ plan: fairlyRelaid(plan, { ...again, seed, balance: null }) }),
        },
      }),
    };
  },
};

const edges: Rule = {
  id: 'edges',
  severity: 'weakens',
  title: 'Edge rows without guards or blocks',
  why: 'Outer rows are drier, windier and lighter than inner ones.',
  check: ({ plan }) => {
    const blocked = plan.units.length > 0 && plan.units.every((u) => u.block !== null);
    if (plan.units.length === 0 || blocked || plan.rotation) return null;
    const open = plan.areas.filter(
      (a) => ['bed', 'lawn', 'greenhouse'].includes(a.kind) && !a.reserved.some((c) => c.use === 'guard'),
    );
    const atEdge = plan.units.filter((u) => {
      const a = open.find((x) => x.id === u.position.areaId);
      return (
        a &&
        a.rows > 1 &&
        a.columns > 1 &&
        ([0, a.rows - 1].includes(u.position.row) || [0, a.columns - 1].includes(u.position.column))
      );
    });
    if (atEdge.length === 0) return null;
    const cure = blocksCure(plan, Math.max(1, leastReplicates(plan)), 'Randomise in blocks');
    return {
      found: `${codesOf(atEdge.slice(0, 6))}${atEdge.length > 6 ? ' …' : ''} stand at the edge.`,
      units: atEdge.map((u) => u.id),
      cure: 'Guard plants around the outside, or blocks that take rows together.',
      room: 'layout',
      ...(cure && { fix: cure }),
    };
  },
};

/** Expected heights above this many times the distance to the neighbour shade it (practice). */
const SHADE_RATIO = 1.5;

const shading: Rule = {
  id: 'shading',
  severity: 'weakens',
  title: 'Neighbours will shade each other',
  why: 'A tall treatment steals light from the one beside it and looks better twice.',
  check: ({ plan }) => {
    if (plan.rotation) return null;
    const tall = plan.traits.find(
      (t) => t.unit === 'cm' && /height/i.test(t.name) && t.plausibleHigh !== null,
    );
    if (!tall) return null;
    const close = plan.areas.flatMap((a) => {
      const pitches = [
        a.widthCm && a.columns > 1 ? a.widthCm / a.columns : null,
        a.depthCm && a.rows > 1 ? a.depthCm / a.rows : null,
      ].filter((p) => p !== null);
      const pitch = Math.min(...pitches);
      return pitches.length > 0 && tall.plausibleHigh! > SHADE_RATIO * pitch
        ? [`${a.name}: ${lengthText(pitch, sizeUnitsOf(plan))} from neighbour to neighbour`]
        : [];
    });
    if (close.length === 0) return null;
    return {
      found: `Up to ${lengthText(tall.plausibleHigh!, sizeUnitsOf(plan))} tall; ${close.join('; ')}.`,
      cure: 'Stand them wider apart, end before they close, or rotate.',
      room: 'layout',
      fix: {
        label: 'Rotate every 2 days',
        apply: () => ({ plan: { ...plan, rotation: { everyDays: 2, within: 'all' } } }),
      },
    };
  },
};

const doesNotFit: Rule = {
  id: 'does-not-fit',
  severity: 'breaks',
  title: 'Units don’t fit their positions',
  why: 'What doesn’t fit gets squeezed to one side.',
  check: ({ plan }) => {
    const { unitWidthCm, unitDepthCm } = plan;
    if (!unitWidthCm || !unitDepthCm) return null;
    const tight = plan.areas.filter((a) => {
      if (!a.widthCm || !a.depthCm) return false;
      const [w, d] = [a.widthCm / a.columns, a.depthCm / a.rows];
      // Half a per cent of slack: 150 cm for five trays of 30.1 cm is measured, not wrong.
      return unitWidthCm > w * 1.005 || unitDepthCm > d * 1.005;
    });
    if (tight.length === 0) return null;
    return {
      found:
        tight
          .map(
            (a) =>
              `${a.name}: ${sidesText(a.widthCm! / a.columns, a.depthCm! / a.rows, sizeUnitsOf(plan))} a position for ${plural(plan.unitNoun)} of ${sidesText(unitWidthCm, unitDepthCm, sizeUnitsOf(plan))}`,
          )
          .join('; ') + '.',
      cure: 'Fewer rows or columns, or turn the units.',
      room: 'layout',
    };
  },
};

export const placeRules = [
  notRandomised,
  wholeLines,
  gradientUnbalanced,
  placesUnbalanced,
  edges,
  shading,
  doesNotFit,
];
