import { NOTHING_WRITTEN } from '../plan/nothingWritten';
import { plural } from '../quantity/format';
import { lookScale } from '../schedule/protocols/protocol';
import { ofWhat } from '../plan/control';
import { winningBy } from '../plan/winning';
import type { Rule } from './rule';

/** Where a second question begins inside a question, or −1: a second “?”, or “, and which …”. */
function secondQuestionAt(question: string): number {
  const first = question.indexOf('?');
  if (first >= 0 && question.indexOf('?', first + 1) > 0) return first + 1;
  const joined =
    /(?:,|;)?\s+(?:and|or)\s+(?:also\s+)?(?:which|does|do|is|are|how|what|whether|will|can|who)\b/i.exec(
      question,
    );
  return joined ? joined.index : -1;
}

const twoQuestions: Rule = {
  id: 'two-questions',
  severity: 'weakens',
  title: 'Two questions at once',
  why: 'A trial stopped to answer one question can’t answer another afterwards; only one can decide.',
  check: ({ plan }) => {
    const at = secondQuestionAt(plan.question);
    if (at < 0) return null;
    const tidy = (text: string) => {
      const bare = text.replace(/^[\s,;]*(?:(?:and|or)\s+(?:also\s+)?)?/i, '').trim();
      const sentence = bare.charAt(0).toUpperCase() + bare.slice(1);
      return /[?.!]$/.test(sentence) ? sentence : `${sentence}?`;
    };
    const [first, second] = [tidy(plan.question.slice(0, at)), tidy(plan.question.slice(at))];
    return {
      found: `The question asks twice: “${first}” and “${second}”`,
      cure: 'Keep the first; look at the second on the side, as exploratory.',
      room: 'question',
      fix: {
        label: 'Move the second to the side',
        byItself: true,
        apply: () => ({
          plan: {
            ...plan,
            question: first,
            alsoAsked: [plan.alsoAsked, second].filter(Boolean).join(' ').slice(0, 300),
          },
        }),
      },
    };
  },
};

const noPrediction: Rule = {
  id: 'no-prediction',
  severity: 'weakens',
  title: 'No prediction',
  why: 'Without one, whatever happens looks like what was meant to happen.',
  check: ({ plan }) =>
    plan.prediction === '' || plan.prediction === NOTHING_WRITTEN
      ? {
          found: 'Nothing is written about what you expect.',
          cure: 'Write it before the start.',
          room: 'question',
        }
      : null,
};

const noSmallestDifference: Rule = {
  id: 'no-smallest-difference',
  severity: 'weakens',
  title: 'No smallest difference that matters',
  why: 'A difference can be real and still too small to pay for; said afterwards it convinces nobody.',
  check: ({ plan }) =>
    plan.smallestDifference
      ? null
      : {
          found: 'It isn’t said how large a difference has to be.',
          cure: `Ask what a reader would change their habits for; a tenth ${ofWhat(plan)} is common (practice).`,
          room: 'question',
          fix: {
            label: `Take 10 % ${ofWhat(plan)}`,
            apply: () => ({ plan: { ...plan, smallestDifference: { kind: 'percent', value: 10 } } }),
          },
        },
};

const noFinishingRule: Rule = {
  id: 'no-finishing-rule',
  severity: 'weakens',
  title: 'No rule for the end',
  why: 'Who may choose the day chooses the winner.',
  check: ({ plan }) => {
    if (plan.finishingRule !== '') return null;
    const last = Math.max(0, ...plan.rounds.map((r) => r.day));
    return {
      found: 'It isn’t said when the trial ends.',
      cure: 'A fixed day for all; “when each is at its best” needs its rule written first.',
      room: 'question',
      ...(last > 0 && {
        fix: {
          label: `End on day ${last}`,
          apply: () => ({
            plan: { ...plan, finishingRule: `All ${plural(plan.unitNoun)} end together on day ${last}.` },
          }),
        },
      }),
    };
  },
};

const noWinning: Rule = {
  id: 'no-winning',
  severity: 'note',
  title: 'What counts as winning isn’t said',
  why: 'Yield, looks, taste and money crown different winners.',
  check: ({ plan }) => {
    if (plan.winning !== '') return null;
    const winning = winningBy(plan);
    return {
      found: 'It isn’t written what a product must do to win.',
      cure: 'Say it in one sentence.',
      room: 'question',
      ...(winning !== '' && {
        fix: { label: 'Write it from the plan', apply: () => ({ plan: { ...plan, winning } }) },
      }),
    };
  },
};

const scaleWithoutSteps: Rule = {
  id: 'scale-without-steps',
  severity: 'weakens',
  title: 'A score without a written scale',
  why: 'A 4 must mean the same on the first tray and the last, and to someone else.',
  check: ({ plan }) => {
    const bare = plan.traits.filter(
      (t) => t.kind === 'score' && (t.scale.length < 2 || t.scale.some((s) => s.text === '')),
    );
    if (bare.length === 0) return null;
    return {
      found: `${bare.map((t) => t.name).join(', ')}: ${bare.length > 1 ? 'their steps aren’t' : 'its steps aren’t'} described.`,
      cure: 'Describe what has to be seen for each step.',
      room: 'question',
      fix: {
        label: 'Write five steps for looks',
        apply: () => ({
          plan: {
            ...plan,
            traits: plan.traits.map((t) =>
              bare.includes(t) ? { ...t, scale: lookScale.map((text, i) => ({ value: i + 1, text })) } : t,
            ),
          },
        }),
      },
    };
  },
};

const nobodyScores: Rule = {
  id: 'nobody-scores',
  severity: 'note',
  title: 'Nobody is named to score',
  why: 'Two people score differently; one hand, or both on every unit, keeps it even.',
  check: ({ plan, me }) =>
    plan.scorer !== ''
      ? null
      : {
          found: 'It isn’t said who measures and scores.',
          cure: 'Name one person for all units.',
          room: 'question',
          ...(me && { fix: { label: `${me} scores`, apply: () => ({ plan: { ...plan, scorer: me } }) } }),
        },
};

const scorerNotBlind: Rule = {
  id: 'scorer-not-blind',
  severity: 'weakens',
  title: 'The scorer knows what is what',
  why: 'Who knows which plant got the dear product sees it in the leaves.',
  check: ({ plan }) => {
    const judged = plan.traits.filter((t) => t.kind === 'score');
    if (judged.length === 0 || plan.blinding !== 'open') return null;
    return {
      found: `${judged.map((t) => t.name).join(', ')} ${judged.length > 1 ? 'are' : 'is'} scored with the names in sight.`,
      cure: 'Show codes until the key is opened.',
      room: 'layout',
      fix: {
        label: 'Score by codes',
        byItself: true,
        apply: () => ({ plan: { ...plan, blinding: 'scorer' } }),
      },
    };
  },
};

export const questionRules = [
  twoQuestions,
  noPrediction,
  noSmallestDifference,
  noFinishingRule,
  noWinning,
  scaleWithoutSteps,
  nobodyScores,
  scorerNotBlind,
];
