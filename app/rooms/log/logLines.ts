import type { Entry, EntryBody } from '~core/log/entry';
import { entryKinds } from '~core/log/kinds';
import { inOrderOfWriting } from '~core/log/resolve';
import { askingReason } from '~core/log/afterOpening';
import { type TrialState, standingAside, whyItStays } from '~core/log/state';
import { type LogWords, logWords } from '~core/log/words';
import { productCodeKey } from '~core/mixing/productCodes';
import type { Plan } from '~core/model/plan';

interface LogLine {
  id: string;
  at: string;
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
