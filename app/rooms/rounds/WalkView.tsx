import { type ReactNode, memo, useCallback, useMemo, useState } from 'react';
import { Link, useLocation, useSearchParams } from 'react-router';
import type { TrialState } from '~core/log/state';
import type { TraitId, UnitId } from '~core/model/ids';
import { type Plan, type Round, type Trait, kindOf } from '~core/model/plan';
import { type RoundProgress, dueVisit, isOpenRound, visitToOpen } from '~core/schedule/rounds';
import { relativeDay, shortDate } from '../../ui/clock';
import { RoomHead } from '../../ui/RoomHead';
import { ToggleRow } from '../../ui/ToggleRow';
import { ViewSwitch } from '../../ui/ViewSwitch';
import { CloseRound } from './CloseRound';
import { OrderView } from './OrderView';
import { RoundWalk } from './RoundWalk';

/** What is taken on the walk; the rest is weighed, picked or dried in the Weigh-in. */
const walkedBy: ReadonlySet<string> = new Set(['pad', 'words', 'order']);
const traitsOf = new WeakMap<Round, Trait[]>();

/** The traits of a round that are typed, not weighed; the same list for the same round. */
function typedTraits(plan: Plan, round: Round): Trait[] {
  let traits = traitsOf.get(round);
  if (!traits) {
    traits = plan.traits.filter((t) => round.traitIds.includes(t.id) && walkedBy.has(kindOf(t).takenBy));
    traitsOf.set(round, traits);
  }
  return traits;
}

/** When a round is, or was, to be walked. */
function whenOf({ status, date }: RoundProgress, today: string): string {
  switch (status) {
    case 'done':
      return `Done, planned for ${shortDate(date)}`;
    case 'upcoming':
      return `Planned for ${shortDate(date)}, ${relativeDay(date, today)}`;
    case 'due':
      return 'Due today';
    case 'closed':
      return `Closed, planned for ${shortDate(date)}`;
    case 'overdue':
      return `Was due ${relativeDay(date, today)}`;
  }
}

interface Props {
  state: TrialState;
  rounds: readonly RoundProgress[];
  today: string;
  views: ReactNode;
}

/** What was chosen on the page itself, at one visit of it. */
interface Taken {
  visit: string;
  roundId: string;
  traitId: TraitId;
  unitId: UnitId | undefined;
}

/** The round in hand and its trait: the one asked for, else the one that is due. */
export const WalkView = memo(function WalkView({ state, rounds, today, views }: Props) {
  const { plan } = state;
  const { id } = plan;
  const [search, setSearch] = useSearchParams();
  const onRound = useCallback((round: string) => setSearch({ round }), [setSearch]);
  const days = useMemo(() => plan.rounds.filter((r) => typedTraits(plan, r).length > 0), [plan]);
  const { key: visit } = useLocation();
  /** where the walk was taken on this page; a unit gone to by its code since counts instead */
  const [at, setAt] = useState<Taken | null>(null);
  const [byUnit, setByUnit] = useState(false);
  const typed = (r: RoundProgress) => typedTraits(plan, r.round).length > 0;
  const walked = rounds.filter(typed);
  const [inHand, setInHand] = useState<string | null>(null);
  const chosen =
    walked.find((r) => r.round.id === search.get('round')) ??
    visitToOpen(
      walked,
      today,
      isOpenRound,
      walked.find((r) => r.round.id === inHand),
    );
  if (chosen && chosen.round.id !== inHand) setInHand(chosen.round.id);
  if (!chosen) {
    return (
      <>
        <RoomHead title="Rounds">Everything in this trial is weighed.</RoomHead>
        {views}
        <Link to={`/trial/${id}/weigh-in`}>Go to the Weigh-in</Link>
      </>
    );
  }
  const traits = typedTraits(plan, chosen.round);
  const own = at?.visit === visit && at.roundId === chosen.round.id ? at : null;
  const trait = traits.find((t) => t.id === (own?.traitId ?? search.get('trait'))) ?? traits[0]!;
  // Gone to by its code.
  const asked = plan.units.find((u) => u.code === search.get('unit'))?.id;
  const due = dueVisit(walked, today, isOpenRound);
  const weighedToo = chosen.round.traitIds.length > traits.length;

  // Beside the pad the traits of a round stand on it; an order has no pad.
  const switcher = traits.length > 1 && (
    <ViewSwitch
      label="Trait"
      views={traits.map((t) => [t.id, t.name] as const)}
      view={trait.id}
      onView={(traitId) => setAt({ visit, roundId: chosen.round.id, traitId, unitId: undefined })}
    />
  );
  const head = (
    <>
      <WalkHead
        trialId={id}
        title={`${chosen.round.name} · ${trait.name.toLowerCase()}`}
        said={`${whenOf(chosen, today)}.${
          kindOf(trait).takenBy === 'order'
            ? ''
            : ` The walk follows the dotted line; tap any ${plan.unitNoun} to jump.`
        }`}
        roundId={chosen.round.id}
        rounds={days}
        {...{ weighedToo, onRound }}
      />
      <CloseRound progress={chosen} />
      {trait.kind === 'score' && trait.scale.length > 1 && state.seal && (
        <p className="small">
          <Link to={`/eye?trial=${id}&trait=${trait.id}`}>Ten warm-up pictures first</Link>: how steady the
          eye is goes into the log, and into the review.
        </p>
      )}
      {views}
    </>
  );
  if (kindOf(trait).takenBy === 'order') {
    return (
      <OrderView
        state={state}
        round={chosen.round}
        trait={trait}
        head={
          <>
            {head}
            {switcher}
          </>
        }
      />
    );
  }
  return (
    <RoundWalk
      // Gone to the same unit twice: the walk had gone on meanwhile.
      key={`${id}/${chosen.round.id}/${trait.id}/${own?.unitId ?? (asked ? `${asked} ${visit}` : '')}`}
      state={state}
      round={chosen.round}
      trait={trait}
      traits={traits}
      onTrait={(traitId, unitId) => setAt({ visit, roundId: chosen.round.id, traitId, unitId })}
      byUnit={byUnit}
      onByUnit={setByUnit}
      startAt={own?.unitId ?? asked}
      head={head}
      nextRound={due && due !== chosen ? { name: due.round.name, go: () => onRound(due.round.id) } : null}
    />
  );
});

interface HeadProps {
  trialId: string;
  title: string;
  said: string;
  weighedToo: boolean;
  roundId: string;
  rounds: readonly Round[];
  onRound: (id: string) => void;
}

/** Which round and trait is in hand; drawn anew when that changes, not with every value under way. */
const WalkHead = memo(function WalkHead(p: HeadProps) {
  return (
    <RoomHead
      title={p.title}
      actions={
        <ToggleRow
          label="Round"
          value={p.roundId}
          options={p.rounds.map((r) => [r.id as string, `day ${r.day}`] as const)}
          onPick={p.onRound}
        />
      }
    >
      {p.said}
      {p.weighedToo && (
        <>
          {' '}
          Weights of this round go through the <Link to={`/trial/${p.trialId}/weigh-in`}>Weigh-in</Link>.
        </>
      )}
    </RoomHead>
  );
});
