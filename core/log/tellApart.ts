import type { CorrectionBody, EntryBody } from './entry';
import type { EntryId, UnitId } from '../model/ids';
import { compareHappened } from './order';
import { type TrialState, ofKind } from './state';

export interface Pair {
  /** the code it stood under */
  from: UnitId;
  /** what it really is */
  to: UnitId;
}

/** An entry about one unit, as that of another. */
function turned(body: EntryBody, to: ReadonlyMap<UnitId, UnitId>): EntryBody | null {
  if (!('unitId' in body) || body.unitId === null) return null;
  const other = to.get(body.unitId);
  return other === undefined || other === body.unitId ? null : ({ ...body, unitId: other } as EntryBody);
}

/**
 * The lines that tell units apart whose labels were lost: the resolution, and a correction of everything that was logged
 * under the wrong name since, so that the log shows both.
 *
 * @param mixedUpId the line that says they were mixed up
 * @returns nothing where there is no such line, or it is resolved already
 */
export function tellApart(
  state: TrialState,
  mixedUpId: EntryId,
  as: readonly Pair[],
  how: string,
): (EntryBody | CorrectionBody)[] {
  const lost = ofKind(state, 'mixedUp').find((e) => e.id === mixedUpId);
  if (!lost || !state.mixedUp.some((m) => m.entryId === mixedUpId)) return [];
  const to = new Map(as.map((p) => [p.from, p.to]));
  const wrong = state.entries.flatMap((e) => {
    if (compareHappened(e, lost) <= 0) return [];
    const replacement = turned(e.body, to);
    return replacement
      ? [
          {
            kind: 'correction' as const,
            supersedes: e.standsFrom,
            replacement,
            reason: `told apart: ${how}`.slice(0, 500),
          },
        ]
      : [];
  });
  return [{ kind: 'toldApart', mixedUpId, as: [...as], how }, ...wrong];
}
