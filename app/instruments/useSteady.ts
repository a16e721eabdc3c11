import { useEffect, useEffectEvent, useRef } from 'react';
import type { Instrument } from './instrument';
import { beginSteady, nextSteady } from './steady';

/**
 * Takes steady readings of a scale by themselves.
 * @param floorG what the scale shows with nothing to be weighed on it: the container
 */
export function useSteady(instrument: Instrument, floorG: number, onTake: (grams: number) => void): void {
  const state = useRef(beginSteady);
  const hear = useEffectEvent((grams: number, atRest: boolean) => {
    const next = nextSteady(state.current, { grams, atRest }, floorG);
    state.current = next.state;
    if (next.take !== null) onTake(next.take);
  });
  useEffect(() => {
    // What lies there now was there before: it is waited for until it is taken off.
    state.current = { takenG: null, armed: false };
    return instrument.listen((r) => hear(r.values.weight ?? 0, r.atRest));
  }, [instrument]);
}
