import { plural } from '../quantity/format';
import type { Entry } from './entry';
import { entryKinds } from './kinds';
import { compareWritten } from './order';
import { type TrialState, deriveState, ofKind } from './state';
import { logWords } from './words';

/** Lines that decide what is found. */
const scores: ReadonlySet<Entry['kind']> = new Set([
  'measurement',
  'weighing',
  'pick',
  'drying',
  'exclusion',
  'death',
]);

/** What was written of a blind trial's scores once its codes were open. */
export interface AfterOpening {
  /** values added; and what was put right, taken back or left out, each in words with its reason */
  added: number;
  changed: { id: string; text: string; reason: string }[];
  /** the trial without these lines: as it stood when the codes were opened */
  before: TrialState;
}

const known = new WeakMap<TrialState, AfterOpening | null>();

/** Reasons that nobody gave: the app wrote them. */
const unsaid: ReadonlySet<string> = new Set(['', 'taken back', 'entered again', 'another load, added']);

/** Whether somebody said why. @example isReason('taken back') // false: that is what was done */
export const isReason = (text: string): boolean => !unsaid.has(text.trim());

/** Whether the codes of a blind trial are open. */
export const isOpened = (state: Pick<TrialState, 'plan' | 'revealed'>): boolean =>
  state.plan.blinding !== 'open' && state.revealed !== null;

/** The line that a correction is of, through any number of corrections; a line that is none is its own. */
function rootIn(byId: ReadonlyMap<string, Entry>, line: Entry): Entry | undefined {
  let at: Entry | undefined = line;
  for (let steps = 0; at?.kind === 'correction' && steps <= byId.size; steps++) at = byId.get(at.supersedes);
  return at;
}

/**
 * Which lines may not be put right without a reason: they decide what is found, and the codes are open.
 * @returns asks it of the line that would be corrected, by its id
 */
export function askingReason(state: TrialState): (supersedes: string) => boolean {
  if (!isOpened(state)) return () => false;
  const byId = new Map<string, Entry>(state.log.map((e) => [e.id, e]));
  return (supersedes) => {
    const line = byId.get(supersedes);
    return scores.has((line && rootIn(byId, line)?.kind) ?? 'note');
  };
}

/**
 * What was written of the scores after the codes of a blind trial were opened, by the order of writing, and how the trial
 * stood before; null where nothing was, or nothing is blind.
 */
export function afterOpening(state: TrialState): AfterOpening | null {
  const before = known.get(state);
  if (before !== undefined) return before;
  const found = isOpened(state) ? lateLines(state) : null;
  known.set(state, found);
  return found;
}

function lateLines(state: TrialState): AfterOpening | null {
  const reveal = [...ofKind(state, 'reveal')].sort(compareWritten)[0];
  if (!reveal) return null;
  const byId = new Map<string, Entry>(state.log.map((e) => [e.id, e]));
  const late = state.log.filter(
    (line) => compareWritten(line, reveal) > 0 && scores.has(rootIn(byId, line)?.kind ?? 'note'),
  );
  if (late.length === 0) return null;
  const words = logWords(state.plan, undefined, false);
  const say = (line: Entry | undefined): string =>
    line === undefined || line.kind === 'correction'
      ? '?'
      : `${entryKinds[line.kind].label.toLowerCase()} ${entryKinds[line.kind].say(line, words)}`;
  const isLate = new Set<string>(late.map((l) => l.id));
  const changed = late.flatMap((line) => {
    const { id } = line;
    if (line.kind === 'exclusion' || line.kind === 'death')
      return [{ id, text: say(line), reason: line.kind === 'exclusion' ? line.reason : line.cause }];
    // What is put right of a value that came late itself changes nothing that stood before.
    if (line.kind !== 'correction' || isLate.has(rootIn(byId, line)!.id)) return [];
    const root = rootIn(byId, line);
    const now =
      line.replacement === null
        ? 'taken back'
        : `now ${entryKinds[line.replacement.kind].say(line.replacement, words)}`;
    return [{ id, text: `${say(root)}, ${now}`, reason: line.reason }];
  });
  const added = late.filter((l) => l.kind !== 'correction' && l.kind !== 'exclusion' && l.kind !== 'death');
  return {
    added: added.length,
    changed,
    before: deriveState(
      state.plan,
      state.log.filter((e) => !isLate.has(e.id)),
    ),
  };
}

/** What was done to the scores after the opening, in words. @example ['After the codes were opened: 2 values were added'] */
export function sayAfterOpening({ added, changed }: AfterOpening): { id: string; text: string }[] {
  const values = added === 1 ? 'one value was' : `${added} ${plural('value')} were`;
  return [
    ...(added > 0 ? [{ id: 'added-late', text: `After the codes were opened: ${values} added` }] : []),
    ...changed.map(({ id, text, reason }) => ({
      id,
      text: `After the codes were opened: ${text}${isReason(reason) ? `: ${reason}` : ''}`,
    })),
  ];
}
