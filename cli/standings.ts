import { type TrialArm, describeNetworkError, networkMeta } from '~core/stats/networkMeta';
import { readArgs, shareOption } from './options';
import { PlainError } from './plainError';
import { DataFile, common, figure, lines, needed, oneFile } from './table';

export const standingsUsage = `palazzo standings FILE --trial COL --treatment COL --mean COL --sd COL --n COL --reference R
  [--alpha 0.05] [--json]`;

/** Runs `standings` and returns what goes to stdout. */
export function standings(args: string[]): string {
  const { json, alpha, seed, unit, treatment } = common;
  const { values, positionals } = readArgs(
    args,
    {
      ...{ json, alpha, seed, unit, treatment, trial: { type: 'string' }, mean: { type: 'string' } },
      ...{ sd: { type: 'string' }, n: { type: 'string' }, reference: { type: 'string' } },
    },
    true,
  );
  const data = new DataFile(oneFile(positionals));
  const at = {
    trial: data.column(needed('trial', values.trial)),
    treatment: data.column(needed('treatment', values.treatment)),
    mean: data.column(needed('mean', values.mean)),
    sd: data.column(needed('sd', values.sd)),
    n: data.column(needed('n', values.n)),
  };
  const reference = needed('reference', values.reference);
  const arms = Array.from({ length: data.size }, (_, i): TrialArm => {
    const row = {
      trial: data.label(i, at.trial),
      treatment: data.label(i, at.treatment),
      mean: data.number(i, at.mean),
      sd: data.number(i, at.sd),
      n: data.number(i, at.n),
    };
    if (!(row.mean > 0)) data.refuse(i, at.mean, `${row.mean} isn't above 0, so it has no ratio.`);
    if (!(row.sd > 0)) data.refuse(i, at.sd, `${row.sd} isn't above 0, so nothing can be weighed by it.`);
    if (!Number.isInteger(row.n) || row.n < 1) data.refuse(i, at.n, `${row.n} isn't a whole number from 1.`);
    return row;
  });
  const network = networkMeta(arms, reference, shareOption('alpha', values.alpha));
  if (!network.ok) throw new PlainError(describeNetworkError(network.error));
  if (values.json) return JSON.stringify(network.value);
  return [
    lines(
      ['product', '% against the reference', 'low', 'high', 'P-score', 'trials'],
      network.value.products.map((p) => [
        p.name,
        ...[p.percent, p.low, p.high, p.pScore].map(figure),
        String(p.trials),
      ]),
    ),
    '',
    `Between trials: τ² = ${figure(network.value.tau2)}`,
  ].join('\n');
}
