import { err, ok } from '../../model/result';
import { compareTreatments } from '../../stats/compareTreatments';
import type { Method } from '../analysis';
import { type Contrast, percentOf, turned } from '../contrast';
import { figuresOf } from '../figures';

/** Means on the log scale: for values whose spread grows with their size. Effects are ratios. */
export const logLinear: Method = {
  id: 'log',
  name: 'ratios, on the log scale',
  figure: 'mean of logs',
  accepts: ['continuous'],
  takes: (trait) => trait.direction !== 'band' && trait.summary !== 'growth',
  analyse: (input) => {
    const { trait, rows, control, alpha, order, peers } = input;
    const figures = figuresOf(rows, trait);
    if (figures.some((v) => !(v > 0))) return err({ tag: 'notForThis', method: logLinear.name });
    const compared = compareTreatments({
      rows: rows.map((r, i) => ({
        treatment: r.treatment,
        unit: r.unit,
        value: Math.log(figures[i]!),
        ...(r.block !== null && { block: r.block }),
        ...(r.column !== null && { column: r.column }),
      })),
      control,
      alpha,
      order,
    });
    if (!compared.ok) return compared;
    const c = compared.value;
    const ratio = (
      a: string,
      b: string,
      d: { difference: number; low: number | null; high: number | null; p: number | null },
    ): Contrast => {
      const [estimate, low, high] = [
        Math.exp(d.difference),
        d.low === null ? null : Math.exp(d.low),
        d.high === null ? null : Math.exp(d.high),
      ];
      return { a, b, scale: 'ratio', estimate, low, high, p: d.p, percent: percentOf(estimate, low, high) };
    };
    const pairs = c.pairs.map((p) => ratio(p.a, p.b, p));
    const own = peers
      ? pairs.flatMap((p) => (p.a === control ? [turned(p)] : p.b === control ? [p] : []))
      : c.versusControl.map((v) => ratio(v.name, control, v));
    const of = (name: string) => rows.flatMap((r, i) => (r.treatment === name ? [figures[i]!] : []));
    return ok({
      method: 'log',
      alpha,
      control,
      spread: c.spread,
      summaries: c.treatments.map((t) => ({
        name: t.name,
        n: t.n,
        mean: of(t.name).reduce((s, v) => s + v, 0) / t.n,
        estimate: Math.exp(t.adjustedMean),
        low: t.low === null ? null : Math.exp(t.low),
        high: t.high === null ? null : Math.exp(t.high),
        sd: null,
        min: Math.min(...of(t.name)),
        max: Math.max(...of(t.name)),
      })),
      versusControl: own,
      pairs: pairs.map((p) =>
        p.b === control
          ? own.find((o) => o.a === p.a)!
          : p.a === control
            ? turned(own.find((o) => o.a === p.b)!)
            : p,
      ),
      assumptions: [
        { what: 'units independent of each other', holds: null, seen: 'by the layout, not by the values' },
        {
          what: 'alike in spread on the log scale',
          holds: null,
          seen: `${rows.length} units are too few to tell`,
        },
      ],
      unitSd: null,
      smallPrint: `Linear model on the logarithms of ${rows.length} values, one a unit${c.blocks > 1 ? `, ${c.blocks} blocks taken off first` : ''}; figures and ratios turned back. ${peers ? 'Every pair: Tukey–Kramer.' : 'Against the control: Dunnett. Between the others: Tukey–Kramer.'}`,
    });
  },
};
