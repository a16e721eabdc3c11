import { type Mark, inkOf } from './marks';

/** A figure as a bar across its interval. */
export const figureMarks = (
  { estimate, low, high }: { estimate: number; low: number | null; high: number | null },
  x: (v: number) => number,
  line: number,
  index: number,
): Mark[] => [
  ...(low === null
    ? []
    : [
        {
          ...{ mark: 'line' as const, from: [x(low), line] as const, to: [x(high!), line] as const },
          ...{ stroke: inkOf(index), width: 2.5 },
        },
      ]),
  {
    ...{ mark: 'line', from: [x(estimate), line - 7], to: [x(estimate), line + 7] },
    ...{ stroke: inkOf(index), width: 3.5 },
  },
];
