/** Another tab with an older Palazzo holds the database, which can't be brought up to date under it. */
export class BenchHeldError extends Error {
  constructor() {
    super(
      'Another tab with an older Palazzo holds this bench. Close all other tabs of Palazzo, then load this page again. Nothing is lost.',
    );
    this.name = 'BenchHeldError';
  }
}

/** The database was written by a newer build. */
export class NewerBenchError extends Error {
  constructor() {
    super(
      'This bench was last opened by a newer Palazzo; this one would lose what it doesn’t know. Start the newer version. Nothing was changed.',
    );
    this.name = 'NewerBenchError';
  }
}

/** Why a change of a trial wasn't made. */
export type ChangeError =
  /** the trial isn't on this bench (any more) */
  | { tag: 'gone' }
  /** the plan is sealed */
  | { tag: 'sealed' }
  /** the plan was changed since what was worked out from it */
  | { tag: 'changed' }
  /** the codes are open: what decides the findings is changed with a reason alone */
  | { tag: 'asksReason' };

export function describeChangeError(e: ChangeError): string {
  switch (e.tag) {
    case 'gone':
      return 'This trial isn’t on this bench any more: it was deleted, or the browser’s data were cleared. Nothing was kept.';
    case 'sealed':
      return 'The plan is sealed; it isn’t changed any more.';
    case 'asksReason':
      return 'The codes are open: a value is taken back in the log, with a reason that the review prints, and then entered anew.';
    case 'changed':
      return 'The plan was changed in another tab in the meantime. Nothing was done: look at it as it is now, then try again.';
  }
}

/** Why something wasn't stored, in words that are true whatever it was. */
export function sayStorageFault(error: unknown): string {
  const { name, message, inner, issues } = (error ?? {}) as {
    name?: string;
    message?: string;
    inner?: unknown;
    /** what the record's own schema found */
    issues?: { message: string }[];
  };
  if (name === 'QuotaExceededError') {
    return 'The browser’s storage is full: free some space, or export and delete trials you no longer need.';
  }
  if (Array.isArray(issues)) {
    const sentences = [...new Set(issues.map((i) => sentence(i.message)))];
    return `What was to be kept isn’t whole. ${sentences.slice(0, 3).join(' ')}`;
  }
  if (inner !== undefined && inner !== null && inner !== error) return sayStorageFault(inner);
  if (error instanceof BenchHeldError || error instanceof NewerBenchError) return error.message;
  if (name === 'DatabaseClosedError' || name === 'OpenFailedError' || name === 'InvalidStateError') {
    return 'The browser’s database can’t be used here (private window, blocked storage, or cleared data).';
  }
  return message ? sentence(message) : 'The browser gave no reason.';
}

const sentence = (text: string) => `${text.replace(/\.$/, '')}.`;
