import { happenings } from '../model/happening';
import { farFromWanted } from '../mixing/slip';
import { planIndex } from '../plan/planIndex';
import { countOf, formatFigure, listNames, plural } from '../quantity/format';
import { temperatureUnit } from '../quantity/region';
import { temperatureShown } from '../quantity/temperature';
import type { Rule } from './rule';

/** What is found of a trial that is under way: the audit goes on after the seal. */

const hitUnevenly: Rule = {
  id: 'hit-unevenly',
  severity: 'weakens',
  title: 'Something hit one contender more than the others',
  why: 'What happened to one alone can’t be told from what its product did.',
  check: ({ plan, happened = [] }) => {
    const uneven = happened.flatMap(({ what, unitIds }) => {
      // Rules of their own.
      if (what === 'ranDry') return [];
      const hit = new Set(unitIds);
      if (hit.size === 0) return [];
      const shares = plan.treatments.flatMap((t) => {
        const units = plan.units.filter((u) => u.treatmentId === t.id);
        const n = units.filter((u) => hit.has(u.id)).length;
        return units.length === 0 ? [] : [{ name: t.name, n, of: units.length }];
      });
      const all = shares.map((s) => s.n / s.of);
      if (Math.max(...all) - Math.min(...all) < 1e-9) return [];
      const told = shares
        .filter((s) => s.n > 0)
        .map((s) => `${s.n} of ${s.of} ${plural(plan.unitNoun)} of ${s.name}`);
      return [{ text: `${happenings[what].name}: ${listNames(told)}`, what, units: [...hit] }];
    });
    if (uneven.length === 0) return null;
    const kinds = [...new Set(uneven.map((u) => u.what))];
    return {
      found: `${uneven.map((u) => u.text).join('. ')}.`,
      units: uneven.flatMap((u) => u.units),
      cure: kinds.map((k) => happenings[k].apart).join(' '),
      room: 'rounds',
    };
  },
};

/** Differences of the means a treatment's places had that matter (practice). */
const matters: Record<string, { name: string; unit: string; by: number }> = {
  temperature: { name: 'temperature', unit: '°C', by: 0.5 },
  humidity: { name: 'humidity', unit: '%', by: 5 },
  ppfd: { name: 'light', unit: 'µmol m⁻² s⁻¹', by: 10 },
};

const notTheSameAir: Rule = {
  id: 'not-the-same-air',
  severity: 'weakens',
  title: 'Contenders stood in different air',
  why: 'A warmer or brighter area grows more, whatever the product.',
  check: ({ plan, air = [] }) => {
    const lines = Object.entries(matters).flatMap(([quantity, { name, unit, by }]) => {
      const means = new Map(air.filter((a) => a.quantity === quantity).map((a) => [a.areaId, a.mean]));
      if (means.size < 2) return [];
      const byTreatment = plan.treatments.flatMap((t) => {
        const own = plan.units.flatMap((u) =>
          u.treatmentId === t.id && means.has(u.position.areaId) ? [means.get(u.position.areaId)!] : [],
        );
        return own.length === 0 ? [] : [{ name: t.name, mean: own.reduce((a, b) => a + b, 0) / own.length }];
      });
      const sorted = [...byTreatment].sort((a, b) => a.mean - b.mean);
      const [least, most] = [sorted[0], sorted.at(-1)];
      if (!least || !most || most.mean - least.mean < by) return [];
      const warm = quantity === 'temperature';
      const figure = (x: number) => formatFigure(warm ? temperatureShown(x) : x, quantity === 'ppfd' ? 0 : 1);
      return [
        `${name}: ${most.name} ${figure(most.mean)}, ${least.name} ${figure(least.mean)} ${warm ? temperatureUnit() : unit} on average`,
      ];
    });
    if (lines.length === 0) return null;
    const areas = [...new Set(air.map((a) => planIndex(plan).area(a.areaId)?.name ?? 'an area'))];
    return {
      found: `By the loggers in ${listNames(areas)}, ${lines.join('; ')}.`,
      cure: 'Rotate over the areas from now on, or say it beside the finding.',
      room: 'layout',
    };
  },
};

const labelsLost: Rule = {
  id: 'labels-lost',
  severity: 'breaks',
  title: 'Labels are lost',
  why: 'A value under the wrong name is worse than none.',
  check: ({ plan, lost = [] }) =>
    lost.length === 0
      ? null
      : {
          found: `${lost
            .map((ids) => listNames(ids.map((id) => planIndex(plan).unit(id)?.code ?? '?')))
            .join('; ')}: not told apart yet, and left out of the findings.`,
          units: lost.flat(),
          cure: 'Tell them apart by a sign that can’t be the product’s doing, else they stay left out.',
          room: 'rounds',
        },
};

const plantsUnequal: Rule = {
  id: 'plants-unequal',
  severity: 'weakens',
  title: 'Units have different numbers of plants',
  why: 'Two plants more in a container are two plants more in the yield, and less light for each.',
  check: ({ plan, stands = [] }) => {
    const counts = stands.map((s) => s.count);
    const [fewest, most] = [Math.min(...counts), Math.max(...counts)];
    if (counts.length < 2 || fewest === most) return null;
    const code = (count: number) =>
      planIndex(plan).unit(stands.find((s) => s.count === count)!.unitId)?.code ?? '?';
    return {
      found: `By the counts in the log ${code(most)} has ${most} plants and ${code(fewest)} ${fewest}.`,
      units: stands.filter((s) => s.count !== fewest).map((s) => s.unitId),
      cure: `Thin all to ${fewest}, by one rule on one day; or compare results per plant.`,
      room: 'layout',
    };
  },
};

const splitUnequal: Rule = {
  id: 'split-unequal',
  severity: 'weakens',
  title: 'Units were split differently',
  why: 'In more or larger vessels a unit has more room for its roots, whatever it is fed.',
  check: ({ plan, parts = new Map() }) => {
    if (parts.size === 0) return null;
    const groups = new Map<number, string[]>();
    for (const u of plan.units) {
      const n = parts.get(u.id) ?? 1;
      groups.set(n, [...(groups.get(n) ?? []), u.code]);
    }
    if (groups.size < 2) return null;
    const told = [...groups]
      .sort(([a], [b]) => a - b)
      .map(([n, codes]) => `${codes.length} in ${n === 1 ? 'one vessel' : `${n} vessels`}`);
    return {
      found: `${listNames(told)}.`,
      units: [...parts.keys()],
      cure: 'Split all alike on one day, or say it beside the finding.',
      room: 'rounds',
    };
  },
};

/** Off what the recipe wanted, %, from which on it is another dose (practice). */
const OTHER_DOSE = 10;

const mixedOtherwise: Rule = {
  id: 'mixed-otherwise',
  severity: 'weakens',
  title: 'A batch was mixed otherwise than by its recipe',
  why: 'It is another dose than the one that is compared.',
  check: ({ batches = [] }) => {
    // Without names and amounts: of a blind trial they would tell which batch it is.
    const off = batches.flatMap(({ batch, amounts }) =>
      amounts.flatMap(({ given, wanted }) => {
        const far = farFromWanted(given, wanted, OTHER_DOSE);
        return far === null ? [] : [`${batch} (${far})`];
      }),
    );
    if (off.length === 0) return null;
    return {
      found: `More than ${OTHER_DOSE} % off what was wanted of a product: ${listNames(off)}.`,
      cure: 'Correct what was mistyped: take the batch back and write it down anew. What was really mixed so is said beside the finding.',
      room: 'mixing',
    };
  },
};

const logIncomplete: Rule = {
  id: 'log-incomplete',
  severity: 'note',
  title: 'Not all that was given is in the log',
  why: 'What isn’t written down wasn’t given, as far as a reader knows; costs then go by the plan, for all.',
  check: ({ notLogged = [] }) => {
    if (notLogged.length === 0) return null;
    return {
      found: `${notLogged.map((m) => `${m.name}: ${m.product} on ${m.days} of ${countOf(m.planned, 'day')}`).join('; ')}.`,
      cure: 'Write the missing batches down on their days, in Mixing; or say that they weren’t given.',
      room: 'mixing',
    };
  },
};

export const runningRules: readonly Rule[] = [
  hitUnevenly,
  notTheSameAir,
  labelsLost,
  plantsUnequal,
  splitUnequal,
  mixedOtherwise,
  logIncomplete,
];
