import { readFileSync } from 'node:fs';
import { strFromU8, unzipSync } from 'fflate';
import { findingValuesTable } from '~core/formats/findingValuesTable';
import { rScript } from '~core/formats/rScript/rScript';
import { askedFindings } from '~core/formats/rScript/findingValues';
import { trialFindings } from '~core/account/trialFindings';
import { trialOf } from './findings';
import { readArgs } from './options';
import { common, oneFile } from './table';

export const scriptUsage = `palazzo script TRIAL.zip`;

const TABLE = 'data/finding_values.csv';

/** Runs `script`: the R script of a trial; where its zip has no table of values, or another, they are in the script. */
export function script(args: string[]): string {
  const { alpha, seed, json } = common;
  const { positionals } = readArgs(args, { json, alpha, seed }, true);
  const file = oneFile(positionals);
  const trial = trialOf(file);
  const findings = trialFindings(trial);
  const { csv } = findingValuesTable(findings);
  const there = unzipSync(new Uint8Array(readFileSync(file)), { filter: (f) => f.name === TABLE })[TABLE];
  const same = there !== undefined && strFromU8(there) === csv;
  return rScript(
    trial.plan.question,
    findings.order.map(findings.nameOf),
    askedFindings(findings.inputs),
    same ? 'file' : { csv },
  );
}
