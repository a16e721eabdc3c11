import { tilesOf } from '~core/plan/tiles';
import { Tiles } from '../ui/Tiles';
import { plural } from '~core/quantity/format';
import { memo, useMemo, useRef } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { Link, Outlet, useLoaderData, useNavigate } from 'react-router';
import { audit, openFindings } from '~core/fairness/audit';
import { localDay } from '~core/log/localDay';
import { mixesDue } from '~core/mixing/mixesInLog';
import { roundProgress, stageOf } from '~core/schedule/rounds';
import { dayOfDate } from '~core/plan/days';
import { shortDate, todayDate } from '../ui/clock';
import { loadTrial } from '../store/trials';
import { Head } from '../ui/Head';
import { missingForSeal } from '~core/plan/seal';
import { BeforeTheSeal } from './BeforeTheSeal';
import { RoomNav } from './RoomNav';
import { useOtherTabs } from '../ui/useOtherTabs';
import { isTyping } from '../ui/keys';
import { titled } from '../ui/title';
import { decidedUnits } from './decided';
import { plainAuditInput } from './auditOf';
import type { RoomArgs } from './roomArgs';
import { roomSteps } from './registry';

export async function clientLoader({ params }: RoomArgs) {
  const { row, state, shown, blind } = await loadTrial(params.trialId);
  const open = openFindings(audit(plainAuditInput({ row, state })));
  const today = todayDate();
  const stage = stageOf(state, today);
  const day = dayOfDate(row.plan.startDate, today);
  const lastDay = Math.max(0, ...row.plan.rounds.map((r) => r.day));
  const due = state.seal
    ? roundProgress(state, today).find((r) => r.status === 'due' || r.status === 'overdue')
    : undefined;
  const mixDue = mixesDue(state, day);
  return {
    id: row.id,
    code: row.plan.code as string,
    question: row.plan.question,
    unitNoun: row.plan.unitNoun,
    tiles: tilesOf(shown.plan),
    missing: state.seal ? null : missingForSeal(row.plan),
    status:
      stage === 'planning'
        ? 'being planned'
        : stage === 'finished'
          ? `${blind ? (decidedUnits(state).all ? 'measured, codes closed' : 'codes closed') : 'finished'}, sealed ${shortDate(localDay(state.seal!))}`
          : day < 0
            ? `starts ${shortDate(row.plan.startDate)}`
            : lastDay > 0
              ? `day ${day} of ${lastDay}`
              : `day ${day}`,
    due: due && {
      label: due.status === 'due' ? 'Round due today' : 'Round overdue',
      done: due.unitsDone,
      wanted: due.unitsWanted,
      id: due.round.id,
    },
    mix: state.seal && mixDue.wanted > mixDue.done ? mixDue : null,
    steps: roomSteps({
      state,
      today,
      reviewWritten: row.review.introduction !== '' || row.review.conclusion !== '',
      blind,
      open,
    }),
  };
}

type Trial = Awaited<ReturnType<typeof clientLoader>>;

/** The room and the trial it is of. */
export function meta({
  loaderData,
  location,
}: {
  loaderData: Trial | undefined;
  location: { pathname: string };
}) {
  const room = location.pathname.split('/')[3];
  const name = room === 'log' ? 'The log' : loaderData?.steps.find((s) => s.room === room)?.name;
  return titled(name, loaderData?.code);
}

export default function TrialLayout() {
  const trial = useLoaderData<typeof clientLoader>();
  useOtherTabs();
  // The same as long as they say the same: not every value draws all tiles anew.
  const key = trial.tiles.join();
  const tiles = useMemo(() => key.split(',').map(Number), [key]);
  return (
    <Tiles value={tiles}>
      <TrialFrame {...trial} />
    </Tiles>
  );
}

/** What stands around a room; drawn anew when the trial changed, not with every value under way. */
const TrialFrame = memo(function TrialFrame({
  id,
  question,
  status,
  due,
  mix,
  steps,
  unitNoun,
  missing,
}: Trial) {
  const navigate = useNavigate();

  // The key as it comes out, whatever the layout: `[` is AltGr with 8 on some keyboards.
  const anyLayout = { useKey: true, ignoreModifiers: true, ignoreEventWhen: isTyping };
  // Two quick presses go two rooms on, though the first room isn't shown yet.
  const going = useRef<string | null>(null);
  const goBy = (step: 1 | -1) => {
    const from = going.current ?? window.location.pathname;
    const next = steps[steps.findIndex((s) => from.endsWith(`/${s.room}`)) + step];
    if (!next) return;
    const to = `/trial/${id}/${next.room}`;
    going.current = to;
    void Promise.resolve(navigate(to)).finally(() => {
      if (going.current === to) going.current = null;
    });
  };
  useHotkeys('[', () => goBy(-1), anyLayout);
  useHotkeys(']', () => goBy(1), anyLayout);

  return (
    <>
      <Head
        rooms={steps}
        title={
          <>
            <span className="asked">{question}</span> <span className="quiet">· {status}</span>
          </>
        }
        end={
          <>
            {mix && (
              <Link to={`/trial/${id}/mixing`} style={{ textDecoration: 'none', color: 'inherit' }}>
                <span className="due">Mix due today</span> — {mix.done} of {mix.wanted}
              </Link>
            )}
            {due && (
              <Link
                to={`/trial/${id}/rounds?round=${due.id}`}
                style={{ textDecoration: 'none', color: 'inherit' }}
              >
                <span className="due">{due.label}</span> — {due.done} of {due.wanted} {plural(unitNoun)} done
              </Link>
            )}
          </>
        }
      />
      {missing && <BeforeTheSeal trialId={id} missing={missing} />}
      <div className="frame">
        <RoomNav trialId={id} steps={steps} />
        <main className="room" id="room">
          {/* Another trial is another page: nothing chosen or typed in this one goes along. */}
          <Outlet key={id} />
        </main>
      </div>
    </>
  );
});
