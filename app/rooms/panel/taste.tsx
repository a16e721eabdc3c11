import { titled } from '../../ui/title';
import { useState } from 'react';
import { Link, useLoaderData } from 'react-router';
import { sessionOf } from '~core/sensory/sessions';
import { usePost } from '../../form/usePost';
import { blobUrls } from '../../store/blobUrls';
import { panelKeyOf } from '../../store/panelKeys';
import { loadTrial } from '../../store/trials';
import type { RoomArgs } from '../roomArgs';
import { toAction } from '../../form/command';
import { panelCommands } from './panelActions';
import { pictureHashes } from './pictures';
import { TasterPages } from './TasterPages';
import { type TasterAnswer, type TasterGuess, sheetOf } from './tasterSheet';

interface TasteArgs extends RoomArgs {
  params: { trialId?: string; sessionId?: string; taster?: string };
}

export const meta = () => titled('Tasting');

export async function clientLoader({ params }: TasteArgs) {
  const { row, shown, state } = await loadTrial(params.trialId);
  const held = sessionOf(state, params.sessionId ?? '');
  const taster = Number(params.taster) - 1;
  if (!held?.session.tasters[taster])
    throw new Response('There is no such place at a tasting.', { status: 404 });
  const contenders = shown.plan.treatments.map(({ id, name }) => ({ id, name }));
  const sheet = sheetOf(held.session, taster, contenders);
  const own = sheet.sets.flatMap((s) => s.cups);
  const key = held.session.presented === 'photos' ? await panelKeyOf(row.id, held.session.id) : undefined;
  const hashes = key ? pictureHashes(key, own) : new Map<string, string>();
  const urls = await blobUrls([...hashes.values()]);
  return {
    trialId: row.id,
    sheet,
    closed: held.revealed !== null,
    answers: held.answers.filter((a) => a.body.taster === taster).map((a): TasterAnswer => a.body),
    guess: (held.guesses.find((g) => g.body.taster === taster)?.body ?? null) as TasterGuess | null,
    pictures: new Map(
      [...hashes].flatMap(([code, hash]) => (urls.has(hash) ? [[code, urls.get(hash)!]] : [])),
    ),
  };
}

export const clientAction = toAction(panelCommands);

/** A taster's page on this device: codes alone. */
export default function Taste() {
  const { trialId, sheet, closed, answers, guess, pictures } = useLoaderData<typeof clientLoader>();
  const post = usePost();
  const [key] = useState(() => `${sheet.session.id}/${sheet.taster}`);
  const of = { sessionId: sheet.session.id, taster: sheet.taster };
  if (closed) {
    return (
      <main className="page-message">
        <h1>The tasting is over</h1>
        <p>What was in the cups is told; answers are closed.</p>
      </main>
    );
  }
  return (
    <TasterPages
      key={key}
      sheet={sheet}
      answers={answers}
      guess={guess}
      pictures={pictures}
      onAnswer={(a) => post({ intent: 'answer', body: { ...a, ...of, kind: 'panelAnswer' } })}
      onGuess={(g) => post({ intent: 'guess', body: { ...g, ...of, kind: 'panelGuess' } })}
      end={
        <>
          <p>Everything is kept. Please don’t talk about it until all are done.</p>
          <p>
            <Link to={`/trial/${trialId}/panel`}>Hand back to the host</Link>
          </p>
        </>
      }
    />
  );
}
