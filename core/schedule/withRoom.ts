import type { AreaId } from '../model/ids';
import { newId } from '../model/newId';
import type { Area, Design, Plan } from '../model/plan';
import { sentenceCase } from '../quantity/format';
import { protocolOf } from './protocols';

/** What an area is called. @example areaName('tent', 2) // 'Tent 2' */
export const areaName = (kind: Area['kind'], n: number): string =>
  kind !== 'shelf' ? `${sentenceCase(kind)}${n > 1 ? ` ${n}` : ''}` : n === 1 ? 'Shelf' : `Level ${n}`;

/**
 * A plan with areas enough for a design. One without any gets an area that just holds what is laid out, as its kind of trial
 * stands; where each area gets one contender, those that lack are made like the last.
 *
 * @param inEach how many stand in an area that is made, where all of an area share
 * @param kind what is made where there is none yet
 */
export function withRoom(
  plan: Plan,
  { replicates, settings }: Pick<Design, 'replicates' | 'settings'>,
  inEach: number,
  kind: Area['kind'] = protocolOf(plan.protocolId)?.area ?? 'shelf',
): Plan {
  const k = plan.treatments.length;
  const bare = { kind, widthCm: null, depthCm: null, reserved: [] };
  if (plan.unitsShare === 'place') {
    const like = plan.areas.at(-1) ?? { ...bare, rows: 1, columns: Math.min(40, inEach) };
    const made = Array.from({ length: Math.max(0, k * replicates - plan.areas.length) }, (_, i): Area => {
      const n = plan.areas.length + i + 1;
      return { ...like, reserved: [], id: newId<AreaId>(), name: n === 1 ? `${areaName(like.kind, 1)} 1` : areaName(like.kind, n) }; // prettier-ignore
    });
    return made.length > 200 ? plan : { ...plan, areas: [...plan.areas, ...made] };
  }
  const rows = replicates * Math.max(1, settings.length);
  if (plan.areas.length > 0 || k === 0 || rows > 40) return plan;
  const area = { ...bare, id: newId<AreaId>(), name: areaName(kind, 1), rows, columns: Math.min(40, k) };
  return { ...plan, areas: [area] };
}

/** What an area is called that a plan's units share, or would. @example sharedNoun(plan) // 'tent' */
export function sharedNoun(plan: Pick<Plan, 'areas' | 'protocolId'>): string {
  const kinds = new Set(plan.areas.map((a) => a.kind));
  const usual = protocolOf(plan.protocolId)?.area ?? 'shelf';
  return kinds.size > 1 ? 'area' : ([...kinds][0] ?? usual);
}
