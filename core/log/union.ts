import { canonicalJson } from '../plan/seal';
import type { EntryId } from '../model/ids';
import type { Entry } from './entry';
import { inOrderOfWriting } from './resolve';

/** Two lines with one id that don't say the same: a damaged or changed file. Neither is chosen. */
interface LogConflict {
  id: EntryId;
  /** the line as it is recorded here */
  own: Entry;
  /** the line as the other copy has it */
  other: Entry;
}

interface UnitedLogs {
  /** every line of both, in the order of writing; where they disagree, the one recorded here */
  log: Entry[];
  /** lines of the other copy that weren't here */
  added: Entry[];
  conflicts: LogConflict[];
}

/**
 * The union of two copies of a log, by id: what merging two devices' files means. A line's bytes never change,
 * so the same id with another body is a conflict: it is kept, shown and left to the reviewer.
 *
 * @param own the log as it is recorded here
 * @param other the copy that is taken in
 */
export function unionOfLogs(own: readonly Entry[], other: readonly Entry[]): UnitedLogs {
  const here = new Map<string, Entry>(own.map((e) => [e.id, e]));
  const added: Entry[] = [];
  const conflicts: LogConflict[] = [];
  for (const line of other) {
    const known = here.get(line.id);
    if (known === undefined) {
      here.set(line.id, line);
      added.push(line);
    } else if (known !== line && canonicalJson(known) !== canonicalJson(line)) {
      conflicts.push({ id: line.id, own: known, other: line });
    }
  }
  return { log: inOrderOfWriting([...here.values()]), added, conflicts };
}
