import { LIBRARY_VERSION, describeMigrationError, libraryMigrations, migrate } from '../model/migrations';
import { LibraryFile, type Product } from '../model/product';
import { type Result, err, ok } from '../model/result';
import { plainIssue } from './plainIssue';
import { safeJson } from './safeJson';

/** Characters of a library of thousands of products. */
const MOST_TEXT = 50_000_000;

/** The library as JSON text. */
export function libraryToFile(products: readonly Product[]): string {
  const file: LibraryFile = { palazzo: 'library', version: LIBRARY_VERSION, products: [...products] };
  return `${JSON.stringify(file, null, 2)}\n`;
}

/** Reads a library back; the error is a plain line. */
export function libraryFromFile(text: string): Result<Product[], string> {
  if (text.length > MOST_TEXT) return err('This file is larger than any real library.');
  if (text.startsWith('PK'))
    return err('This is a zip, not a library file: trials and backups of a bench come as one.');
  const json = safeJson(text);
  if (!json.ok) return err('This isn’t a library file: it holds no JSON that can be read.');
  const current = migrate(json.value, libraryMigrations, LIBRARY_VERSION);
  if (!current.ok) return err(describeMigrationError(current.error, LIBRARY_VERSION));
  const file = LibraryFile.safeParse(current.value);
  if (!file.success) {
    const issue = file.error.issues[0]!;
    return err(`${issue.path.join('.') || 'file'}: ${plainIssue(issue)}`);
  }
  return ok(file.data.products);
}
