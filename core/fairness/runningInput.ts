import { localDay } from '../log/localDay';
import { plantsIn } from '../log/stand';
import { type TrialState, observationsOf, ofKind } from '../log/state';
import type { UnitId } from '../model/ids';
import { paidOf } from '../account/paid';
import { dayOfDate } from '../plan/days';
import { lastDayOf } from '../plan/ended';
import { planIndex } from '../plan/planIndex';
import { celsius } from '../quantity/temperature';
import { lengthUnits, unitAt } from '../quantity/units';
import type { AuditInput } from './rule';

/** Centimetres in a unit; null for what is no length. */
function cmIn(unit: string): number | null {
  const unitRead = unitAt(unit, ['length']);
  return unitRead?.text === unit ? lengthUnits[unitRead.name] * 100 : null;
}

/** The newest height of each unit, cm: the mean of its samples on the last visit. */
function heightsOf(state: TrialState): { unitId: UnitId; cm: number }[] {
  const traits = state.plan.traits.flatMap(({ id, role, unit }) => {
    const cm = role === 'height' ? cmIn(unit) : null;
    return cm === null ? [] : [{ id, cm }];
  });
  return state.plan.units.flatMap((u) => {
    if (state.deaths.has(u.id)) return [];
    const heights = traits.map((t) => ({ cm: t.cm, observed: observationsOf(state, u.id, t.id) }));
    let day = -Infinity;
    for (const { observed } of heights) for (const o of observed) day = Math.max(day, o.day);
    const last = heights.flatMap(({ cm, observed }) =>
      observed.flatMap((o) => (o.day === day ? [o.value * cm] : [])),
    );
    return last.length === 0 ? [] : [{ unitId: u.id, cm: last.reduce((s, cm) => s + cm, 0) / last.length }];
  });
}

/** The day on which each unit was taken in the last round of the deciding trait that was begun. */
function endedOn(state: TrialState): { unitId: UnitId; day: number }[] {
  const { plan } = state;
  const trait = plan.primaryTraitId;
  if (trait === null) return [];
  const last = plan.rounds
    .filter((r) => r.traitIds.includes(trait))
    .reduce<(typeof plan.rounds)[number] | null>((a, r) => (a === null || r.day > a.day ? r : a), null);
  if (last === null) return [];
  return plan.units.flatMap((u) => {
    const own = observationsOf(state, u.id, trait, last.id).at(-1);
    return own ? [{ unitId: u.id, day: dayOfDate(plan.startDate, localDay(own)) }] : [];
  });
}

/** What isn't in the log of what was given, once the end is reached and something is. */
function notLoggedOf(state: TrialState): NonNullable<AuditInput['notLogged']> {
  const last = lastDayOf(state.plan);
  const ended = state.plan.rounds.some((r) => r.day === last && state.byRound.has(r.id));
  // While codes are closed, who gets how many products would tell who is who.
  const closed = state.plan.blinding !== 'open' && state.revealed === null;
  if (!ended || closed || ofKind(state, 'mix').length === 0) return [];
  return paidOf(state).notLogged.map(({ treatmentId, product, days, planned }) => ({
    ...{ name: planIndex(state.plan).treatment(treatmentId)?.name ?? '?', product, days, planned },
  }));
}

/** What the log says that the audit looks at while a trial runs. */
export function runningInput(
  state: TrialState,
): Pick<
  AuditInput,
  | 'happened'
  | 'lost'
  | 'positions'
  | 'parts'
  | 'stands'
  | 'heights'
  | 'ended'
  | 'doseChanges'
  | 'batches'
  | 'notLogged'
  | 'air'
> {
  return {
    happened: state.deviations,
    lost: state.mixedUp.map((m) => m.unitIds),
    positions: state.positions,
    parts: state.parts,
    stands: state.plan.units.flatMap((u) => {
      const count = plantsIn(state, u.id);
      return count === null || state.deaths.has(u.id) ? [] : [{ unitId: u.id, count }];
    }),
    heights: heightsOf(state),
    ended: endedOn(state),
    doseChanges: ofKind(state, 'doseChange').map((e) => e.body),
    batches: ofKind(state, 'mix').map(({ body }) => ({
      batch: body.batch,
      amounts: body.amounts.flatMap(({ amount, wanted }) =>
        wanted === undefined ? [] : [{ given: amount, wanted }],
      ),
    })),
    notLogged: notLoggedOf(state),
    air: ofKind(state, 'series').flatMap(({ body }) =>
      body.areaId === undefined
        ? []
        : body.columns.flatMap((c) =>
            c.quantity && c.mean !== undefined
              ? [
                  {
                    areaId: body.areaId as string,
                    quantity: c.quantity,
                    mean: c.quantity === 'temperature' ? celsius(c.mean, c.unit) : c.mean,
                  },
                ]
              : [],
          ),
    ),
  };
}
