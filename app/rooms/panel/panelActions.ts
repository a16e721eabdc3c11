import { redirect } from 'react-router';
import { z } from 'zod';
import type { EntryBody } from '~core/log/entry';
import { panelAnswer } from '~core/log/kinds/panelAnswer';
import { panelGuess } from '~core/log/kinds/panelGuess';
import type { EntryId } from '~core/model/ids';
import { PanelKey } from '~core/model/panel';
import { type Result, err, ok } from '~core/model/result';
import { keyHolds } from '~core/sensory/planSession';
import { type HeldSession, faultOfAnswer, sessionOf } from '~core/sensory/sessions';
import { randomHex, randomSeed } from '../../store/chance';
import { type Saying, change } from '../../store/change';
import { keepPanelKey, panelKeyOf } from '../../store/panelKeys';
import { type LoadedTrial, appendEntries } from '../../store/trials';
import { type Done, command, done } from '../../form/command';
import { type Refused, refuse } from '../../form/recordForm';
import { announce } from '../../ui/announce';
import { photosOf } from '../rounds/photos/photoData';
import { SessionForm, sessionOfForm } from './sessionForm';
import { TasterReply } from './tasterSheet';

const no = (said: string) => refuse('panel', said);

/** The session an answer is about, as long as its cups are closed. */
function openSession({ state }: LoadedTrial, id: string): Result<HeldSession, Refused> {
  const held = sessionOf(state, id);
  if (!held) return no('That session isn’t in this trial; was it taken back?');
  return held.revealed ? no('The cups are revealed: answers are closed.') : ok(held);
}

/** Puts right what the same taster said of the same before, or says it for the first time. */
const saying = (body: EntryBody, before: { body: object; standsFrom: EntryId } | undefined): Saying[] =>
  before === undefined
    ? [body]
    : [{ kind: 'correction', supersedes: before.standsFrom, replacement: body, reason: 'answered again' }];

const same = (a: object, b: object) =>
  JSON.stringify(Object.entries(a).sort()) === JSON.stringify(Object.entries(b).sort());

function answerLines(held: HeldSession, body: z.infer<typeof panelAnswer.body>): Result<Saying[], Refused> {
  const fault = faultOfAnswer(held.session, body);
  if (fault) return no(fault);
  const before = held.answers.find(
    (a) => a.body.taster === body.taster && a.body.set === body.set && a.body.code === body.code,
  );
  return ok(before && same(before.body, body) ? [] : saying(body, before));
}

function guessLines(held: HeldSession, body: z.infer<typeof panelGuess.body>): Result<Saying[], Refused> {
  const cups = new Set(held.session.tasters[body.taster]?.sets.flatMap((s) => s.cups));
  const guessed = [...(body.same ?? []), ...body.which.map((w) => w.code)];
  if (guessed.some((c) => !cups.has(c))) return no('That cup isn’t this taster’s.');
  if (body.same && body.same[0] === body.same[1]) return no('Two different cups.');
  const before = held.guesses.find((g) => g.body.taster === body.taster);
  return ok(before && same(before.body, body) ? [] : saying(body, before));
}

/** A taster's answers from another phone or a file, all or none. */
function replyLines(held: HeldSession, reply: z.infer<typeof TasterReply>): Result<Saying[], Refused> {
  const lines: Saying[] = [];
  for (const a of reply.answers) {
    const own = answerLines(held, {
      ...a,
      kind: 'panelAnswer',
      sessionId: held.session.id,
      taster: reply.taster,
    });
    if (!own.ok) return own;
    lines.push(...own.value);
  }
  if (reply.guess) {
    const own = guessLines(held, {
      ...reply.guess,
      kind: 'panelGuess',
      sessionId: held.session.id,
      taster: reply.taster,
    });
    if (!own.ok) return own;
    lines.push(...own.value);
  }
  return ok(lines);
}

/** Lines about a session whose cups are closed. */
const onOpen = (
  trialId: string | undefined,
  sessionId: string,
  lines: (held: HeldSession) => Result<Saying[], Refused>,
) =>
  appendEntries<Refused>(trialId, (trial) => {
    const held = openSession(trial, sessionId);
    return held.ok ? lines(held.value) : held;
  });

const quietly = <T, E>(written: Result<T, E>): Result<Done, E> => (written.ok ? ok({}) : written);

/** Starts a session, takes answers, tells what was in the cups. */
export const panelCommands = {
  start: command(SessionForm, async (trialId, form) => {
    // Drawn once; the same lot whatever the transaction does.
    const chance = { seed: randomSeed(), salt: randomHex(16) };
    const written = await change<Refused>(trialId, ({ trial: { state } }) => {
      const made = sessionOfForm(state, form, photosOf(state), chance);
      if (!made.ok) return err({ tag: 'refused', errors: made.error });
      return ok({ entries: [{ kind: 'panel', session: made.value.session }], panelKey: made.value.key });
    });
    if (!written.ok) return written;
    announce('The session is drawn and written into the log.');
    // Its cards and pages are what is wanted now.
    return redirect(`/trial/${trialId}/panel`);
  }),
  answer: command(z.object({ body: panelAnswer.body }), async (trialId, { body }) =>
    quietly(await onOpen(trialId, body.sessionId, (held) => answerLines(held, body))),
  ),
  guess: command(z.object({ body: panelGuess.body }), async (trialId, { body }) =>
    quietly(await onOpen(trialId, body.sessionId, (held) => guessLines(held, body))),
  ),
  reply: command(z.object({ reply: TasterReply }), async (trialId, { reply }) =>
    done(await onOpen(trialId, reply.sessionId, (held) => replyLines(held, reply)), 'Taken in.'),
  ),
  reveal: command(z.object({ sessionId: z.string() }), async (trialId, { sessionId }) => {
    const key = trialId ? await panelKeyOf(trialId, sessionId) : undefined;
    if (!key) return no('What is in the cups isn’t known on this device: read in the server’s file.');
    const written = await onOpen(trialId, sessionId, ({ session }) =>
      keyHolds(session, key)
        ? ok([{ kind: 'panelReveal', key }])
        : no('This key isn’t the one the session began with.'),
    );
    return done(written, 'Revealed, and written into the log.');
  }),
  takeKey: command(z.object({ key: PanelKey }), async (trialId, { key }) => {
    const written = await appendEntries<Refused>(trialId, ({ state }) => {
      const held = sessionOf(state, key.sessionId);
      return held && keyHolds(held.session, key)
        ? ok([])
        : no('This key belongs to no session of this trial.');
    });
    if (written.ok && trialId) await keepPanelKey(trialId, key);
    return done(written, 'The key is on this device now.');
  }),
};
