import { plural } from '../quantity/format';
import type { Correction, Entry } from './entry';
import { entryKinds } from './kinds';
import { compareWritten } from './order';
import { type TrialState, deriveState, ofKind, rootOf } from './state';
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
interface AfterOpening {
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
const isOpened = (state: Pick<TrialState, 'plan' | 'revealed'>): boolean =>
  state.plan.blinding !== 'open' && state.revealed !== null;

/** The line by which the codes were opened; undefined where they aren't, or nothing is blind. */
const openingOf = (state: TrialState) =>
  isOpened(state) ? [...ofKind(state, 'reveal')].sort(compareWritten)[0] : undefined;

/** Which lines may not be put right without a reason: they decide what is found, and the codes are open. */
export const askingReason = (state: TrialState): ((line: Entry) => boolean) =>
  openingOf(state) === undefined ? () => false : (line) => decides(rootOf(state, line));

const decides = (root: Entry | undefined): boolean => root !== undefined && scores.has(root.kind);

/**
 * Which lines, written here or come from elsewhere, put a score right or leave one out after the opening without saying why.
 * Asked with the line that is corrected, where it may not be here yet.
 *
 * @example entries.some((e) => lacksReason(state)(e)) // nothing of it is written
 */
export function lacksReason(state: TrialState): (line: Entry, root?: Entry) => boolean {
  const opening = openingOf(state);
  if (!opening) return () => false;
  return (line, root = rootOf(state, line)) =>
    (line.kind === 'correction' || line.kind === 'exclusion') &&
    !isReason(line.reason) &&
    compareWritten(line, opening) > 0 &&
    decides(root);
}

/**
 * What was written of the scores after the codes of a blind trial were opened, by the order of writing, and how the trial
 * stood before; null where nothing was, or nothing is blind.
 */
export function afterOpening(state: TrialState): AfterOpening | null {
  const before = known.get(state);
  if (before !== undefined) return before;
  const late = lateLines(state);
  known.set(state, late);
  return late;
}

function lateLines(state: TrialState): AfterOpening | null {
  const opening = openingOf(state);
  if (!opening) return null;
  const late = state.log.filter((line) => compareWritten(line, opening) > 0 && decides(rootOf(state, line)));
  if (late.length === 0) return null;
  const words = logWords(state.plan, undefined, false);
  const say = (line: Exclude<Entry, Correction>): string =>
    `${entryKinds[line.kind].label.toLowerCase()} ${entryKinds[line.kind].say(line, words)}`;
  const isLate = new Set<string>(late.map((l) => l.id));
  // What was taken back since neither adds nor leaves out.
  const stands = new Set<string>(state.entries.map((e) => e.id));
  const changed = late.flatMap((line) => {
    const { id } = line;
    if (line.kind === 'exclusion' || line.kind === 'death')
      return stands.has(id)
        ? [{ id, text: say(line), reason: line.kind === 'exclusion' ? line.reason : line.cause }]
        : [];
    // What is put right of a value that came late itself changes nothing that stood before.
    const root = rootOf(state, line);
    if (line.kind !== 'correction' || root === undefined || isLate.has(root.id)) return [];
    const now =
      line.replacement === null
        ? 'taken back'
        : `now ${entryKinds[line.replacement.kind].say(line.replacement, words)}`;
    return [{ id, text: `${say(root)}, ${now}`, reason: line.reason }];
  });
  const added = late.filter(
    (l) => l.kind !== 'correction' && l.kind !== 'exclusion' && l.kind !== 'death' && stands.has(l.id),
  );
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
