/** What is typed in forms and not saved, by page and form: a room that breaks down takes its fields with it. */
const typed = new Map<string, unknown>();
/** Pages that broke down: what was typed there is put back. */
const broken = new Set<string>();

const keyOf = (page: string, form: string) => `${page} ${form}`;

/** Remembers what a form holds; undefined once it is saved or put away. */
export function noteTyped(page: string, form: string, values: unknown): void {
  if (values === undefined) typed.delete(keyOf(page, form));
  else typed.set(keyOf(page, form), values);
}

/** Says that a page broke down. @returns whether something typed is kept for it */
export function keepRescued(page: string): boolean {
  const some = [...typed.keys()].some((k) => k.startsWith(`${page} `));
  if (some) broken.add(page);
  return some;
}

/** What was typed in a form of a page that broke down. */
export const rescued = (page: string, form: string): unknown =>
  broken.has(page) ? typed.get(keyOf(page, form)) : undefined;

/** The page stands again, with what was typed in it. */
export const putBack = (page: string): void => void broken.delete(page);
