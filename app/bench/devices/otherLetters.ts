import { ofKind } from '~core/log/state';
import { ok, err } from '~core/model/result';
import { agendaOf } from '~core/schedule/agenda';
import { todayDate } from '../../ui/clock';
import { runCommand } from '../../form/command';
import { saidBy } from '../../form/schemaFields';
import { panelCommands } from '../../rooms/panel/panelActions';
import { announce } from '../../ui/announce';
import { TasterReply, unpacked } from '../../rooms/panel/tasterSheet';
import { tellWrittenBeside } from '../../store/follow';
import { appendEntries, listTrials } from '../../store/trials';
import { type Heard, type OtherLetter, onLetter } from '../../lan/incoming';

/** A taster's answers go into the session they are of, as if they had been pasted there. */
async function takeAnswers(text: string): Promise<Heard> {
  const reply = unpacked(text, TasterReply);
  if (!reply) return { kept: false, said: 'The answers can’t be read.' };
  const trial = (await listTrials()).find((t) =>
    ofKind(t.state, 'panel').some((e) => e.body.session.id === reply.sessionId),
  );
  if (!trial) return { kept: false, said: 'The tasting they are of isn’t on this bench.' };
  const came = await runCommand(panelCommands, trial.row.id, { intent: 'reply', reply });
  if (came instanceof Response) return { kept: false, said: 'The answers weren’t understood.' };
  const theirs = saidBy(came) ?? '';
  if (theirs !== '') announce(theirs);
  return { kept: !('errors' in came) && !('conflicts' in came), said: theirs };
}

/** A task is ticked off only while it is open: a helper can write nothing else. */
async function tick({ trialId, task }: Extract<OtherLetter, { kind: 'ticked' }>): Promise<Heard> {
  const today = todayDate();
  const written = await appendEntries<{ tag: 'notOpen' }>(trialId, ({ state }) => {
    const own = agendaOf(state, today, today).filter((a) => a.task === task);
    if (own.some((a) => a.state === 'open')) return ok([{ kind: 'taskDone', task }]);
    // Its answer was lost on the way: it is in the log already.
    return own.some((a) => a.state === 'done') ? ok([]) : err({ tag: 'notOpen' as const });
  });
  return written.ok ? { kept: true, said: '' } : { kept: false, said: 'The task isn’t open any more.' };
}

/** Takes in what tasters and helpers send, as long as the page is open. @returns a function that stops it */
export const takeOtherLetters = (): (() => void) =>
  onLetter(async (letter) => {
    const heard = letter.kind === 'answers' ? await takeAnswers(letter.text) : await tick(letter);
    tellWrittenBeside();
    return heard;
  });
