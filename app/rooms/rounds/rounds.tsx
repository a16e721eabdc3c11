import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { Link, useLoaderData, useSearchParams } from 'react-router';
import { type Plan, type Round, type Trait, kindOf } from '~core/model/plan';
import { roundProgress } from '~core/schedule/rounds';
import { relativeDay, shortDate, todayDate } from '../../bench/clock';
import { loadTrial } from '../../store/trials';
import { RoomHead } from '../../ui/RoomHead';
import { logAction } from '../logActions';
import type { RoomArgs } from '../roomArgs';
import { RoundWalk } from './RoundWalk';

export async function clientLoader({ params }: RoomArgs) {
  const { row, shown: state } = await loadTrial(params.trialId);
  const today = todayDate();
  return { id: row.id, state, today, rounds: roundProgress(state, today) };
}

export async function clientAction({ params, request }: RoomArgs) {
  return logAction(params.trialId, await request.json());
}

const traitsOf = new WeakMap<Round, Trait[]>();

/** The traits of a round that are typed, not weighed; the same list for the same round. */
function typedTraits(plan: Plan, round: Round): Trait[] {
  let traits = traitsOf.get(round);
  if (!traits) {
    traits = plan.traits.filter((t) => round.traitIds.includes(t.id) && kindOf(t).takenBy !== 'scale');
    traitsOf.set(round, traits);
  }
  return traits;
}

export default function RoundsRoom() {
  const { id, state, today, rounds } = useLoaderData<typeof clientLoader>();
  const [search, setSearch] = useSearchParams();
  const { plan } = state;
  if (!state.seal || rounds.length === 0) {
    return (
      <div className="empty">
        <h1>Rounds</h1>
        <p style={{ marginTop: '0.6rem' }}>
          A round is one visit to every {plan.unitNoun}: the same things measured on all of them, on the same
          day, in the order they stand. Rounds open when the plan is sealed.
        </p>
        <Link to={`/trial/${id}/layout`}>Seal the plan in Layout</Link>
      </div>
    );
  }
  const typed = (r: (typeof rounds)[number]) => typedTraits(plan, r.round).length > 0;
  const walked = rounds.filter(typed);
  const chosen =
    walked.find((r) => r.round.id === search.get('round')) ??
    walked.find((r) => r.status === 'due' || r.status === 'overdue') ??
    walked.find((r) => r.status === 'upcoming') ??
    walked[walked.length - 1];
  if (!chosen) {
    return (
      <div className="empty">
        <h1>Rounds</h1>
        <p style={{ marginTop: '0.6rem' }}>Everything in this trial is weighed.</p>
        <Link to={`/trial/${id}/weigh-in`}>Go to the Weigh-in</Link>
      </div>
    );
  }
  const traits = typedTraits(plan, chosen.round);
  const trait = traits.find((t) => t.id === search.get('trait')) ?? traits[0]!;
  const when =
    chosen.status === 'done'
      ? `done, planned for ${shortDate(chosen.date)}`
      : chosen.status === 'upcoming'
        ? `planned for ${shortDate(chosen.date)}, ${relativeDay(chosen.date, today)}`
        : chosen.status === 'due'
          ? 'due today'
          : `was due ${relativeDay(chosen.date, today)}`;
  const weighedToo = chosen.round.traitIds.length > traits.length;

  return (
    <RoundWalk
      key={`${id}/${chosen.round.id}/${trait.id}`}
      state={state}
      round={chosen.round}
      trait={trait}
      traits={traits}
      onTrait={(t) => setSearch({ round: chosen.round.id, trait: t })}
      head={
        <RoomHead
          title={`${chosen.round.name} · ${trait.name.toLowerCase()}`}
          actions={
            <ToggleButtonGroup
              size="small"
              exclusive
              value={chosen.round.id}
              onChange={(_, to: string | null) => to && setSearch({ round: to })}
              aria-label="Round"
            >
              {walked.map((r) => (
                <ToggleButton key={r.round.id} value={r.round.id} sx={{ textTransform: 'none', py: 0.4 }}>
                  day {r.round.day}
                </ToggleButton>
              ))}
            </ToggleButtonGroup>
          }
        >
          {when.charAt(0).toUpperCase() + when.slice(1)}. The walk follows the dotted line; tap any{' '}
          {plan.unitNoun} to jump.
          {weighedToo && (
            <>
              {' '}
              Weights of this round go through the <Link to={`/trial/${id}/weigh-in`}>Weigh-in</Link>.
            </>
          )}
        </RoomHead>
      }
    />
  );
}
