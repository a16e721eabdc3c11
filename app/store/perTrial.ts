import { bench, benchName } from './bench';
import type { LoadedTrial } from './trialMemory';
import { tryTrial } from './trials';

/**
 * Something that is worked out of each trial of the bench, one after the other, and kept as long as the trial and the day
 * stay: a bench of hundreds of trials isn't in memory at once, nor read anew at each visit of a room.
 *
 * @param make works it out; of nothing but the trial and the day
 */
export function perTrial<T>(
  make: (trial: LoadedTrial, day: string) => T | Promise<T>,
): (day?: string) => Promise<T[]> {
  const cache = new Map<string, { rev: number; day: string; value: T }>();
  return async (day = '') => {
    const heads = await (await bench()).heads.toArray();
    const here = new Set(heads.map((h) => `${benchName()}/${h.id}`));
    for (const key of cache.keys()) if (!here.has(key)) cache.delete(key);
    const values: T[] = [];
    for (const { id, rev } of heads) {
      const key = `${benchName()}/${id}`;
      const known = cache.get(key);
      if (known?.rev === rev && known.day === day) {
        values.push(known.value);
        continue;
      }
      // Deleted meanwhile: there is nothing to work out.
      const trial = await tryTrial(id);
      if (!trial) continue;
      const value = await make(trial, day);
      cache.set(key, { rev: trial.rev, day, value });
      values.push(value);
    }
    return values;
  };
}
