import { detectableDifference, powerOf, replicatesNeeded, residualDf } from '~core/design/power';
import { numberOption, readArgs, requiredNumber, shareOption } from './options';
import { PlainError } from './plainError';

export const powerUsage = `palazzo power --treatments K --cv C [--replicates R] [--difference D]
  [--blocks B] [--alpha 0.05] [--power 0.8] [--json]
  C and D in per cent of the control's mean; R or D may be left out and is solved for`;

/** Runs `power` and returns what goes to stdout. */
export function power(args: string[]): string {
  const { values } = readArgs(args, {
    treatments: { type: 'string' },
    replicates: { type: 'string' },
    cv: { type: 'string' },
    difference: { type: 'string' },
    blocks: { type: 'string', default: '1' },
    alpha: { type: 'string', default: '0.05' },
    power: { type: 'string', default: '0.8' },
    json: { type: 'boolean', default: false },
  });
  const treatments = requiredNumber('treatments', values.treatments, { low: 2, high: 60, whole: true });
  const cv = requiredNumber('cv', values.cv, { low: 1e-6, high: 1000 });
  const blocks = requiredNumber('blocks', values.blocks, { low: 1, high: 5000, whole: true });
  const alpha = shareOption('alpha', values.alpha);
  const wanted = shareOption('power', values.power);
  const givenReplicates = numberOption('replicates', values.replicates, { low: 1, high: 5000, whole: true });
  const givenDifference = numberOption('difference', values.difference, { low: 1e-6, high: 1e6 });
  if (givenReplicates === undefined && givenDifference === undefined) {
    throw new PlainError('Give --replicates or --difference; only one of them can be solved for.');
  }
  const replicates =
    givenReplicates ?? replicatesNeeded(treatments, blocks, alpha, cv, givenDifference!, wanted);
  if (replicates === null) throw new PlainError('Even 5,000 units of each wouldn’t see that difference.');
  const size = { treatments, replicates, blocks, alpha };
  if (residualDf(size) < 1) {
    throw new PlainError(
      `${treatments} treatments of ${replicates} in ${blocks} block(s) leave no residual degrees of freedom: nothing can be tested.`,
    );
  }
  const difference = givenDifference ?? detectableDifference(size, cv, wanted, 'control')!;
  const power = powerOf(size, cv, difference)!;
  if (values.json) {
    return JSON.stringify({
      replicates,
      difference,
      powerVersusControl: power.versusControl,
      powerPair: power.pair,
      powerAnova: power.anova,
    });
  }
  const percent = (p: number) => `${(100 * p).toFixed(1)} %`;
  return [
    `${treatments} treatments, ${replicates} units of each, ${blocks > 1 ? `${blocks} blocks, ` : ''}spread ${cv} %, alpha ${alpha}; ${residualDf(size)} residual degrees of freedom`,
    `a product that differs by ${Number(difference.toPrecision(4))} % of the control is seen`,
    `  against the control (Dunnett)        ${percent(power.versusControl)}`,
    `  against any other product (Tukey)    ${percent(power.pair)}`,
    `  by the analysis of variance (F)      ${percent(power.anova)}`,
  ].join('\n');
}
