import type { UnitId } from '../model/ids';
import { happenings } from '../model/happening';
import { EXTRA_UNIT } from './extraUnits';
import { afterOpening, sayAfterOpening } from './afterOpening';
import { entryKinds } from './kinds';
import { localDay } from './localDay';
import { isCorrected } from './observation';
import { type TrialState, ofKind } from './state';
import { LABEL_LOST } from './views';
import { logWords } from './words';

/** Something that went otherwise than planned. */
export interface Otherwise {
  id: string;
  /** YYYY-MM-DD; null where no day is said */
  day: string | null;
  text: string;
  /** units it happened to; none: the trial */
  units: readonly UnitId[];
}

const because = (text: string, reason: string) => (reason ? `${text}: ${reason}` : text);

/**
 * All that went otherwise than planned, by the log, the oldest first: what room and review tell. While codes are closed,
 * of a dose only that it was changed.
 */
export function otherwiseIn(state: TrialState): Otherwise[] {
  const closed = state.plan.blinding !== 'open' && state.revealed === null;
  const words = logWords(state.plan, undefined, closed);
  const corrected = state.observations.filter(isCorrected).length;
  const late = afterOpening(state);
  const told: Otherwise[] = [
    ...state.deviations.map((d) => ({
      ...{ id: d.entryId as string, day: localDay(d), units: d.unitIds },
      text: because(happenings[d.what].name, d.text),
    })),
    ...ofKind(state, 'doseChange').map((e) => ({
      ...{ id: e.id as string, day: localDay(e), units: [] },
      text: `Dose changed: ${entryKinds.doseChange.say(e.body, words)}`,
    })),
    ...[...state.replaced].map(([id, r]) => ({
      ...{ id: `${id}-replaced`, day: localDay(r), units: [id] },
      text: because('Replaced from the spares', r.reason),
    })),
    ...ofKind(state, 'extraUnit').map((e) => ({
      ...{ id: e.id as string, day: localDay(e), units: [e.body.unit.id] },
      text: `${because('One more than planned', e.body.reason)}; not drawn by lot, so left out of the findings`,
    })),
    ...[...state.parts].map(([id, n]) => {
      const line = ofKind(state, 'split').findLast((e) => e.body.unitId === id)!;
      return {
        ...{ id: `${id}-split`, day: localDay(line), units: [id] },
        text: `${because(`Goes on in ${n} vessels`, line.body.reason)}; it stays one unit`,
      };
    }),
    ...state.mixedUp.map((m) => ({
      ...{ id: m.entryId as string, day: localDay(m), units: m.unitIds },
      text: `${because('Labels lost', m.reason)}; left out until they are told apart`,
    })),
    ...[...state.deaths].map(([id, d]) => ({
      ...{ id: `${id}-died`, day: localDay(d), units: [id] },
      text: because('Died', d.cause),
    })),
    ...[...state.deadSamples].map(([id, samples]) => ({
      ...{ id: `${id}-samples`, day: null, units: [id] },
      text: `Sample ${[...samples].sort((a, b) => a - b).join(', ')} died; not taken into its mean`,
    })),
    ...state.exclusions
      .filter((x) => x.reason !== LABEL_LOST && x.reason !== EXTRA_UNIT)
      .map((x) => ({
        ...{ id: x.entryId as string, day: null, units: [x.unitId] },
        text: `Left out: ${x.reason}`,
      })),
    ...(late === null ? [] : sayAfterOpening(late)).map((l) => ({ ...l, day: null, units: [] })),
    ...(corrected === 0
      ? []
      : [
          {
            ...{ id: 'corrected', day: null, units: [] },
            text: `${corrected} ${corrected === 1 ? 'value' : 'values'} corrected after entry; the log keeps the old ones`,
          },
        ]),
  ];
  return told.sort((a, b) => (a.day ?? '9999').localeCompare(b.day ?? '9999'));
}
