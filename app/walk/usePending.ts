import { useMemo } from 'react';
import { useFetchers } from 'react-router';
import type { ActionResult } from '../form/schemaFields';
import type { Saying } from '../store/change';
import type { BodyOf } from '~core/log/entry';
import type { UnitId } from '~core/model/ids';
import type { Round, Trait } from '~core/model/plan';

/** A value that was sent to the log. */
export interface PendingValue {
  value: number;
  /** its transaction is committed; the screen only hasn't been worked out anew yet */
  kept: boolean;
}

/** The figure a line puts on its tile. */
export const valueOf = (body: BodyOf<'measurement'> | BodyOf<'weighing'>): number =>
  body.kind === 'weighing' ? body.grossG - body.tareG : body.value;

/**
 * Values that were sent to the log and aren't on the screen from it yet, newest of each unit. They stand on their
 * tile at once, as being kept; as kept once the store has said so.
 */
export function usePending(trait: Trait, round: Round): ReadonlyMap<UnitId, PendingValue> {
  const fetchers = useFetchers();
  return useMemo(() => {
    const pending = new Map<UnitId, PendingValue>();
    for (const { json, state, data } of fetchers) {
      const body = (json as unknown as { body?: Saying } | undefined)?.body;
      if (body?.kind !== 'measurement' && body?.kind !== 'weighing') continue;
      if (body.traitId !== trait.id || body.roundId !== round.id) continue;
      if (body.kind === 'measurement' && body.notYet) continue;
      // The action has answered: what follows is only the drawing.
      const answer = data as ActionResult | undefined;
      const isKept = state === 'loading' && answer !== undefined && 'saved' in answer;
      pending.set(body.unitId, { value: valueOf(body), kept: isKept });
    }
    return pending;
  }, [fetchers, trait, round]);
}
