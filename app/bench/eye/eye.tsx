import { useState } from 'react';
import { Link, useLoaderData, useSearchParams } from 'react-router';
import { type EyeAnswer, type Game, gameNames, games, levelOf } from '~core/eye/record';
import type { TraitId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import { planIndex } from '~core/plan/planIndex';
import { recorder } from '../../store/bench';
import { randomSeed } from '../../store/chance';
import { eyeAnswers, keepEyeAnswer } from '../../store/eye';
import { describeChangeError } from '../../store/errors';
import { appendEntries, loadTrial } from '../../store/trials';
import { todayDate } from '../../ui/clock';
import { announce } from '../../ui/announce';
import { RoomHead } from '../../ui/RoomHead';
import { ViewSwitch } from '../../ui/ViewSwitch';
import { CallGame } from './CallGame';
import { ClaimGame } from './ClaimGame';
import { DoseGame } from './DoseGame';
import { FaultGame } from './FaultGame';
import { Record } from './Record';
import { ScoreGame } from './ScoreGame';
import './eye.css';

/** A trial that asks its scorer for a warm-up, with the written scale. */
async function warmUpOf(trialId: string | null, traitId: string | null) {
  if (!trialId || !traitId) return null;
  const { row, state } = await loadTrial(trialId);
  const trait = planIndex(row.plan).trait(traitId as TraitId);
  if (!trait || trait.scale.length < 2 || !state.seal) return null;
  return {
    trialId: row.id as string,
    traitId: trait.id,
    name: trait.name,
    scale: trait.scale,
    code: row.plan.code,
  };
}

export async function clientLoader({ request }: { request: Request }) {
  const search = new URL(request.url).searchParams;
  const [answers, by, warmUp] = await Promise.all([
    eyeAnswers(),
    recorder(),
    warmUpOf(search.get('trial'), search.get('trait')),
  ]);
  return { answers, by, warmUp };
}

/** What practitioners get wrong, practised: cases without end, each explained, and a record of one's own. */
export default function Eye() {
  const { answers: kept, by, warmUp } = useLoaderData<typeof clientLoader>();
  const [search, setSearch] = useSearchParams();
  const [answers, setAnswers] = useState<readonly EyeAnswer[]>(kept);
  const game: Game = warmUp ? 'score' : (games.find((g) => g === search.get('game')) ?? 'call');
  const [seed, setSeed] = useState(randomSeed);
  // A case stays as hard as it was when it was begun.
  const [level, setLevel] = useState(() => levelOf(kept, game));
  const begin = (next: Game, all: readonly EyeAnswer[] = answers) => {
    setSeed(randomSeed());
    setLevel(levelOf(all, next));
  };
  const onAnswered = (said: Pick<EyeAnswer, 'right' | 'call' | 'faults'>) => {
    const answer: EyeAnswer = {
      id: newId(),
      at: new Date().toISOString(),
      day: todayDate(),
      by,
      game,
      seed,
      level,
      ...said,
    };
    setAnswers((all) => [...all, answer]);
    void keepEyeAnswer(answer).catch(() => announce('This answer wasn’t kept: the browser is out of room.'));
  };
  const keepWarmUp = async (pairs: [number, number][]) => {
    if (!warmUp) return;
    const steps = warmUp.scale.map((s) => s.value);
    const written = await appendEntries(warmUp.trialId, [
      { kind: 'warmUp', traitId: warmUp.traitId, steps, pairs },
    ]);
    announce(written.ok ? 'The warm-up is in the log.' : describeChangeError(written.error));
  };
  const today = answers.filter((a) => a.game === game && a.day === todayDate());
  const props = { seed, level, onAnswered, onNext: () => begin(game) };
  const Shown = { call: CallGame, fault: FaultGame, dose: DoseGame, claim: ClaimGame };
  const Playing = game === 'score' ? null : Shown[game];
  return (
    <>
      <RoomHead title={warmUp ? `Warm-up: ${warmUp.name.toLowerCase()}` : gameNames[game]}>
        {warmUp ? (
          <>
            Ten pictures on the scale of {warmUp.code}, before its own are scored. The agreement goes into its
            log. <Link to={`/trial/${warmUp.trialId}/rounds`}>Back to the round</Link>
          </>
        ) : (
          <>
            Made-up cases, about two minutes each.
            {today.length > 0 && ` Today ${today.length}, ${today.filter((a) => a.right).length} right.`}
          </>
        )}
      </RoomHead>
      {!warmUp && (
        <ViewSwitch
          views={games.map((g) => [g, gameNames[g]] as const)}
          view={game}
          label="What to practise"
          onView={(to) => {
            setSearch(to === 'call' ? {} : { game: to });
            begin(to);
          }}
        />
      )}
      <div className="eye">
        <div key={`${game} ${seed}`}>
          {Playing ? (
            <Playing {...props} />
          ) : (
            <ScoreGame
              {...props}
              {...(warmUp
                ? { scale: warmUp.scale, things: 5, again: 5, onPairs: (p) => void keepWarmUp(p) }
                : { things: 8, again: 6 })}
            />
          )}
        </div>
        <Record answers={answers} game={game} />
      </div>
    </>
  );
}
