import { type Result, err, ok } from '../model/result';

/** The version this build writes. Raise it with every change of the file format, and add a migration. */
export const FILE_VERSION = 1;

export interface Migration {
  /** turns a file of version `from` into one of `from + 1` */
  from: number;
  /** what changed, in a line */
  what: string;
  migrate: (file: Record<string, unknown>) => Record<string, unknown>;
}

/** In order, one for each version but the newest. */
export const trialMigrations: readonly Migration[] = [];

export type MigrationError =
  { tag: 'noVersion' } | { tag: 'newer'; version: number } | { tag: 'noPath'; version: number };

export function describeMigrationError(e: MigrationError): string {
  switch (e.tag) {
    case 'noVersion':
      return 'The file doesn’t say which version of the format it is in.';
    case 'newer':
      return `The file was written by a newer Palazzo (format ${e.version}; this one reads up to ${FILE_VERSION}).`;
    case 'noPath':
      return `There is no way from format ${e.version} to ${FILE_VERSION}.`;
  }
}

/**
 * Brings a file of any earlier version up to the newest.
 * @param file parsed JSON with a whole-number `version`
 */
export function migrate(
  file: unknown,
  migrations: readonly Migration[] = trialMigrations,
  newest: number = FILE_VERSION,
): Result<Record<string, unknown>, MigrationError> {
  if (typeof file !== 'object' || file === null || !('version' in file) || !Number.isInteger(file.version)) {
    return err({ tag: 'noVersion' });
  }
  let current = file as Record<string, unknown>;
  let version = file.version as number;
  if (version > newest) return err({ tag: 'newer', version });
  while (version < newest) {
    const step = migrations.find((m) => m.from === version);
    if (!step) return err({ tag: 'noPath', version });
    current = { ...step.migrate(current), version: version + 1 };
    version += 1;
  }
  return ok(current);
}
