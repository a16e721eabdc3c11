import type { BodyOf } from '../log/entry';
import { compareWritten } from '../log/order';
import { type TrialState, ofKind } from '../log/state';
import type { EntryId, PanelId } from '../model/ids';
import { type PanelKey, type PanelSession, asksScores } from '../model/panel';
import { keyHolds } from './planSession';

type PanelAnswer = Omit<BodyOf<'panelAnswer'>, 'kind' | 'sessionId'>;
type PanelGuess = Omit<BodyOf<'panelGuess'>, 'kind' | 'sessionId'>;

/** Something said, and the line a newer saying would put right. */
interface Said<T> {
  body: T;
  standsFrom: EntryId;
}

/** A session with all that came of it so far. */
export interface HeldSession {
  entryId: EntryId;
  session: PanelSession;
  at: string;
  offsetMin: number | null;
  /** the newest of each taster, set and cup */
  answers: Said<PanelAnswer>[];
  guesses: Said<PanelGuess>[];
  /** what was in the cups, once it is told */
  revealed: {
    key: PanelKey;
    at: string;
    offsetMin: number | null;
    /** it is the key the session began with */ holds: boolean;
  } | null;
}

const placeOf = (a: Pick<PanelAnswer, 'taster' | 'set' | 'code'>) => `${a.taster}/${a.set}/${a.code ?? ''}`;

/** Every session of a trial, in the order they were started. */
export function sessionsOf(state: Pick<TrialState, 'byKind'>): HeldSession[] {
  const answers = ofKind(state, 'panelAnswer');
  const guesses = ofKind(state, 'panelGuess');
  const reveals = ofKind(state, 'panelReveal');
  // By the logical clock: the newest is the one written last, whatever the clocks on the wall say.
  return ofKind(state, 'panel')
    .toSorted(compareWritten)
    .map((e) => {
      const { session } = e.body;
      const newest = new Map<string, Said<PanelAnswer>>();
      for (const a of answers) {
        if (a.body.sessionId !== session.id || !isOf(session, a.body)) continue;
        newest.set(placeOf(a.body), { body: a.body, standsFrom: a.standsFrom });
      }
      const guessed = new Map<number, Said<PanelGuess>>();
      for (const g of guesses) {
        if (g.body.sessionId === session.id && session.tasters[g.body.taster]) {
          guessed.set(g.body.taster, { body: g.body, standsFrom: g.standsFrom });
        }
      }
      const reveal = reveals.find((r) => r.body.key.sessionId === session.id);
      return {
        entryId: e.id,
        session,
        at: e.at,
        offsetMin: e.offsetMin,
        answers: [...newest.values()],
        guesses: [...guessed.values()],
        revealed: reveal
          ? {
              key: reveal.body.key,
              at: reveal.at,
              offsetMin: reveal.offsetMin,
              holds: keyHolds(session, reveal.body.key),
            }
          : null,
      };
    });
}

export const sessionOf = (state: Pick<TrialState, 'byKind'>, id: PanelId | string): HeldSession | undefined =>
  sessionsOf(state).find((s) => s.session.id === id);

/** Whether an answer is about cups that this taster gets. */
function isOf(
  session: PanelSession,
  a: Pick<PanelAnswer, 'taster' | 'set' | 'code' | 'chosen' | 'ranks'>,
): boolean {
  const cups = session.tasters[a.taster]?.sets[a.set]?.cups;
  if (!cups) return false;
  return [a.code, a.chosen, ...a.ranks.map((r) => r.code)].every((c) => c === null || cups.includes(c));
}

/** Whether an answer says what its session asks. @returns a fault in words; null where it does */
export function faultOfAnswer(session: PanelSession, a: PanelAnswer): string | null {
  if (!isOf(session, a)) return 'That cup isn’t this taster’s.';
  const { cups } = session.tasters[a.taster]!.sets[a.set]!;
  if (asksScores(session.kind)) {
    if (a.code === null) return 'Of which cup?';
    if (a.scores.length !== session.attributes.length) return 'Not as many scores as scales.';
    for (const [i, score] of a.scores.entries()) {
      const steps = session.attributes[i]!.steps.map((s) => s.value);
      if (score !== null && (score < Math.min(...steps) || score > Math.max(...steps))) {
        return `${session.attributes[i]!.name} goes from ${Math.min(...steps)} to ${Math.max(...steps)}.`;
      }
    }
    return null;
  }
  if (session.kind === 'ranking') {
    if (a.code !== null) return null;
    const ranked = new Set(a.ranks.map((r) => r.code));
    return ranked.size === cups.length && a.ranks.length === cups.length ? null : 'Every cup has one place.';
  }
  if (a.code !== null) return null;
  if (a.chosen === null) return 'Choose one.';
  return session.kind === 'duo-trio' && a.chosen === cups[0] ? 'The first is the one to compare with.' : null;
}

/** Whether a taster said all there is to say. */
export function isDone(
  { session, answers }: Pick<HeldSession, 'session' | 'answers'>,
  taster: number,
): boolean {
  const own = answers.filter((a) => a.body.taster === taster).map((a) => a.body);
  return session.tasters[taster]!.sets.every((set, s) =>
    asksScores(session.kind)
      ? set.cups.every((code) =>
          own.some((a) => a.set === s && a.code === code && a.scores.every((x) => x !== null)),
        )
      : own.some((a) => a.set === s && a.code === null),
  );
}
