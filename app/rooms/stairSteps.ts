import type { AuditFinding } from '~core/fairness/audit';
import type { TrialState } from '~core/log/state';
import { unitValue } from '~core/log/unitValues';
import { missingForSeal } from '~core/model/seal';
import { mixesDue } from '~core/mixing/mixesInLog';
import { programmeDays } from '~core/mixing/programme';
import { dayOfDate, roundProgress } from '~core/schedule/rounds';

export interface StairStep {
  room: string;
  name: string;
  progress: 'none' | 'half' | 'full';
  /** a few characters at the right: a count, what is due */
  howFar: string;
  /** what is missing, as a tooltip */
  hint: string;
}

/** Mixing: what is due today, else the next day of the programme. */
function mixingStep(state: TrialState, today: string): StairStep {
  const { plan } = state;
  const step = { room: 'mixing', name: 'Mixing', howFar: '', progress: 'none' as const };
  if (!plan.treatments.some((t) => t.products.length > 0)) {
    return { ...step, howFar: '–', progress: 'full', hint: 'Nothing is mixed in this trial' };
  }
  const days = programmeDays(plan);
  if (days.length === 0) return { ...step, hint: 'No programme: doses without days are mixed when you like' };
  const day = dayOfDate(plan.startDate, today);
  const { wanted, done } = mixesDue(state, day);
  const next = days.find((d) => d > day);
  const past = days.filter((d) => d < day).length;
  if (wanted > done) {
    return { ...step, howFar: `${done}/${wanted}`, progress: 'half', hint: `${wanted - done} to mix today` };
  }
  return {
    ...step,
    howFar: next === undefined ? '' : `d ${next}`,
    progress: next === undefined ? 'full' : past > 0 ? 'half' : 'none',
    hint: next === undefined ? 'The programme is over' : `Next on day ${next}`,
  };
}

/** The steps of the stair with how far each is and what is missing, from plan and log. */
export function stairSteps(
  state: TrialState,
  today: string,
  reviewWritten: boolean,
  open: readonly AuditFinding[],
): StairStep[] {
  const { plan } = state;
  const missing = missingForSeal(plan);
  const planStep = (room: 'question' | 'contenders' | 'layout', begun: boolean) => {
    const lacks = missing.filter((m) => m.room === room).map((m) => m.what);
    const progress = lacks.length === 0 ? ('full' as const) : begun ? ('half' as const) : ('none' as const);
    return { progress, hint: lacks.length > 0 ? `Missing: ${lacks.join('; ')}` : 'Complete' };
  };
  const rounds = roundProgress(state, today);
  const openRound = rounds.find((r) => r.status === 'due' || r.status === 'overdue');
  const roundsDone = rounds.filter((r) => r.status === 'done').length;
  const weighed = plan.traits.filter((t) => t.kind === 'weighing');
  const weighings = state.observations.filter((o) => o.weighing).length;
  const unitsWeighed = plan.units.filter((u) =>
    weighed.some((t) => unitValue(state, u.id, t) !== null),
  ).length;
  const primary = plan.traits.find((t) => t.id === plan.primaryTraitId);
  const decided = primary ? plan.units.filter((u) => unitValue(state, u.id, primary) !== null).length : 0;
  const allDecided = decided > 0 && decided >= plan.units.length - state.deaths.size;
  const results = allDecided ? ('full' as const) : decided > 0 ? ('half' as const) : ('none' as const);
  const lastRound = rounds[rounds.length - 1];
  return [
    { room: 'question', name: 'Question', howFar: '', ...planStep('question', true) },
    {
      room: 'contenders',
      name: 'Contenders',
      howFar: plan.treatments.length ? String(plan.treatments.length) : '',
      ...planStep('contenders', plan.treatments.length > 0),
    },
    {
      room: 'layout',
      name: 'Layout',
      howFar: state.seal ? 'sealed' : plan.units.length ? String(plan.units.length) : '',
      progress: state.seal ? 'full' : plan.areas.length > 0 ? 'half' : 'none',
      hint: state.seal ? 'Sealed' : planStep('layout', false).hint,
    },
    {
      room: 'fairness',
      name: 'Fairness',
      howFar: open.length > 0 ? `${open.length} open` : '',
      progress: open.length === 0 ? 'full' : 'half',
      hint:
        open.length === 0
          ? 'Nothing a reader could object to'
          : open
              .slice(0, 4)
              .map((f) => f.title)
              .join('; ') + (open.length > 4 ? ' …' : ''),
    },
    {
      room: 'rehearsal',
      name: 'Rehearsal',
      howFar: '',
      progress: state.seal ? 'full' : plan.treatments.length > 1 ? 'half' : 'none',
      hint: 'How many units, and what the plan can see',
    },
    mixingStep(state, today),
    {
      room: 'rounds',
      name: 'Rounds',
      howFar: openRound
        ? `${openRound.unitsDone}/${openRound.unitsWanted}`
        : rounds.length
          ? `${roundsDone}/${rounds.length}`
          : '',
      progress:
        rounds.length > 0 && roundsDone === rounds.length
          ? 'full'
          : state.observations.length > 0
            ? 'half'
            : 'none',
      hint: openRound
        ? `${openRound.round.name} is ${openRound.status}`
        : `${roundsDone} of ${rounds.length} rounds done`,
    },
    {
      room: 'weigh-in',
      name: 'Weigh-in',
      howFar:
        weighed.length === 0
          ? '–'
          : weighings > 0
            ? `${unitsWeighed}/${plan.units.length}`
            : weighed.length > 0 && lastRound
              ? `d ${lastRound.round.day}`
              : '',
      progress:
        weighings === 0 ? 'none' : unitsWeighed >= plan.units.length - state.deaths.size ? 'full' : 'half',
      hint:
        weighed.length === 0
          ? 'No trait of this trial is weighed'
          : `${unitsWeighed} of ${plan.units.length} weighed`,
    },
    {
      room: 'findings',
      name: 'Findings',
      howFar: '',
      progress: results,
      hint:
        decided > 0 ? `${decided} of ${plan.units.length} have the deciding value` : 'Nothing measured yet',
    },
    {
      room: 'verdict',
      name: 'Verdict',
      howFar: '',
      progress: results,
      hint: results === 'none' ? 'Nothing to judge yet' : 'Ready to read',
    },
    {
      room: 'review',
      name: 'Review',
      howFar: '',
      progress: reviewWritten && allDecided ? 'full' : reviewWritten ? 'half' : 'none',
      hint: reviewWritten ? 'Begun' : 'Not written yet',
    },
  ];
}
