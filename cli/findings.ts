import { readFileSync } from 'node:fs';
import { describeImportError, importTrial } from '~core/formats/dataPackage';
import type { Trial } from '~core/log/trial';
import { makeFinding } from '~core/verdict/finding';
import { trialFindings } from '~core/verdict/trialFindings';
import { readArgs } from './options';
import { PlainError } from './plainError';
import { common, figure, lines, oneFile, pText } from './table';

export const findingsUsage = `palazzo findings TRIAL.zip [--json]`;

/** One finding as the Findings room has it. */
export interface FindingRow {
  trait: string;
  /** null: the trait's own summary over its rounds */
  round: string | null;
  /** null: all crops of a unit */
  crop: string | null;
  method: string;
  versusControl: {
    name: string;
    difference: number;
    low: number | null;
    high: number | null;
    p: number | null;
  }[];
}

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
export function findingsOf(trial: Trial): FindingRow[] {
  const { inputs, nameOf } = trialFindings(trial);
  return inputs.flatMap(({ trait, round, crop, input }): FindingRow[] => {
    const made = makeFinding(input);
    if (!made.ok) return [];
    const { analysis } = made.value;
    return [
      {
        ...{ trait, round, crop, method: analysis.method },
        versusControl: analysis.versusControl.map((c) => ({
          name: nameOf(c.a),
          difference: c.estimate,
          low: c.low,
          high: c.high,
          p: c.p,
        })),
      },
    ];
  });
}

/** Runs `findings` and returns what goes to stdout. */
export function findings(args: string[]): string {
  const { json, alpha, seed } = common;
  const { values, positionals } = readArgs(args, { json, alpha, seed }, true);
  const trial = trialOf(oneFile(positionals));
  const found = findingsOf(trial);
  if (values.json) return JSON.stringify({ trial: trial.plan.question, findings: found });
  return lines(
    ['trait', 'round', 'crop', 'method', 'against the control', 'difference', 'low', 'high', 'p'],
    found.flatMap((f) =>
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
