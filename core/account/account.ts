import { type Answered, answeredIn } from '../log/asked';
import type { TrialState } from '../log/state';
import type { Round, Trait } from '../model/plan';
import { isOver } from '../plan/ended';
import { letterOf } from '../plan/letters';
import { planIndex } from '../plan/planIndex';
import { experimentalNoun } from '../plan/sharing';
import { type Paid, paidOf } from './paid';
import { type ThingWords, sayMargin, wordsOfPlan } from './thing';

/**
 * The facts of a trial on a day, each once. Screens, audit, agenda, cost, verdict and review take them from here, or from
 * the file that owns one of them: `shown` (letters), `log/asked` (asked and answered), `finding` and `outcomes` (standing
 * of contenders and contrasts), `paid` (given and paid), `thing` (words).
 */
export interface Account {
  /** what is missing was missed: nothing is still to come */
  over: boolean;
  /** a contender's letter, of a state in the order of its letters (`shownOf`) */
  letter: (treatmentId: string) => string;
  /** what a round asked of a trait, and what came of it */
  answered: (trait: Trait, round: Round) => Answered;
  /** what was given and paid, on one basis for all */
  paid: Paid;
  /** what is given is called */
  words: ThingWords;
  /** what an experimental unit is called */
  noun: string;
  /** the smallest difference that matters, in words; null where none was set */
  margin: string | null;
}

const known = new WeakMap<TrialState, Map<string, Account>>();

/**
 * The account of a trial; worked out once for a state and day, each part when it is first asked for.
 * @param today YYYY-MM-DD
 * @example accountOf(state, '2026-03-12').paid.basis // 'plan'
 */
export function accountOf(state: TrialState, today: string): Account {
  let byDay = known.get(state);
  if (!byDay) known.set(state, (byDay = new Map()));
  let account = byDay.get(today);
  if (!account) byDay.set(today, (account = made(state, today)));
  return account;
}

function made(state: TrialState, today: string): Account {
  const { plan } = state;
  const answeredBy = new Map<string, Answered>();
  return {
    over: isOver(plan, today),
    letter: (id) => letterOf(Math.max(0, planIndex(plan).treatmentOrder(id))),
    answered: (trait, round) => {
      const key = `${round.id}/${trait.id}`;
      let answered = answeredBy.get(key);
      if (!answered) answeredBy.set(key, (answered = answeredIn(state, trait, round)));
      return answered;
    },
    get paid() {
      return paidOf(state);
    },
    words: wordsOfPlan(plan),
    noun: experimentalNoun(plan),
    margin: sayMargin(plan),
  };
}
