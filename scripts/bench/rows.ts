/** What was measured, against what must hold. */
export interface Row {
  work: string;
  measured: string;
  limit: string;
  held: boolean;
}
export const rows: Row[] = [];
export const report = (work: string, ms: number, limitMs: number, extra = '') =>
  rows.push({
    work,
    measured: `${ms.toFixed(ms < 10 ? 1 : 0)} ms${extra}`,
    limit: `${limitMs} ms`,
    held: ms < limitMs,
  });

export const median = (xs: number[]) => [...xs].sort((a, b) => a - b)[Math.floor(xs.length / 2)]!;
