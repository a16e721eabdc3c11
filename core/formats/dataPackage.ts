import { type Zippable, strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import type { z } from 'zod';
import { deriveState } from '../log/state';
import { FILE_VERSION, describeMigrationError, migrate } from '../model/migrations';
import { planSha256 } from '../plan/seal';
import { Trial } from '../log/trial';
import { type Result, err, ok } from '../model/result';
import { scriptOf } from './rScript/rScript';
import type { FindingRow } from '../account/findingRows';
import { trialFindings } from '../account/trialFindings';
import { findingValuesTable } from './findingValuesTable';
import { plainIssue } from './plainIssue';
import { RECORD_FILE, recordOf } from './record';
import { safeJson } from './safeJson';
import { type Bulk, bulkEntries, noBulk } from './bulkFiles';
import { trialTables } from './tables';

/**
 * A trial as an open zip: `datapackage.json` by the Frictionless Data Package specification (version 1),
 * CSV tables with Table Schemas for any spreadsheet or script, and the plan and log as JSON, from which
 * Palazzo reads the trial back. The tables are views of the log; edits to them aren't read back.
 */

const README = `This is a trial exported by Palazzo.

datapackage.json  describes the files (Frictionless Data Package)
data/*.csv        tables for a spreadsheet or script
findings.json     what was found, trait by trait, round by round, crop by crop; may be left out
findings.R        works out every finding anew from data/finding_values.csv: Rscript findings.R
plan.json         the plan, and what the reviewer wrote
log.json          every entry ever made, corrections included; nothing is overwritten
hashes.json       SHA-256 of the plan, of each line and table, and of all together (“palazzo verify”)
sealed-plan.json  only where the format has changed since the plan was sealed: the plan as it was sealed
conflicts.json    only where another copy had a line with the same id that says something else: that line
photos/           pictures by their SHA-256; data/photos.csv says what each shows
series/           readings of loggers by the clock on the wall; data/logger_files.csv says where each hung
key.json          only in a blind trial: which code is which treatment, in the order A, B, C …
                  The tables and the plan tell the names all the same: whoever scores is given
                  Palazzo's “copy for whoever scores”, which is under codes throughout.
`;

/** The descriptor of the package. */
function descriptor(trial: Trial) {
  const state = deriveState(trial.plan, trial.log);
  const findings = trialFindings(trial, state);
  const tables = [...trialTables(state), findingValuesTable(findings)];
  return {
    tables,
    script: scriptOf(trial.plan.question, findings),
    json: {
      profile: 'data-package',
      name: `trial-${trial.plan.code.toLowerCase()}`,
      title: trial.plan.question,
      created: `${trial.plan.startDate}T00:00:00Z`,
      description: `Side-by-side trial of ${trial.plan.treatments.map((t) => t.name).join(', ')}.`,
      palazzo: { version: FILE_VERSION, planSha256: planSha256(trial.plan) },
      resources: [
        ...tables.map((t) => ({
          name: t.name,
          title: t.title,
          path: `data/${t.name}.csv`,
          profile: 'tabular-data-resource',
          format: 'csv',
          mediatype: 'text/csv',
          encoding: 'utf-8',
          schema: t.schema,
        })),
        {
          name: 'plan',
          title: 'The plan',
          path: 'plan.json',
          profile: 'data-resource',
          format: 'json',
          mediatype: 'application/json',
          encoding: 'utf-8',
        },
        {
          name: 'findings',
          title: 'Works out every finding anew, in R',
          path: 'findings.R',
          profile: 'data-resource',
          format: 'R',
          mediatype: 'text/plain',
          encoding: 'utf-8',
        },
        {
          name: 'log',
          title: 'The log',
          path: 'log.json',
          profile: 'data-resource',
          format: 'json',
          mediatype: 'application/json',
          encoding: 'utf-8',
        },
      ],
    },
  };
}

/** A list with a row for each thing in it: half as large as indented, and still read and compared line by line. */
const byLine = (list: readonly unknown[]) =>
  strToU8(list.length === 0 ? '[]\n' : `[\n${list.map((x) => JSON.stringify(x)).join(',\n')}\n]\n`);
const pretty = (value: unknown) => strToU8(`${JSON.stringify(value, null, 2)}\n`);
/** For programs alone: a row for each line of the log would be most of the file. */
const plain = (value: unknown) => strToU8(`${JSON.stringify(value)}\n`);

/**
 * Writes a whole trial as a zip. The same trial always gives the same bytes.
 * @param bulk its pictures and its loggers' readings, where they go along
 * @param found its findings, where they go along
 */
export function exportTrial(
  trial: Trial,
  bulk: Bulk = noBulk,
  found: readonly FindingRow[] | null = null,
): Uint8Array {
  const { tables, json, script } = descriptor(trial);
  const files: Zippable = {
    'README.txt': strToU8(README),
    'datapackage.json': pretty(json),
    ...trialFiles(trial),
    'findings.R': strToU8(script),
  };
  if (found) files['findings.json'] = pretty({ trial: trial.plan.question, findings: found });
  const csv = Object.fromEntries(tables.map((t) => [`data/${t.name}.csv`, strToU8(t.csv)]));
  Object.assign(files, csv, { [RECORD_FILE]: plain(recordOf(trial.plan, trial.log, csv)) });
  Object.assign(files, bulkFiles(trial, bulk));
  return zipped(files);
}

/** From so many bytes on packing takes longer than people wait: packed lighter, a third larger and twice as quick. */
const LARGE = 10_000_000;

function zipped(files: Zippable): Uint8Array {
  const size = Object.values(files).reduce((n, f) => n + (f instanceof Uint8Array ? f.length : 0), 0);
  return zipSync(files, { mtime: '1980-01-02T00:00:00', level: size > LARGE ? 2 : 6 });
}

/** What a trial is read back from. */
function trialFiles(trial: Trial): Zippable {
  const files: Zippable = {
    'plan.json': pretty({ palazzo: 'trial', version: FILE_VERSION, plan: trial.plan, review: trial.review }),
    'log.json': byLine(trial.log),
  };
  if (trial.key) files['key.json'] = pretty(trial.key);
  if (trial.sealedAs) files['sealed-plan.json'] = pretty(trial.sealedAs);
  if (trial.conflicts.length > 0) files['conflicts.json'] = pretty(trial.conflicts);
  return files;
}

/** Pictures are compressed already. */
const bulkFiles = (trial: Trial, bulk: Bulk): Zippable =>
  Object.fromEntries(
    Object.entries(bulkEntries(trial, bulk)).map(([name, bytes]) => [
      name,
      name.startsWith('photos/') ? [bytes, { level: 0 }] : bytes,
    ]),
  );

/**
 * A trial for another device of the same bench: what it is read back from, without the tables for people.
 * @param bulk pictures and readings that go along
 */
export const exportForDevice = (trial: Trial, bulk: Bulk = noBulk): Uint8Array =>
  zipped({ ...trialFiles(trial), ...bulkFiles(trial, bulk) });

export type ImportError =
  | { tag: 'notZip' }
  | { tag: 'backup' }
  | { tag: 'missingFile'; file: string }
  | { tag: 'invalid'; message: string };

export function describeImportError(e: ImportError): string {
  switch (e.tag) {
    case 'notZip':
      return 'This file isn’t a zip that can be opened. Choose the .zip that a trial was exported to.';
    case 'backup':
      return 'This is the backup of a whole bench, not one trial: “Bring a backup back” takes it.';
    case 'missingFile':
      return `The zip holds no ${e.file}: it isn’t an exported trial, or part of it is lost.`;
    case 'invalid':
      return `The trial in this file can’t be read: ${e.message}`;
  }
}

/** The files a trial is read back from; tables are views. */
const readBack = ['plan.json', 'log.json', 'key.json', 'sealed-plan.json', 'conflicts.json'];

/** A trial of 100,000 lines has an eighth of this; a zip that claims more isn't unpacked. */
const MOST_BYTES = 200_000_000;
/** JSON of a log packs to a tenth; what claims to unpack to so many times its size is made to fill memory. */
const MOST_RATIO = 300;

function parseJson(bytes: Uint8Array | undefined, file: string): Result<unknown, ImportError> {
  if (!bytes) return err({ tag: 'missingFile', file });
  const read = safeJson(strFromU8(bytes));
  if (read.ok) return read;
  const why = read.error === 'tooDeep' ? 'is nested deeper than any real one' : 'is not JSON';
  return err({ tag: 'invalid', message: `${file} ${why}.` });
}

const firstIssue = (error: z.ZodError) => {
  const issue = error.issues[0]!;
  return `${issue.path.join('.') || 'file'}: ${plainIssue(issue)}`;
};

/** Reads a trial back from its zip; the identical trial, or what is wrong with the file. */
export function importTrial(zip: Uint8Array): Result<Trial, ImportError> {
  let files: Record<string, Uint8Array>;
  let isBackup = false;
  try {
    let total = 0;
    files = unzipSync(zip, {
      filter: (f) => {
        if (f.name === 'backup.json') isBackup = true;
        if (!readBack.includes(f.name)) return false;
        total += f.originalSize;
        return total < MOST_BYTES && f.originalSize <= 100_000 + MOST_RATIO * f.size;
      },
    });
  } catch {
    return err({ tag: 'notZip' });
  }
  if (isBackup) return err({ tag: 'backup' });
  const plan = parseJson(files['plan.json'], 'plan.json');
  if (!plan.ok) return plan;
  const log = parseJson(files['log.json'], 'log.json');
  if (!log.ok) return log;
  const optional = (file: string, absent: unknown) =>
    files[file] ? parseJson(files[file], file) : ok(absent);
  const key = optional('key.json', null);
  if (!key.ok) return key;
  const sealedAs = optional('sealed-plan.json', null);
  if (!sealedAs.ok) return sealedAs;
  const conflicts = optional('conflicts.json', []);
  if (!conflicts.ok) return conflicts;
  const current = migrate(
    typeof plan.value === 'object' && plan.value !== null
      ? {
          ...plan.value,
          log: log.value,
          key: key.value,
          sealedAs: sealedAs.value,
          conflicts: conflicts.value,
        }
      : plan.value,
  );
  if (!current.ok) return err({ tag: 'invalid', message: describeMigrationError(current.error) });
  const trial = Trial.safeParse(current.value);
  return trial.success ? ok(trial.data) : err({ tag: 'invalid', message: firstIssue(trial.error) });
}
