/** A value of a plan, a form or a file. */
export type Json =
  | string
  | number
  | boolean
  | null
  | undefined
  | readonly Json[]
  | { readonly [key: string]: Json };

/** Something both sides changed, and not to the same. */
export interface MergeConflict {
  /** as a form names its fields: treatments.2.name */
  path: string;
  mine: Json;
  theirs: Json;
}

interface Merged<T> {
  /** both sides' changes; where they disagree, mine */
  value: T;
  conflicts: MergeConflict[];
  /** something of theirs came in */
  took: boolean;
}

type Thing = { readonly [key: string]: Json };

const isThing = (v: Json): v is Thing => typeof v === 'object' && v !== null && !Array.isArray(v);
const isList = (v: Json): v is readonly Json[] => Array.isArray(v);
const idOf = (v: Json): string | undefined => (isThing(v) && typeof v.id === 'string' ? v.id : undefined);

/** Whether two values say the same. */
export function sameJson(a: Json, b: Json): boolean {
  if (a === b) return true;
  if (isList(a) && isList(b)) return a.length === b.length && a.every((x, i) => sameJson(x, b[i]));
  if (!isThing(a) || !isThing(b)) return false;
  const keys = new Set([...Object.keys(a), ...Object.keys(b)]);
  return [...keys].every((k) => sameJson(a[k], b[k]));
}

/**
 * Two changes of one thing put together, part by part: what one side alone changed is taken; what both changed to
 * the same is that; the rest is a conflict, in which mine stands. Things in lists are told apart by their `id`;
 * lists without ids are one part.
 *
 * @param base what both started from
 * @example mergeChanges({ a: 1, b: 1 }, { a: 2, b: 1 }, { a: 1, b: 3 }).value // { a: 2, b: 3 }
 */
export function mergeChanges<T extends Json>(base: T, mine: T, theirs: T): Merged<T>;
export function mergeChanges(base: Json, mine: Json, theirs: Json): Merged<Json> {
  const conflicts: MergeConflict[] = [];
  const value = merge(base, mine, theirs, '', conflicts);
  return { value, conflicts, took: !sameJson(value, mine) };
}

function merge(base: Json, mine: Json, theirs: Json, path: string, conflicts: MergeConflict[]): Json {
  if (sameJson(mine, theirs) || sameJson(theirs, base)) return mine;
  if (sameJson(mine, base)) return theirs;
  if (isThing(mine) && isThing(theirs)) {
    return mergeThings(isThing(base) ? base : {}, mine, theirs, path, conflicts);
  }
  if (isList(mine) && isList(theirs) && [...mine, ...theirs].every((v) => idOf(v) !== undefined)) {
    return mergeLists(isList(base) ? base : [], mine, theirs, path, conflicts);
  }
  conflicts.push({ path, mine, theirs });
  return mine;
}

const join = (path: string, key: string | number) => (path === '' ? String(key) : `${path}.${key}`);

function mergeThings(
  base: Thing,
  mine: Thing,
  theirs: Thing,
  path: string,
  conflicts: MergeConflict[],
): Thing {
  const out: Record<string, Json> = {};
  for (const key of new Set([...Object.keys(mine), ...Object.keys(theirs)])) {
    const value = merge(base[key], mine[key], theirs[key], join(path, key), conflicts);
    if (value !== undefined) out[key] = value;
  }
  return out;
}

const byId = (list: readonly Json[]) =>
  new Map(list.flatMap((v) => (idOf(v) === undefined ? [] : [[idOf(v)!, v]])));

/**
 * Things by their ids: in the order one side gave them, mine where neither or both did, then what the other added; gone
 * where one side removed what the other left alone.
 */
function mergeLists(
  base: readonly Json[],
  mine: readonly Json[],
  theirs: readonly Json[],
  path: string,
  conflicts: MergeConflict[],
): Json[] {
  const [was, own, other] = [byId(base), byId(mine), byId(theirs)];
  const inOrder = (list: ReadonlyMap<string, Json>) =>
    [...list.keys()].filter((id) => was.has(id) && own.has(id) && other.has(id));
  const [before, here, there] = [inOrder(was), inOrder(own), inOrder(other)];
  const theyMoved = !sameJson(there, before);
  const iMoved = !sameJson(here, before);
  if (theyMoved && iMoved && !sameJson(here, there)) conflicts.push({ path, mine, theirs });
  const [first, second] = theyMoved && !iMoved ? [other, own] : [own, other];
  const out: Json[] = [];
  for (const id of new Set([...first.keys(), ...second.keys()])) {
    const at = join(path, out.length);
    const [old, my, their] = [was.get(id), own.get(id), other.get(id)];
    if (my !== undefined && their !== undefined) {
      out.push(merge(old, my, their, at, conflicts));
      continue;
    }
    const left = (my ?? their)!;
    // One side took away what the other left as it was: it is gone. What it changed stays, and is asked about.
    if (old !== undefined && sameJson(left, old)) continue;
    if (old !== undefined) conflicts.push({ path: at, mine: my, theirs: their });
    out.push(left);
  }
  return out;
}
