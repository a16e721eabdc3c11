import { v4, v7 } from 'uuid';

/**
 * A fresh id of the kind asked for: a UUID of version 7 (RFC 9562), which sorts by the time it was made.
 * @example newId<UnitId>()
 */
export const newId = <T extends string>(): T => v7() as T;

/**
 * A fresh id that tells nothing, not even when it was made: a UUID of version 4. Of contenders, whose order a blind scorer could
 * else read from their ids.
 * @example drawnId<TreatmentId>()
 */
export const drawnId = <T extends string>(): T => v4() as T;
