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
import { type ChangeError, describeChangeError } from '../../store/errors';
import { keepPanelKey, panelKeyOf } from '../../store/panelKeys';
import { type LoadedTrial, appendEntries } from '../../store/trials';
import { type ActionResult, type FieldErrors, fieldErrors } from '../../form/schemaFields';
import { announce } from '../../ui/announce';
import { photosOf } from '../rounds/photoData';
import { SessionForm, sessionOfForm } from './sessionForm';
import { TasterReply } from './tasterSheet';

const Answer = panelAnswer.body;
const Guess = panelGuess.body;

/** What the pages of a panel send. */
const PanelForm = z.union([
  SessionForm,
  z.object({ intent: z.literal('answer'), body: Answer }),
  z.object({ intent: z.literal('guess'), body: Guess }),
  z.object({ intent: z.literal('reply'), reply: TasterReply }),
  z.object({ intent: z.literal('reveal'), sessionId: z.string() }),
  z.object({ intent: z.literal('takeKey'), key: PanelKey }),
]);

const refused = (errors: FieldErrors): ActionResult => {
  announce(Object.values(errors)[0]!);
  return { errors };
};

type Refusal = { tag: 'panel'; said: string };
const no = (said: string): Result<never, Refusal> => err({ tag: 'panel', said });

function answered<T>(written: Result<T, Refusal | ChangeError>, said?: string): ActionResult {
  if (written.ok) {
    if (said) announce(said);
    return said ? { saved: true, message: said } : { saved: true };
  }
  return refused({
    panel: written.error.tag === 'panel' ? written.error.said : describeChangeError(written.error),
  });
}

/** The session an answer is about, as long as its cups are closed. */
function openSession({ state }: LoadedTrial, id: string): Result<HeldSession, Refusal> {
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

function answerLines(held: HeldSession, body: z.infer<typeof Answer>): Result<Saying[], Refusal> {
  const fault = faultOfAnswer(held.session, body);
  if (fault) return no(fault);
  const before = held.answers.find(
    (a) => a.body.taster === body.taster && a.body.set === body.set && a.body.code === body.code,
  );
  return ok(before && same(before.body, body) ? [] : saying(body, before));
}

function guessLines(held: HeldSession, body: z.infer<typeof Guess>): Result<Saying[], Refusal> {
  const cups = new Set(held.session.tasters[body.taster]?.sets.flatMap((s) => s.cups));
  const guessed = [...(body.same ?? []), ...body.which.map((w) => w.code)];
  if (guessed.some((c) => !cups.has(c))) return no('That cup isn’t this taster’s.');
  if (body.same && body.same[0] === body.same[1]) return no('Two different cups.');
  const before = held.guesses.find((g) => g.body.taster === body.taster);
  return ok(before && same(before.body, body) ? [] : saying(body, before));
}

/** A taster's answers from another phone or a file, all or none. */
function replyLines(held: HeldSession, reply: z.infer<typeof TasterReply>): Result<Saying[], Refusal> {
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

/** Starts a session, takes answers, tells what was in the cups. */
export async function panelAction(trialId: string | undefined, data: unknown): Promise<ActionResult> {
  const parsed = PanelForm.safeParse(data);
  if (!parsed.success) return refused(fieldErrors(parsed.error));
  const form = parsed.data;
  switch (form.intent) {
    case 'start': {
      // Drawn once; the same lot whatever the transaction does.
      const chance = { seed: randomSeed(), salt: randomHex(16) };
      const written = await change<{ tag: 'form'; errors: FieldErrors }>(trialId, ({ trial: { state } }) => {
        const made = sessionOfForm(state, form, photosOf(state), chance);
        if (!made.ok) return err({ tag: 'form', errors: made.error });
        return ok({ entries: [{ kind: 'panel', session: made.value.session }], panelKey: made.value.key });
      });
      if (written.ok) {
        announce('The session is drawn and written into the log.');
        // Its cards and pages are what is wanted now.
        throw redirect(`/trial/${trialId}/panel`);
      }
      return written.error.tag === 'form'
        ? { errors: written.error.errors }
        : { errors: { name: describeChangeError(written.error) } };
    }
    case 'answer':
      return answered(
        await appendEntries<Refusal>(trialId, (trial) => {
          const held = openSession(trial, form.body.sessionId);
          return held.ok ? answerLines(held.value, form.body) : held;
        }),
      );
    case 'guess':
      return answered(
        await appendEntries<Refusal>(trialId, (trial) => {
          const held = openSession(trial, form.body.sessionId);
          return held.ok ? guessLines(held.value, form.body) : held;
        }),
      );
    case 'reply':
      return answered(
        await appendEntries<Refusal>(trialId, (trial) => {
          const held = openSession(trial, form.reply.sessionId);
          return held.ok ? replyLines(held.value, form.reply) : held;
        }),
        'Taken in.',
      );
    case 'reveal': {
      const key = trialId ? await panelKeyOf(trialId, form.sessionId) : undefined;
      if (!key)
        return refused({
          panel: 'What is in the cups isn’t known on this device: read in the server’s file.',
        });
      return answered(
        await appendEntries<Refusal>(trialId, (trial) => {
          const held = openSession(trial, form.sessionId);
          if (!held.ok) return held;
          if (!keyHolds(held.value.session, key)) return no('This key isn’t the one the session began with.');
          return ok([{ kind: 'panelReveal', key }]);
        }),
        'Revealed, and written into the log.',
      );
    }
    case 'takeKey': {
      const written = await appendEntries<Refusal>(trialId, ({ state }) => {
        const held = sessionOf(state, form.key.sessionId);
        if (!held || !keyHolds(held.session, form.key))
          return no('This key belongs to no session of this trial.');
        return ok([]);
      });
      if (written.ok && trialId) await keepPanelKey(trialId, form.key);
      return answered(written, 'The key is on this device now.');
    }
  }
}
