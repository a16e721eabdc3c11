import type { lateMix, mixesDue } from '~core/mixing/mixesInLog';
import { type Plan, kindOf } from '~core/model/plan';
import { countWord, plural } from '~core/quantity/format';
import type { roundProgress } from '~core/schedule/rounds';
import { dateOfDay } from '~core/plan/days';

/** A trial as far as the list of what is due goes. */
export interface DueTrial {
  id: string;
  plan: Pick<Plan, 'question' | 'startDate' | 'unitNoun' | 'traits'>;
  mix: ReturnType<typeof mixesDue>;
  late: ReturnType<typeof lateMix>;
  /** rounds due today or overdue */
  due: ReturnType<typeof roundProgress>;
}

/** A line of what is due. */
export interface Due {
  kind: 'round' | 'mix';
  what: string;
  question: string;
  /** date it was due; null for today */
  since: string | null;
  figure: string;
  of: string;
  act: string;
  to: string;
}

const lateMixes = (trials: readonly DueTrial[]): Due[] =>
  trials.flatMap(({ id, plan, late }) =>
    late === null
      ? []
      : [
          {
            kind: 'mix',
            what: `Mixing of day ${late.day}`,
            question: plan.question,
            since: dateOfDay(plan.startDate, late.day),
            figure: String(late.missing),
            of: `${late.missing === 1 ? 'bottle' : 'bottles'} not in the log`,
            act: 'See to it',
            to: `/trial/${id}/mixing?day=${late.day}`,
          },
        ],
  );

const todaysMixes = (trials: readonly DueTrial[]): Due[] =>
  trials
    .filter((t) => t.mix.wanted > t.mix.done)
    .map(({ id, plan, mix }) => ({
      kind: 'mix',
      what: 'Mixing',
      question: plan.question,
      since: null,
      figure: `${mix.done}/${mix.wanted}`,
      of: 'bottles',
      act: mix.done > 0 ? 'Go on' : 'Start mixing',
      to: `/trial/${id}/mixing`,
    }));

const roundsDue = (trials: readonly DueTrial[]): Due[] =>
  trials.flatMap(({ id, plan, due }) =>
    due.map((d) => ({
      kind: 'round',
      what: d.round.name,
      question: plan.question,
      since: d.status === 'overdue' ? d.date : null,
      figure: `${d.unitsDone}/${d.unitsWanted}`,
      of: plural(plan.unitNoun),
      act: d.started ? 'Go on' : 'Start the round',
      to: `/trial/${id}/${roundRoom(plan, d.round.traitIds)}?round=${d.round.id}`,
    })),
  );

/** Everything due, the oldest work first: feed not in the log, today’s mixes, rounds. */
export const dueOn = (trials: readonly DueTrial[]): Due[] => [
  ...lateMixes(trials),
  ...todaysMixes(trials),
  ...roundsDue(trials),
];

/** “one round and one mix are due” */
export function dueWords(due: readonly Due[]): string {
  const all = (['round', 'mix'] as const).flatMap((noun) => {
    const n = due.filter((d) => d.kind === noun).length;
    return n === 0 ? [] : [`${countWord(n)} ${n === 1 ? noun : plural(noun)}`];
  });
  return all.length === 0 ? 'nothing is due' : `${all.join(' and ')} ${due.length === 1 ? 'is' : 'are'} due`;
}

/** Where a round is entered: rounds of weighed traits alone belong to the Weigh-in. */
function roundRoom(plan: DueTrial['plan'], traitIds: readonly string[]): string {
  const traits = plan.traits.filter((t) => traitIds.includes(t.id));
  return traits.every((t) => kindOf(t).takenBy === 'scale') ? 'weigh-in' : 'rounds';
}
