import { type RouteConfig, index, layout, prefix, route } from '@react-router/dev/routes';

/** The rooms of a trial stand in the order of the work. */
export default [
  layout('bench/BenchLayout.tsx', [
    index('bench/today.tsx'),
    route('trials/new', 'bench/newTrial.tsx'),
    route('library', 'library/library.tsx'),
    route('library/:productId', 'library/product.tsx'),
    route('calculator', 'bench/calculator.tsx'),
    route('data', 'bench/data.tsx'),
  ]),
  route('trial/:trialId', 'rooms/TrialLayout.tsx', [
    index('rooms/enter.tsx'),
    route('question', 'rooms/question/question.tsx'),
    route('contenders', 'rooms/contenders/contenders.tsx'),
    route('layout', 'rooms/layout/layout.tsx'),
    route('fairness', 'rooms/fairness/fairness.tsx'),
    route('rehearsal', 'rooms/rehearsal/rehearsal.tsx'),
    route('mixing', 'rooms/mixing/mixing.tsx'),
    route('rounds', 'rooms/rounds/rounds.tsx'),
    route('weigh-in', 'rooms/weighIn/weighIn.tsx'),
    route('findings', 'rooms/findings/findings.tsx'),
    route('verdict', 'rooms/verdict/verdict.tsx'),
    route('review', 'rooms/review/review.tsx'),
    route('log', 'rooms/log/log.tsx'),
  ]),
  ...prefix('trial/:trialId', [
    route('labels', 'rooms/layout/labels.tsx'),
    route('card', 'rooms/layout/card.tsx'),
    route('mixing-card', 'rooms/mixing/mixingCard.tsx'),
  ]),
] satisfies RouteConfig;
