import type { Entry, EntryBody } from '~core/log/entry';
import { entryKinds } from '~core/log/kinds';
import { localDay } from '~core/log/localDay';
import { inOrderOfWriting } from '~core/log/resolve';
import { askingReason } from '~core/log/afterOpening';
import { type TrialState, standingAside, whyItStays } from '~core/log/state';
import { type LogWords, logWords } from '~core/log/words';
import { productCodeKey } from '~core/mixing/productCodes';
import type { Plan } from '~core/model/plan';

interface LogLine {
  id: string;
  at: string;
  /** the calendar day where it was logged */
  day: string;
  /** what it shares with its neighbours of one sitting, e.g. its round; null: it stands on its own */
  sitting: string | null;
  by: string;
  what: string;
  text: string;
  remark: string;
  /** still counts as it is written */
  standing: boolean;
  /** the codes are open, and it decides what is found: it isn't taken back without a reason */
  asksReason: boolean;
  canTakeBack: boolean;
}

/** What a line says, whatever its kind. */
const sayBody = (body: EntryBody, words: LogWords): string => entryKinds[body.kind].say(body, words);

/** What a line or correction says. */
export const sayLine = (e: Entry, words: LogWords): string =>
  e.kind === 'correction'
    ? e.replacement
      ? sayBody(e.replacement, words)
      : 'taken back'
    : sayBody(e, words);

/** Whether a line of this kind can be taken back: a seal and an opening of the codes stay. */
export const staysFor = (kind: EntryBody['kind'] | undefined): boolean =>
  kind !== undefined && !entryKinds[kind].canTakeBack;

/** What a line is about: its own body, or for a correction the one it puts in place. */
export const kindOfLine = (e: Entry): EntryBody['kind'] | undefined =>
  e.kind === 'correction' ? e.replacement?.kind : e.kind;

/** Words for a trial's log; under codes a product goes by its own. */
export const wordsFor = (plan: Plan, codes: ReadonlyMap<string, string>, blind = false): LogWords =>
  logWords(plan, (treatmentId, productId) => codes.get(productCodeKey(treatmentId, productId)) ?? '', blind);

/** A line's first word. @example 'Weighed' */
export const nameOfLine = (e: Entry): string =>
  e.kind === 'correction' ? 'Correction' : entryKinds[e.kind].label;

/** A line in words; of what it takes back it says what that was. */
export function textOfLine(e: Entry, byId: ReadonlyMap<string, Entry>, words: LogWords): string {
  if (e.kind !== 'correction' || e.replacement) return sayLine(e, words);
  const superseded = byId.get(e.supersedes);
  return superseded && superseded.kind !== 'correction'
    ? `taken back: ${entryKinds[superseded.kind].label.toLowerCase()} ${sayLine(superseded, words)}`
    : 'taken back: a correction';
}

/** The round or tasting a line was written in, in words; a correction is never one of many. */
function sittingOf(e: Entry, words: LogWords): string | null {
  if (e.kind === 'correction') return null;
  if ('roundId' in e && e.roundId) return words.round(e.roundId);
  return e.kind === 'panelAnswer' ? 'in the tasting' : null;
}

/** From so many lines of one sitting on they are one line that opens. */
const MANY = 4;

type LogRow =
  | { kind: 'day'; id: string; day: string }
  | {
      kind: 'many';
      id: string;
      what: string;
      sitting: string;
      by: string;
      from: string;
      to: string;
      count: number;
      open: boolean;
    }
  | { kind: 'line'; id: string; line: LogLine };

/**
 * The lines by day, newest first; what was written one after the other in one sitting is one row until it is opened.
 * @param opened ids of the rows of many that are open
 */
export function logRows(lines: readonly LogLine[], opened: ReadonlySet<string>): LogRow[] {
  const rows: LogRow[] = [];
  let day: string | null = null;
  for (let i = 0; i < lines.length;) {
    const line = lines[i]!;
    if (line.day !== day) rows.push({ kind: 'day', id: `day ${line.day} ${line.id}`, day: line.day });
    day = line.day;
    let end = i + 1;
    if (line.sitting !== null) while (end < lines.length && isSameSitting(line, lines[end]!)) end += 1;
    const run = lines.slice(i, end);
    const oldest = run.at(-1)!;
    const isMany = run.length >= MANY && line.sitting !== null;
    const open = isMany && opened.has(oldest.id);
    if (isMany)
      rows.push({
        ...{
          kind: 'many',
          id: oldest.id,
          what: [...new Set(run.map((l) => l.what))].reverse().join(', ').toLowerCase(),
          sitting: line.sitting!,
          by: line.by,
        },
        ...{ from: oldest.at, to: line.at, count: run.length, open },
      });
    if (!isMany || open) for (const l of run) rows.push({ kind: 'line', id: l.id, line: l });
    i = end;
  }
  return rows;
}

const isSameSitting = (a: LogLine, b: LogLine): boolean =>
  a.day === b.day && a.by === b.by && a.sitting === b.sitting;

/** Every line of the log in words, the one written last first. */
export function logLines(
  plan: Plan,
  state: TrialState,
  codes: ReadonlyMap<string, string> = new Map(),
  blind = false,
): LogLine[] {
  const words = wordsFor(plan, codes, blind);
  const { log } = state;
  const standingIds = new Set<string>(state.entries.map((e) => e.standsFrom));
  const byId = new Map<string, Entry>(log.map((e) => [e.id, e]));
  const asks = askingReason(state);
  const aside = new Map(standingAside(state).map((x) => [x.line.id, x.why]));
  return inOrderOfWriting(log)
    .reverse()
    .map((e) => {
      const withdraws = e.kind === 'correction' && e.replacement === null;
      const why = aside.get(e.id as never);
      const standing = why === undefined && (standingIds.has(e.id) || withdraws);
      return {
        id: e.id,
        at: e.at,
        day: localDay(e),
        sitting: sittingOf(e, words),
        by: e.by,
        what: nameOfLine(e),
        text: textOfLine(e, byId, words),
        remark: why
          ? `Not followed: ${why}`
          : e.kind === 'correction'
            ? e.reason
            : standing
              ? ''
              : 'replaced or taken back later',
        standing,
        asksReason: asks(e),
        canTakeBack: standing && !withdraws && !staysFor(kindOfLine(e)) && whyItStays(state, e) === null,
      };
    });
}
