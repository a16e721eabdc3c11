import { LIBRARY_VERSION, describeMigrationError, libraryMigrations, migrate } from '../model/migrations';
import { LibraryFile, type Product } from '../model/product';
import { type Result, err, ok } from '../model/result';

/** The library as JSON text. */
export function libraryToFile(products: readonly Product[]): string {
  const file: LibraryFile = { palazzo: 'library', version: LIBRARY_VERSION, products: [...products] };
  return `${JSON.stringify(file, null, 2)}\n`;
}

/** Reads a library back; the error is a plain line. */
export function libraryFromFile(text: string): Result<Product[], string> {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return err('This isn’t a library file: it holds no JSON.');
  }
  const current = migrate(json, libraryMigrations, LIBRARY_VERSION);
  if (!current.ok) return err(describeMigrationError(current.error, LIBRARY_VERSION));
  const file = LibraryFile.safeParse(current.value);
  if (!file.success) {
    const issue = file.error.issues[0]!;
    return err(`${issue.path.join('.') || 'file'}: ${issue.message}`);
  }
  return ok(file.data.products);
}
