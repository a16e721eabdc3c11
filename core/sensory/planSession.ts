import { PanelKey, type PanelSample, PanelSession, type PanelSet, asksScores, asksTwo } from '../model/panel';
import { type Result, err, ok } from '../model/result';
import { sha256Of } from '../plan/seal';
import { seededRandom } from '../stats/random';
import { CODES, describeOrderError, panelCodes, servingOrder } from './servingOrder';

/** What the host decides; the rest is drawn by lot. */
export interface SessionDraft extends Omit<PanelSession, 'tasters' | 'commitment'> {
  tasters: readonly string[];
  samples: readonly PanelSample[];
  /** how often each taster is asked, in pairs, triangles and duo-trios */
  repeats: number;
}

/** A session as tasters may know it, and the key that says what is in the cups. */
export interface PlannedSession {
  session: PanelSession;
  key: PanelKey;
}

/** What keeps a session from being started, by the field it is about. */
type DraftFaults = Partial<
  Record<
    'name' | 'tasters' | 'samples' | 'attributes' | 'asked' | 'repeats' | 'guess' | 'senses' | 'words',
    string
  >
>;

/** The cups of one set as sample numbers; of a duo-trio the first is the one given to compare with. */
const patterns = {
  pairs: ['AB', 'BA'],
  triangle: ['AAB', 'ABA', 'BAA', 'BBA', 'BAB', 'ABB'],
  'duo-trio': ['AAB', 'ABA', 'BAB', 'BBA'],
} as const;

/** The first name that is there twice, in whatever letters; “Ada” and “ada” are one person. */
const repeated = (names: readonly string[]) => {
  const plain = names.map((n) => n.toLowerCase());
  return names.find((_, i) => plain.indexOf(plain[i]!) !== i);
};

/** What keeps a session from being started, all of it at once; empty where nothing does. */
export function draftFaults(d: SessionDraft): DraftFaults {
  const faults: DraftFaults = {};
  const tasters = d.tasters.map((t) => t.trim());
  if (d.name.trim() === '') faults.name = 'Name the session.';
  if (tasters.length === 0) faults.tasters = 'One taster at least; initials will do.';
  else if (tasters.some((t) => t === '' || t.length > 40))
    faults.tasters = 'Each taster a name of up to 40 letters.';
  else if (repeated(tasters)) faults.tasters = `“${repeated(tasters)}” is there twice.`;
  else if (tasters.length > 60) faults.tasters = 'Up to 60 tasters.';
  if (d.senses.length === 0) faults.senses = 'Say what is judged.';
  if (asksTwo(d.kind)) {
    if (d.samples.length !== 2) faults.samples = 'Two contenders, one sample of each.';
    if (!Number.isInteger(d.repeats) || d.repeats < 1 || d.repeats > 12)
      faults.repeats = 'A whole number from 1 to 12.';
  } else if (d.samples.length < 2) faults.samples = 'Two samples or more.';
  else if (d.samples.length > 16)
    faults.samples = `${d.samples.length} samples are too many to taste: up to 16.`;
  if (asksScores(d.kind) && d.attributes.length === 0) faults.attributes = 'Say what is scored.';
  if (d.kind === 'liking' && d.attributes.length > 1)
    faults.attributes = 'Liking is one scale; choose several things for more.';
  if (d.kind === 'pairs' && d.asked.trim() === '')
    faults.asked = 'Write the question, e.g. “Which do you like better?”';
  if (d.guess === 'same' && !asksTwo(d.kind) && !repeated(d.samples.map((s) => s.treatmentId)))
    faults.guess = 'No two samples are of one contender: take two of each, or ask which is which.';
  if (repeated(d.words)) faults.words = 'A word is there twice.';
  if (d.presented === 'photos' && d.samples.some((s) => s.photo === null)) {
    faults.samples = 'Not every sample has a photo.';
  }
  return faults;
}

/**
 * Draws a session: which taster gets what in which order under which codes. Samples all tasted one after the other go
 * by Williams' design; pairs, triangles and duo-trios go through all their orders equally often.
 *
 * @param seed of the lot; keep it secret, since it says what is in the cups
 * @param salt 16 letters or more that nobody can guess: the commitment rests on it
 * @returns the session with a commitment to its key; faults by field where it can't be held
 * @example planSession(draft, 1, salt) // { session: { tasters: [{ sets: [{ cups: ['417', …] }] }] }, key }
 */
export function planSession(
  draft: SessionDraft,
  seed: number,
  salt: string,
): Result<PlannedSession, DraftFaults> {
  const faults = draftFaults(draft);
  if (Object.keys(faults).length > 0) return err(faults);
  const tasters = draft.tasters.map((t) => t.trim());
  const served = asksTwo(draft.kind)
    ? choices(draft.kind, tasters.length, draft.repeats, seed)
    : oneAfterTheOther(draft.samples.length, tasters.length, seed);
  if (!served.ok) return err({ tasters: served.error });
  const key = PanelKey.parse({
    sessionId: draft.id,
    salt,
    samples: draft.samples,
    cups: served.value.flat(2).map(({ code, sample }) => ({ code, sample })),
  });
  const { samples: _samples, repeats: _repeats, ...known } = draft;
  const session = PanelSession.parse({
    ...known,
    tasters: tasters.map((name, t) => ({
      name,
      sets: served.value[t]!.map((cups): PanelSet => ({ cups: cups.map((c) => c.code) })),
    })),
    commitment: commitmentOf(key),
  });
  return ok({ session, key });
}

interface Cup {
  code: string;
  sample: number;
}

function oneAfterTheOther(samples: number, tasters: number, seed: number): Result<Cup[][][], string> {
  const order = servingOrder(
    Array.from({ length: samples }, (_, i) => String(i)),
    tasters,
    seed,
  );
  if (!order.ok) return err(describeOrderError(order.error));
  return ok(
    order.value.map(({ serve }) => [serve.map(({ sample, code }) => ({ code, sample: Number(sample) }))]),
  );
}

function choices(
  kind: keyof typeof patterns,
  tasters: number,
  repeats: number,
  seed: number,
): Result<Cup[][][], string> {
  const chance = seededRandom(seed);
  const sets = tasters * repeats;
  const own = patterns[kind];
  // Every order equally often, as far as it goes; who gets which is drawn.
  const rounds = Array.from({ length: Math.ceil(sets / own.length) }, () => chance.shuffle(own)).flat();
  const drawn = chance.shuffle(rounds.slice(0, sets));
  const each = own[0].length;
  if (sets * each > CODES) return err(describeOrderError({ tag: 'noCodes', wanted: sets * each }));
  const codes = panelCodes(sets * each, chance);
  return ok(
    Array.from({ length: tasters }, (_, t) =>
      Array.from({ length: repeats }, (_, r) => {
        const n = t * repeats + r;
        return [...drawn[n]!].map((letter, c) => ({
          code: codes[n * each + c]!,
          sample: letter === 'A' ? 0 : 1,
        }));
      }),
    ),
  );
}

/** What binds a session to its key: SHA-256 of its canonical JSON. The key can't be another one afterwards. */
export const commitmentOf = (key: PanelKey): string => sha256Of(key);

/** Whether a key is the one a session was started with. */
export const keyHolds = (session: PanelSession, key: PanelKey): boolean =>
  session.id === key.sessionId && session.commitment === commitmentOf(key);
