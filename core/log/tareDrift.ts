import { type TrialState, ofKind } from './state';

/** From so much on a container weighs otherwise than before, g, or this share of its tare (practice). */
const LEAST_G = 0.3;
const LEAST_SHARE = 0.003;

/**
 * A container that weighs otherwise than when it was weighed before: wet, chipped, another of the same name, or the
 * scale drifts.
 *
 * @returns its last two tares, g; null where they agree or there is only one
 * @example tareDrift(state, 'Bowl 1') // { before: 112.4, now: 113.1 }
 */
export function tareDrift(
  state: Pick<TrialState, 'byKind'>,
  container: string,
): { before: number; now: number } | null {
  const tares = ofKind(state, 'reading').filter(
    (e) => e.body.quantity === 'tare' && e.body.subject === container,
  );
  const [before, now] = tares.slice(-2).map((e) => e.body.value);
  if (before === undefined || now === undefined) return null;
  return Math.abs(now - before) > Math.max(LEAST_G, LEAST_SHARE * before) ? { before, now } : null;
}
