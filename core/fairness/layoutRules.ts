import { balanceSearch } from '../design/balance';
import { layOut, positionsOf } from '../design/layOut';
import { residualDf } from '../design/power';
import { exposureSpreadPercent, meanExposure } from '../design/rotation';
import { type Design, type Plan, type Unit } from '../model/plan';
import { formatFigure, plural } from '../quantity/format';
import { protocolOf } from '../schedule/protocols';
import type { Cure, Rule } from './rule';

const emptyDesign: Omit<Design, 'kind' | 'replicates' | 'seed'> = { settings: [], balance: null };

const codesOf = (units: readonly Unit[]) => units.map((u) => u.code).join(', ');

/** Lays the plan out anew; the plan as it is when there is no room. */
function relaid(plan: Plan, design: Design): Plan {
  const units = layOut(plan, design);
  return units.ok ? { ...plan, design, units: units.value } : plan;
}

/** A cure that lays out in random complete blocks, where the places have room. */
function blocksCure(plan: Plan, replicates: number, label: string): Cure | null {
  const wanted = plan.treatments.length * replicates;
  if (plan.treatments.length < 2 || wanted > positionsOf(plan.areas).length) return null;
  return {
    label,
    apply: (seed) => ({ plan: fairlyRelaid(plan, { kind: 'rcbd', replicates, seed, ...emptyDesign }) }),
  };
}

/** Draws tried before a layout with a treatment to one side is taken after all. */
const DRAWS = 60;

/** Lays out anew; a draw that gives a treatment a line, an end or a side to itself is drawn again. */
function fairlyRelaid(plan: Plan, design: Design): Plan {
  let drawn = plan;
  for (let i = 0; i < DRAWS; i++) {
    drawn = relaid(plan, { ...design, seed: (design.seed + i) % 0x100000000 });
    if (linesOwned(drawn).length === 0 && sidesOf(drawn).length === 0) break;
  }
  return drawn;
}

/** Units of each treatment; 0 before the layout. */
const leastReplicates = (plan: Plan) =>
  Math.min(...plan.treatments.map((t) => plan.units.filter((u) => u.treatmentId === t.id).length));

/** Blocks of all treatments that leave 12 residual degrees of freedom. */
const blocksFor12 = (k: number) => Math.ceil(12 / Math.max(1, k - 1)) + 1;

const oneUnit: Rule = {
  id: 'one-unit',
  severity: 'breaks',
  title: 'One unit per treatment',
  why: 'With one of each, a product can’t be told from the place it stood in.',
  check: ({ plan }) => {
    const single = plan.treatments.filter(
      (t) => plan.units.filter((u) => u.treatmentId === t.id).length === 1,
    );
    if (plan.units.length === 0 || single.length === 0) return null;
    const replicates = blocksFor12(plan.treatments.length);
    const cure = blocksCure(plan, replicates, `Lay out ${replicates} of each`);
    return {
      found: `${single.map((t) => t.name).join(', ')}: one ${plan.unitNoun} each.`,
      units: plan.units.filter((u) => single.some((t) => t.id === u.treatmentId)).map((u) => u.id),
      cure: cure ? `Several ${plural(plan.unitNoun)} of each.` : `Make room for ${replicates} of each.`,
      room: 'layout',
      ...(cure && { fix: cure }),
    };
  },
};

const partNouns = ['plant', 'pod', 'plug', 'head', 'cutting', 'seedling', 'shoot', 'sample', 'leaf'];

const samplesAsUnits: Rule = {
  id: 'samples-as-units',
  severity: 'breaks',
  title: 'Samples counted as units',
  why: 'Six plants in one tank got the feed together: they are one repeat, not six.',
  check: ({ plan }) => {
    const protocol = protocolOf(plan.protocolId);
    const noun = plan.unitNoun.toLowerCase();
    const shares = plan.areas.some((a) => a.kind === 'tank');
    const other = protocol && protocol.unitNoun !== noun ? protocol.unitNoun : null;
    if (!partNouns.includes(noun) || !(shares || (other && protocol!.plantsPerUnit > 1))) return null;
    return {
      found: `One unit is called a ${noun}, but ${shares ? 'a tank holds several' : `in this kind of trial a ${other} holds several`}.`,
      cure: 'The unit is what got the treatment on its own; plants in it are samples.',
      room: 'question',
      ...(other && {
        fix: {
          label: `The unit is a ${other}`,
          apply: () => ({
            plan: {
              ...plan,
              unitNoun: other,
              traits: plan.traits.map((t) =>
                t.kind === 'number' && t.samplesPerUnit === 1
                  ? { ...t, samplesPerUnit: protocol!.plantsPerUnit }
                  : t,
              ),
            },
          }),
        },
      }),
    };
  },
};

/** Residual degrees of freedom of a layout as it will be analysed. */
export function layoutResidualDf(plan: Plan): number {
  const k = plan.treatments.length;
  const blocked = plan.units.every((u) => u.block !== null);
  const inColumns = blocked && plan.units.every((u) => u.columnBlock !== null);
  const distinct = (pick: (u: Unit) => number | null) => new Set(plan.units.map(pick)).size;
  const blocks = blocked ? distinct((u) => u.block) : 1;
  const columns = inColumns ? distinct((u) => u.columnBlock) : 1;
  // Several squares: the square's own difference is in both its rows and its columns.
  const squares = inColumns ? Math.max(1, Math.round(plan.units.length / k ** 2)) : 1;
  const df = residualDf({ treatments: k, replicates: plan.units.length / k, blocks, columns, alpha: 0.05 });
  return df + (squares - 1);
}

const fewDegrees: Rule = {
  id: 'few-degrees',
  severity: 'weakens',
  title: 'Too few repeats to judge the spread',
  why: 'Below 12 residual degrees of freedom the spread itself is a guess (EPPO PP 1/152, from memory).',
  check: ({ plan }) => {
    if (plan.units.length === 0 || leastReplicates(plan) < 2) return null;
    const df = layoutResidualDf(plan);
    if (df >= 12) return null;
    const k = plan.treatments.length;
    const replicates = Math.max(blocksFor12(k), leastReplicates(plan) + 1);
    const cure = blocksCure(plan, replicates, `Lay out ${replicates} blocks`);
    return {
      found: `${df} residual degrees of freedom.`,
      cure: cure
        ? `${replicates} blocks of all treatments leave ${(k - 1) * (replicates - 1)}.`
        : `Make room for ${replicates} of each.`,
      room: 'layout',
      ...(cure && { fix: cure }),
    };
  },
};

const unequalRepeats: Rule = {
  id: 'unequal-repeats',
  severity: 'note',
  title: 'Unequal numbers of units',
  why: 'The treatment with fewer units is known less well.',
  check: ({ plan }) => {
    const counts = plan.treatments.map((t) => plan.units.filter((u) => u.treatmentId === t.id).length);
    if (plan.units.length === 0 || counts.every((c) => c === counts[0])) return null;
    const replicates = Math.max(...counts);
    const cure = blocksCure(plan, replicates, `Lay out ${replicates} of each`);
    return {
      found: plan.treatments.map((t, i) => `${t.name} ${counts[i]}`).join(', ') + '.',
      cure: 'The same number of each.',
      room: 'layout',
      ...(cure && { fix: cure }),
    };
  },
};

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
      found: kind === 'hand' ? 'Units were placed by hand.' : 'Treatments are interleaved in a fixed order.',
      cure: 'Let chance lay them out.',
      room: 'layout',
      ...(cure && { fix: cure }),
    };
  },
};

interface Line {
  what: string;
  units: Unit[];
}

/** Whole rows, columns and areas of the plan that hold more than one unit. */
function linesOf(plan: Plan): Line[] {
  return plan.areas.flatMap((area) => {
    const here = plan.units.filter((u) => u.position.areaId === area.id);
    const along = (axis: 'row' | 'column', count: number) =>
      Array.from({ length: count }, (_, i) => ({
        what: `${axis} ${i + 1} of ${area.name}`,
        units: here.filter((u) => u.position[axis] === i),
      }));
    return [
      ...along('row', area.rows),
      ...along('column', area.columns),
      { what: `all of ${area.name}`, units: here },
    ];
  });
}

/** All units of a treatment at the ends are suspect when chance would rarely put them there. */
const END_CHANCE = 0.05;

/** Lines and ends that belong to one treatment. */
function linesOwned(plan: Plan): Line[] {
  const whole = linesOf(plan).filter(
    (l) => l.units.length > 1 && l.units.every((u) => u.treatmentId === l.units[0]!.treatmentId),
  );
  // Two neighbours of a kind are what chance gives now and then; most of a treatment in such pairs isn't.
  const owned = whole.filter((l) => {
    if (l.units.length > 2) return true;
    const { treatmentId } = l.units[0]!;
    const inLines = new Set(
      whole.flatMap((o) => (o.units[0]!.treatmentId === treatmentId ? o.units.map((u) => u.id) : [])),
    );
    return inLines.size > plan.units.filter((u) => u.treatmentId === treatmentId).length / 2;
  });
  const ends = plan.treatments.flatMap((t): Line[] => {
    const units = plan.units.filter((u) => u.treatmentId === t.id);
    let chance = 1;
    const atEnd = units.every((u) => {
      const area = plan.areas.find((a) => a.id === u.position.areaId);
      if (!area || area.columns < 3) return false;
      chance *= 2 / area.columns;
      return [0, area.columns - 1].includes(u.position.column);
    });
    return units.length > 2 && atEnd && chance < END_CHANCE ? [{ what: 'the ends', units }] : [];
  });
  return [...owned, ...ends];
}

const wholeLines: Rule = {
  id: 'whole-lines',
  severity: 'breaks',
  title: 'A treatment has a row, column or end to itself',
  why: 'The dark end or the draughty row then belongs to one product.',
  check: ({ plan }) => {
    if (plan.treatments.length < 2 || leastReplicates(plan) < 2 || plan.rotation) return null;
    const nameOf = (u: Unit) => plan.treatments.find((t) => t.id === u.treatmentId)?.name ?? '';
    const found = linesOwned(plan);
    if (found.length === 0) return null;
    const cure = blocksCure(plan, leastReplicates(plan), 'Randomise in blocks');
    return {
      found:
        found
          .slice(0, 4)
          .map((l) => `${nameOf(l.units[0]!)} fills ${l.what}`)
          .join('; ') + (found.length > 4 ? ' …' : '.'),
      units: [...new Set(found.flatMap((l) => l.units.map((u) => u.id)))],
      cure: 'Mix the treatments over rows and columns.',
      room: 'layout',
      ...(cure && { fix: cure }),
    };
  },
};

/** Means of the gradient may differ between treatments by this much, per cent. */
const GRADIENT_TOLERANCE = 5;

const gradientUnbalanced: Rule = {
  id: 'gradient-unbalanced',
  severity: 'breaks',
  title: 'The light isn’t shared fairly',
  why: 'A tenth more light is about a tenth more growth: as much as most products promise.',
  check: ({ plan }) => {
    if (!plan.gradient || plan.units.length === 0) return null;
    const means = meanExposure(plan);
    const spread = exposureSpreadPercent(means);
    if (spread === null || spread <= GRADIENT_TOLERANCE) return null;
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
            apply: (seed) => {
              const search = balanceSearch(plan, { ...plan.design!, seed }, 400);
              if (!search.ok) return { plan };
              search.value.step(400);
              const found = search.value.result();
              return { plan: relaid(plan, { ...plan.design!, seed: found.seed, balance: found.balance }) };
            },
          },
        }),
    };
  },
};

/** Treatments' mean places may lie this share of the way apart. */
const PLACE_TOLERANCE = 0.5;

/** Who stands to which side, in words; empty when the treatments' mean places are near each other. */
function sidesOf(plan: Plan): string[] {
  const meanPlace = (id: string, axis: 'row' | 'column') => {
    const places = plan.units
      .filter((u) => u.treatmentId === id)
      .flatMap((u) => {
        const area = plan.areas.find((a) => a.id === u.position.areaId)!;
        const last = (axis === 'row' ? area.rows : area.columns) - 1;
        return last > 0 ? [u.position[axis] / last] : [];
      });
    return places.length > 0 ? places.reduce((s, v) => s + v, 0) / places.length : null;
  };
  return (['column', 'row'] as const).flatMap((axis) => {
    const means = plan.treatments.flatMap((t) => {
      const at = meanPlace(t.id, axis);
      return at === null ? [] : [{ t, at }];
    });
    if (means.length < 2) return [];
    const sorted = [...means].sort((x, y) => x.at - y.at);
    const [first, last] = [sorted[0]!, sorted.at(-1)!];
    const sides = axis === 'column' ? ['left', 'right'] : ['back', 'front'];
    return last.at - first.at > PLACE_TOLERANCE
      ? [`${first.t.name} stands mostly to the ${sides[0]}, ${last.t.name} to the ${sides[1]}`]
      : [];
  });
}

const placesUnbalanced: Rule = {
  id: 'places-unbalanced',
  severity: 'weakens',
  title: 'A treatment stands to one side',
  why: 'Sides differ in light, warmth and draught even where nobody measured it.',
  check: ({ plan }) => {
    if (plan.gradient || plan.rotation || leastReplicates(plan) < 2 || plan.treatments.length < 2)
      return null;
    const found = sidesOf(plan);
    if (found.length === 0) return null;
    const again =
      plan.design && plan.design.kind !== 'hand' && plan.design.kind !== 'interleave' ? plan.design : null;
    return {
      found: `${found.join('; ')}.`,
      cure: 'Randomise again, or read the light and balance it.',
      room: 'layout',
      ...(again && {
        fix: {
          label: 'Randomise again',
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
        ? [`${a.name}: ${formatFigure(pitch, 0)} cm from neighbour to neighbour`]
        : [];
    });
    if (close.length === 0) return null;
    return {
      found: `Up to ${tall.plausibleHigh} cm tall; ${close.join('; ')}.`,
      cure: 'Stand them wider apart, end before they close, or rotate.',
      room: 'layout',
      fix: {
        label: 'Rotate every 2 days',
        apply: () => ({ plan: { ...plan, rotation: { everyDays: 2, within: 'all' } } }),
      },
    };
  },
};

/** Start sizes of treatments may differ by this much, per cent. */
const START_TOLERANCE = 10;

const startSizes: Rule = {
  id: 'start-sizes',
  severity: 'weakens',
  title: 'Treatments didn’t start alike',
  why: 'The larger start wins the race whatever the product.',
  check: ({ plan }) => {
    const means = plan.treatments.flatMap((t) => {
      const sizes = plan.units
        .filter((u) => u.treatmentId === t.id && u.startSize !== null)
        .map((u) => u.startSize!);
      return sizes.length > 0 ? [{ t, mean: sizes.reduce((s, v) => s + v, 0) / sizes.length }] : [];
    });
    if (means.length < 2) return null;
    const values = means.map((m) => m.mean);
    const grand = values.reduce((s, v) => s + v, 0) / values.length;
    const spread = (100 * (Math.max(...values) - Math.min(...values))) / grand;
    if (!(spread > START_TOLERANCE)) return null;
    return {
      found: `Mean start size: ${means.map((m) => `${m.t.name} ${Number(m.mean.toPrecision(3))}`).join(', ')}; ${formatFigure(spread, 0)} % apart.`,
      cure: 'Swap units so that small and large are shared out, or sort by size into blocks.',
      room: 'layout',
    };
  },
};

const noSpares: Rule = {
  id: 'no-spares',
  severity: 'note',
  title: 'No spare plants',
  why: 'A seedling that fails in the first days leaves a hole that a reserve would fill.',
  check: ({ plan }) => {
    if (plan.spares > 0) return null;
    const wanted = Math.max(2, Math.ceil(plan.units.length / 10));
    return {
      found: 'No reserves are planned.',
      cure: 'About a tenth more than are needed (practice), grown beside the trial.',
      room: 'layout',
      fix: { label: `Plan ${wanted} spares`, apply: () => ({ plan: { ...plan, spares: wanted } }) },
    };
  },
};

const labelsNotPrinted: Rule = {
  id: 'labels-not-printed',
  severity: 'note',
  title: 'Labels aren’t printed',
  why: 'Identities get lost at filling and transplanting, and then everything is.',
  check: ({ plan, labelsPrinted }) =>
    plan.units.length === 0 || labelsPrinted
      ? null
      : {
          found: `${plan.units.length} ${plural(plan.unitNoun)} have no label yet.`,
          cure: 'Print and stick them on before anything is filled.',
          room: 'labels',
        },
};

const doesNotFit: Rule = {
  id: 'does-not-fit',
  severity: 'breaks',
  title: 'Units don’t fit their places',
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
              `${a.name}: ${formatFigure(a.widthCm! / a.columns, 0)} × ${formatFigure(a.depthCm! / a.rows, 0)} cm a place for ${plan.unitNoun}s of ${unitWidthCm} × ${unitDepthCm} cm`,
          )
          .join('; ') + '.',
      cure: 'Fewer rows or columns, or turn the units.',
      room: 'layout',
    };
  },
};

export const layoutRules = [
  oneUnit,
  samplesAsUnits,
  fewDegrees,
  unequalRepeats,
  notRandomised,
  wholeLines,
  gradientUnbalanced,
  placesUnbalanced,
  edges,
  shading,
  startSizes,
  noSpares,
  labelsNotPrinted,
  doesNotFit,
];
