import { useMemo } from 'react';
import { useFetchers } from 'react-router';
import type { Saying } from '../../store/change';
import type { UnitId } from '~core/model/ids';
import type { Round, Trait } from '~core/model/plan';

/**
 * Values that were sent to the log and aren't in it yet, newest of each unit. They stand on their tile at once, as
 * being kept; what is kept is only what the log says.
 */
export function usePending(trait: Trait, round: Round): ReadonlyMap<UnitId, number> {
  const fetchers = useFetchers();
  return useMemo(() => {
    const pending = new Map<UnitId, number>();
    for (const { json } of fetchers) {
      const body = (json as unknown as { body?: Saying } | undefined)?.body;
      if (body?.kind !== 'measurement' && body?.kind !== 'weighing') continue;
      if (body.traitId !== trait.id || body.roundId !== round.id) continue;
      if (body.kind === 'measurement' && body.notYet) continue;
      pending.set(body.unitId, body.kind === 'weighing' ? body.grossG - body.tareG : body.value);
    }
    return pending;
  }, [fetchers, trait, round]);
}
