import type { FieldConflict } from './schemaFields';

/** A field both tabs changed, as it is asked about. */
export interface Clash {
  path: string;
  /** what it is called on the screen */
  what: string;
  mine: string;
  theirs: string;
  settle: (as: 'mine' | 'theirs') => void;
}

const isThing = (v: unknown): v is Record<string, unknown> =>
  typeof v === 'object' && v !== null && !Array.isArray(v);

const nameOf = (thing: unknown): string | undefined =>
  isThing(thing)
    ? ['name', 'text', 'what']
        .map((k) => thing[k])
        .find((v): v is string => typeof v === 'string' && v !== '')
    : undefined;

/** What a value is called in a sentence. */
export const sayValue = (value: unknown): string =>
  value === undefined
    ? 'taken away'
    : value === '' || value === null
      ? 'nothing'
      : typeof value === 'object'
        ? (nameOf(value) ?? 'changed')
        : `“${String(value)}”`;

const inWords = (key: string) =>
  key
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .replace(/^./, (c) => c.toUpperCase())
    .toLowerCase();

/** The field of the screen a path is about: the very one, or the first within it. */
export const fieldAt = (path: string): HTMLElement | undefined =>
  document.getElementsByName(path)[0] ??
  document.querySelector<HTMLElement>(`[name^="${path}."]`) ??
  undefined;

/**
 * What a path is called: by the label of its field and the names of what it lies in.
 * @param form values of the form
 */
export function sayPath(path: string, form: unknown): string {
  const keys = path.split('.');
  const around: string[] = [];
  let at: unknown = form;
  for (const key of keys) {
    at = isThing(at) || Array.isArray(at) ? (at as Record<string, unknown>)[key] : undefined;
    const name = nameOf(at);
    if (name !== undefined) around.push(name);
  }
  const own = document.getElementsByName(path)[0] as HTMLInputElement | undefined;
  const label = own?.labels?.[0]?.textContent?.replace(/\s*\*?\s*$/, '') || own?.getAttribute('aria-label');
  const last = keys.at(-1)!;
  const fieldName = label ?? (/^\d+$/.test(last) ? '' : inWords(last));
  const of = around.filter((n) => n !== fieldName).join(', ');
  return fieldName === '' ? of || inWords(keys[0]!) : of === '' ? fieldName : `${fieldName} (${of})`;
}

/** The list with one thing less or more, and where paths into it then lie. */
export function withoutItem(path: string, conflicts: readonly FieldConflict[]) {
  const cut = path.lastIndexOf('.');
  const [list, index] = [path.slice(0, cut), Number(path.slice(cut + 1))];
  const moved = conflicts.map((c) => {
    const rest = c.path.startsWith(`${list}.`) ? c.path.slice(list.length + 1).split('.') : null;
    if (!rest || !(Number(rest[0]) > index)) return c;
    return { ...c, path: [list, Number(rest[0]) - 1, ...rest.slice(1)].join('.') };
  });
  return { list, index, conflicts: moved };
}
