import { nearestNeighbour } from '../design/nearest';
import type { UnitId } from '../model/ids';
import type { Plan } from '../model/plan';
import { planIndex } from '../plan/planIndex';
import { formatFigure, listNames, plural } from '../quantity/format';
import type { Rule } from './rule';

/** What says that a trial should end, or that it didn't end alike for all. */

const codesOf = (plan: Plan, ids: readonly UnitId[]): string =>
  listNames(ids.map((id) => planIndex(plan).unit(id)?.code ?? '?'));

/** Units by treatment, with what was said of each. */
function byTreatment<T>(
  plan: Plan,
  of: ReadonlyMap<UnitId, T>,
): { name: string; values: T[]; units: number }[] {
  return plan.treatments.map((t) => {
    const units = plan.units.filter((u) => u.treatmentId === t.id);
    return { name: t.name, units: units.length, values: units.flatMap((u) => of.get(u.id) ?? []) };
  });
}

const neighboursCrowd: Rule = {
  id: 'neighbours-crowd',
  severity: 'weakens',
  title: 'Plants are taller than they stand apart',
  why: 'From then on the tall shade the short: part of the difference is their neighbours’ doing. Height above distance is a rule of thumb (practice).',
  check: ({ plan, heights = [], positions = new Map() }) => {
    const over = heights.flatMap(({ unitId, cm }) => {
      const distance = nearestNeighbour(plan, positions, unitId);
      return distance !== null && cm > distance ? [{ unitId, cm, distance }] : [];
    });
    const most = over.sort((a, b) => b.cm / b.distance - a.cm / a.distance)[0];
    if (!most) return null;
    const code = planIndex(plan).unit(most.unitId)?.code ?? '?';
    return {
      found: `${over.length} of ${plan.units.length} ${plural(plan.unitNoun)}: ${code} is ${formatFigure(most.cm, 0)} cm tall and ${formatFigure(most.distance, 0)} cm from its neighbour.`,
      units: over.map((o) => o.unitId),
      cure: 'Set all of them further apart on one day, or end now, the same day for all.',
      room: 'layout',
    };
  },
};

const ranDry: Rule = {
  id: 'ran-dry',
  severity: 'weakens',
  title: 'One contender ran dry before the others',
  why: 'What stands without water or feed has ended; measured on, it tells who ran out first, not who grew best.',
  check: ({ plan, happened = [] }) => {
    const dry = new Set(happened.flatMap((h) => (h.what === 'ranDry' ? h.unitIds : [])));
    if (dry.size === 0) return null;
    const shares = byTreatment(plan, new Map([...dry].map((id) => [id, true])));
    const all = shares.filter((s) => s.units > 0).map((s) => s.values.length / s.units);
    if (Math.max(...all) - Math.min(...all) < 1e-9) return null;
    const told = shares
      .filter((s) => s.values.length > 0)
      .map((s) => `${s.values.length} of ${s.units} of ${s.name}`);
    return {
      found: `Out of water or feed: ${listNames(told)} (${codesOf(plan, [...dry])}).`,
      units: [...dry],
      cure: 'Fill all up alike and tell it, or end all on this day: then it is the yield until the first ran out.',
      room: 'rounds',
    };
  },
};

/** Days by which contenders' ends may differ without a word. */
const SAME_DAY = 0.5;

const endedApart: Rule = {
  id: 'ended-apart',
  severity: 'weakens',
  title: 'Contenders didn’t end on the same day',
  why: 'A day more is a day’s growth more.',
  check: ({ plan, ended = [] }) => {
    const days = new Map(ended.map((e) => [e.unitId, e.day]));
    const means = byTreatment(plan, days).flatMap(({ name, values }) =>
      values.length === 0 ? [] : [{ name, mean: values.reduce((a, b) => a + b, 0) / values.length }],
    );
    const sorted = [...means].sort((a, b) => a.mean - b.mean);
    const [first, last] = [sorted[0], sorted.at(-1)];
    if (!first || !last || last.mean - first.mean < SAME_DAY) return null;
    const day = (d: number) => formatFigure(d, Number.isInteger(d) ? 0 : 1);
    return {
      found: `${first.name} was taken on day ${day(first.mean)}, ${last.name} on day ${day(last.mean)}, on average.`,
      cure: 'Take what is left today, all together; or say beside the finding how many days apart it was.',
      room: 'rounds',
    };
  },
};

const doseChanged: Rule = {
  id: 'dose-changed',
  severity: 'weakens',
  title: 'A dose was changed for some contenders alone',
  why: 'From that day on it is another treatment than the one that was planned.',
  check: ({ plan, doseChanges = [] }) => {
    const days = [...new Set(doseChanges.map((c) => c.day))].sort((a, b) => a - b);
    const fed = plan.treatments.filter((t) => t.products.length > 0);
    const apart = days.flatMap((day) => {
      const own = new Set(doseChanges.flatMap((c) => (c.day === day ? [c.treatmentId] : [])));
      const changed = fed.filter((t) => own.has(t.id));
      return changed.length > 0 && changed.length < fed.length ? [{ day, changed }] : [];
    });
    if (apart.length === 0) return null;
    return {
      found: `${apart
        .map(({ day, changed }) => `From day ${day} ${listNames(changed.map((t) => t.name))}`)
        .join('; ')}: another dose than planned, the others as before.`,
      cure: 'Make the same change for all who are fed, or tell it and judge the rounds before and after it apart.',
      room: 'mixing',
    };
  },
};

export const endingRules: readonly Rule[] = [neighboursCrowd, ranDry, endedApart, doseChanged];
