import { residualDf } from '../design/power';
import { type Plan, type Unit, kindOf } from '../model/plan';
import { ENOUGH_RESIDUAL_DF, START_SIZE_LIMIT_PERCENT } from '../plan/limits';
import { plannedStartSizes, startSizes as startSizesOf } from '../plan/startSizes';
import { planIndex } from '../plan/planIndex';
import { experimentalUnits, replicatesOf, sharesPlace } from '../plan/sharing';
import { countOf, formatFigure, plural, sayDf } from '../quantity/format';
import { leastOf } from '../stats/swapping';
import { protocolOf } from '../schedule/protocols';
import { blocksCure, blocksFor12, leastReplicates, replicatesFor12 } from './relaying';
import type { Rule } from './rule';

const oneUnit: Rule = {
  id: 'one-unit',
  severity: 'breaks',
  title: 'One unit per treatment',
  why: 'With one of each, a product can’t be told from the position it stood in.',
  check: ({ plan }) => {
    const single = plan.treatments.filter((t) => replicatesOf(plan, t.id) === 1);
    // Where a place is the unit the next rule says so.
    if (plan.units.length === 0 || single.length === 0 || sharesPlace(plan)) return null;
    const replicates = replicatesFor12(plan);
    const blocks = blocksFor12(plan.treatments.length);
    const cure = blocksCure(plan, blocks, `Lay out ${blocks} of each`);
    return {
      found: `${single.map((t) => t.name).join(', ')}: one ${plan.unitNoun} each.`,
      units: plan.units.filter((u) => single.some((t) => t.id === u.treatmentId)).map((u) => u.id),
      cure: cure
        ? `Several ${plural(plan.unitNoun)} of each.`
        : `${replicates} of each would do; where there is no room for them, repeat the trial.`,
      room: 'layout',
      ...(cure && { fix: cure }),
    };
  },
};

const sharedPlace: Rule = {
  id: 'shared-place',
  severity: 'breaks',
  title: 'One area for all of a contender',
  why: 'What shares a tent, tank or reservoir got the treatment together: it is one repeat, and the area can’t be told from the product.',
  check: ({ plan }) => {
    if (!sharesPlace(plan)) return null;
    const single = plan.treatments.filter((t) => replicatesOf(plan, t.id) === 1);
    if (single.length === 0) return null;
    const shared = experimentalUnits(plan).filter((e) => single.some((t) => t.id === e.unit.treatmentId));
    const sentences = shared.map(
      (e) =>
        `${e.name}: ${planIndex(plan).treatment(e.unit.treatmentId)!.name}, ${countOf(e.members.length, plan.unitNoun)}`,
    );
    return {
      found: `${sentences.join('; ')}. They are samples of one area, which gives numbers and no winner.`,
      units: shared.flatMap((e) => e.members.map((u) => u.id)),
      cure: 'Several areas for each contender; or, where each got its own and the area is all they share, say so.',
      room: 'layout',
      ...(plan.unitsShare === undefined && {
        fix: {
          label: 'Each got its treatment on its own',
          apply: () => ({ plan: { ...plan, unitsShare: 'nothing' as const } }),
        },
      }),
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
    // Whoever has said what is shared is taken at their word.
    const shares = plan.unitsShare === undefined && plan.areas.some((a) => a.kind === 'tank');
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
  if (sharesPlace(plan)) return experimentalUnits(plan).length - k;
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
  // EPPO PP 1/152 (from memory).
  why: 'With fewer than 12 values over, the spread from unit to unit is itself a guess.',
  check: ({ plan }) => {
    if (plan.units.length === 0 || leastReplicates(plan) < 2 || sharesPlace(plan)) return null;
    const df = layoutResidualDf(plan);
    if (df >= ENOUGH_RESIDUAL_DF) return null;
    const k = plan.treatments.length;
    const replicates = Math.max(blocksFor12(k), leastReplicates(plan) + 1);
    const cure = blocksCure(plan, replicates, `Lay out ${replicates} blocks`);
    return {
      found: `${sayDf(df)}.`,
      cure: cure
        ? `${replicates} blocks of all treatments leave ${(k - 1) * (replicates - 1)}.`
        : `${Math.max(replicatesFor12(plan), leastReplicates(plan) + 1)} of each would do; where there is no room for them, repeat the trial.`,
      room: 'layout',
      ...(cure && { fix: cure }),
    };
  },
};

const fewForDays: Rule = {
  id: 'few-for-days',
  severity: 'weakens',
  title: 'Too few units for days until',
  why: 'While some haven’t got there by the last look, days are compared by swapping units: so few can be swapped that even the clearest outcome comes up by chance.',
  check: ({ plan }) => {
    const trait = plan.primaryTraitId === null ? undefined : planIndex(plan).trait(plan.primaryTraitId);
    if (!trait || kindOf(trait).observes !== 'event' || plan.units.length === 0) return null;
    const units = experimentalUnits(plan);
    const blocked = !sharesPlace(plan) && plan.units.every((u) => u.block !== null);
    const [a, b] = plan.treatments.map((t) => units.filter((e) => e.unit.treatmentId === t.id));
    if (!a || !b || a.length < 2 || b.length < 2) return null;
    const placed = [a, b].flatMap((own, group) =>
      own.map((e) => ({ group, block: blocked ? String(e.unit.block) : '' })),
    );
    if (leastOf(placed, 0, 1) <= 0.05) return null;
    return {
      found: `${countOf(Math.min(a.length, b.length), plan.unitNoun)} of each${blocked ? ', in blocks' : ''}: nothing can be told unless it happens to every one.`,
      cure: `Look until it has happened to all; or ${blocked ? 'six blocks' : 'four of each'} or more.`,
      room: 'layout',
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

const startSizes: Rule = {
  id: 'start-sizes',
  severity: 'weakens',
  title: 'Treatments didn’t start alike',
  why: 'The larger start wins the race whatever the product.',
  check: ({ plan }) => {
    const { rows, spreadPercent: spread } = startSizesOf(plan, plannedStartSizes(plan));
    if (spread === null || !(spread > START_SIZE_LIMIT_PERCENT)) return null;
    const means = rows.flatMap((r) =>
      r.mean === null ? [] : [`${r.treatment.name} ${Number(r.mean.toPrecision(3))}`],
    );
    return {
      found: `Mean start size: ${means.join(', ')}; ${formatFigure(spread, 0)} % apart.`,
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
      fix: {
        label: `Plan ${wanted} spares`,
        byItself: true,
        apply: () => ({ plan: { ...plan, spares: wanted } }),
      },
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

export const unitRules = [
  oneUnit,
  sharedPlace,
  samplesAsUnits,
  fewDegrees,
  fewForDays,
  unequalRepeats,
  startSizes,
  noSpares,
  labelsNotPrinted,
];
