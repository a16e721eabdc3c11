import { v7 } from 'uuid';

/**
 * A fresh id of the kind asked for: a UUID of version 7 (RFC 9562), which sorts by the time it was made.
 * @example newId<UnitId>()
 */
export const newId = <T extends string>(): T => v7() as T;
