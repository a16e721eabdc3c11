import type { Analysis, AnalysisError, AnalysisInput } from '../analysis/analysis';
import { figuresOf } from '../analysis/figures';
import { unitTable } from '../analysis/unitTable';
import { mean, sd } from '../stats/moments';

/**
 * The figures of contenders that nothing can be held against: one is left with values, or they share no block. Numbers
 * stand, without a comparison.
 *
 * @returns null for an error that leaves no figures either
 */
export function describedAlone(
  { rows, trait, control, alpha, order }: AnalysisInput,
  method: string,
  error: AnalysisError,
): Analysis | null {
  if (error.tag !== 'oneTreatment' && error.tag !== 'disconnected') return null;
  const figures = figuresOf(rows, trait);
  const counted = unitTable(rows, trait);
  const names = order.filter((id) => rows.some((r) => r.treatment === id));
  return {
    method,
    alpha,
    control,
    spread: error.tag === 'oneTreatment' ? 'alone' : 'disconnected',
    summaries: names.map((name) => {
      const own = rows.flatMap((r, i) => (r.treatment === name ? [i] : []));
      const values = own.map((i) => figures[i]!);
      const [k, n] = (['k', 'n'] as const).map((of) => own.reduce((s, i) => s + (counted[i]![of] ?? 0), 0));
      const seen = own.flatMap((i) => (counted[i]!.day === null ? [] : [counted[i]!]));
      const yet = seen.filter((u) => !u.happened).length;
      const centre = n! > 0 ? (100 * k!) / n! : mean(values);
      return {
        name,
        n: values.length,
        mean: centre,
        estimate: centre,
        low: null,
        high: null,
        sd: values.length > 1 ? sd(values) : null,
        min: Math.min(...values),
        max: Math.max(...values),
        ...(n! > 0 && { counted: `${k}/${n}` }),
        ...(yet > 0 && { shown: `${seen.length - yet} of ${seen.length} so far` }),
      };
    }),
    versusControl: [],
    pairs: [],
    assumptions: [],
    unitSd: null,
    smallPrint: '',
  };
}
