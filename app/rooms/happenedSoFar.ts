import { localDay } from '~core/log/localDay';
import { type TrialState, ofKind } from '~core/log/state';
import { happenings } from '~core/model/happening';
import type { UnitId } from '~core/model/ids';

/** Something that went otherwise than planned, as the list says it. */
export interface Told {
  id: string;
  /** YYYY-MM-DD */
  day: string;
  text: string;
  units: readonly UnitId[];
}

/** What went otherwise than planned, the newest first. */
export function happenedSoFar(state: TrialState): Told[] {
  const told: Told[] = [
    ...state.deviations.map((d) => ({
      id: d.entryId,
      day: localDay(d),
      text: `${happenings[d.what].name}: ${d.text}`,
      units: d.unitIds,
    })),
    ...[...state.replaced].map(([id, r]) => ({
      id: `${id}-replaced`,
      day: localDay(r),
      text: `Replaced from the spares${r.reason ? `: ${r.reason}` : ''}`,
      units: [id],
    })),
    ...ofKind(state, 'extraUnit').map((e) => ({
      id: e.id,
      day: localDay(e),
      text: `One more than planned${e.body.reason ? `: ${e.body.reason}` : ''}`,
      units: [e.body.unit.id],
    })),
    ...[...state.parts].map(([id, n]) => {
      const line = ofKind(state, 'split').findLast((e) => e.body.unitId === id)!;
      return {
        id: `${id}-split`,
        day: localDay(line),
        text: `Goes on in ${n} vessels${line.body.reason ? `: ${line.body.reason}` : ''}`,
        units: [id],
      };
    }),
    ...[...state.deaths].map(([id, d]) => ({
      id: `${id}-died`,
      day: localDay(d),
      text: `Died${d.cause ? `: ${d.cause}` : ''}`,
      units: [id],
    })),
  ];
  return told.sort((a, b) => b.day.localeCompare(a.day));
}
