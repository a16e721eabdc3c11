import { readFileSync } from 'node:fs';
import { describeImportError, importTrial } from '~core/formats/dataPackage';
import type { Trial } from '~core/log/trial';
import { type FindingRow, findingRows } from '~core/account/findingRows';
import { trialFindings } from '~core/account/trialFindings';
import { readArgs } from './options';
import { PlainError } from './plainError';
import { common, figure, lines, oneFile, pText } from './table';

export const findingsUsage = `palazzo findings TRIAL.zip [--json]`;

/** A trial from its zip; a plain error where it can't be read. */
export function trialOf(file: string): Trial {
  let bytes: Uint8Array;
  try {
    bytes = new Uint8Array(readFileSync(file));
  } catch {
    throw new PlainError(`The file “${file}” can't be read.`);
  }
  const trial = importTrial(bytes);
  if (!trial.ok) throw new PlainError(`${file}: ${describeImportError(trial.error)}`);
  return trial.value;
}

/** Every trait × round × crop that has a finding; contenders by their codes while the trial is blind. */
export const findingsOf = (trial: Trial): FindingRow[] => findingRows(trialFindings(trial));

/** Runs `findings` and returns what goes to stdout. */
export function findings(args: string[]): string {
  const { json, alpha, seed } = common;
  const { values, positionals } = readArgs(args, { json, alpha, seed }, true);
  const trial = trialOf(oneFile(positionals));
  const findings = findingsOf(trial);
  if (values.json) return JSON.stringify({ trial: trial.plan.question, findings: findings });
  return lines(
    ['trait', 'round', 'crop', 'method', 'against the control', 'difference', 'low', 'high', 'p'],
    findings.flatMap((f) =>
      f.versusControl.map((c) => [
        f.trait,
        f.round ?? '',
        f.crop ?? '',
        f.method,
        c.name,
        ...[c.difference, c.low, c.high].map(figure),
        pText(c.p),
      ]),
    ),
  );
}
