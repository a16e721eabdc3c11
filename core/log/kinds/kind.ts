import { z } from 'zod';
import { EntryId } from '../../model/ids';
import type { Cell, Column } from '../../model/column';
import type { Right } from '../../model/right';
import type { LogWords } from '../words';

/** What every line of the log carries beside what it says. Its bytes never change once it is written. */
export const stamp = {
  id: EntryId,
  /** when it happened, UTC or with an offset */
  at: z.iso.datetime({ offset: true }),
  /** when it was written down, by the clock of the device: shown, never used to decide which line is newer */
  recordedAt: z.iso.datetime({ offset: true }),
  /** minutes by which local time was ahead of UTC where it was logged; null: not known (older files) */
  offsetMin: z.number().int().min(-1080).max(1080).nullable(),
  by: z.string().max(80),
  /** the device it was written on; empty in older files */
  device: z.string().max(40),
  /**
   * Logical clock (Lamport 1978): one more than the highest known on the device when the line was written. A
   * line that answers another always has the higher counter, whatever the clocks on the wall say.
   */
  counter: z.number().int().min(0),
};
export type Stamp = z.infer<z.ZodObject<typeof stamp>>;

/** A line after all corrections, as far as words and tables go. */
export interface Standing<Body> {
  id: EntryId;
  body: Body;
  at: string;
  offsetMin: number | null;
  by: string;
}

/** Any line, whatever its kind. */
type AnyLine = Standing<{ kind: string }>;

/** The table a kind has in the exported package. */
interface KindTable<Body, Row> {
  name: string;
  title: string;
  rows: (line: Standing<Body>, words: LogWords) => Row[];
  columns: readonly Column<Row>[];
}

/** A table with its rows worked out. */
export interface FilledTable {
  name: string;
  title: string;
  columns: readonly { name: string; type: Column<never>[1]; description: string }[];
  rows: Cell[][];
}

/** Whether whoever wrote a line can take it back, and which other lines go with it. */
interface TakeBack<Body> {
  allowed: boolean;
  /** lines that mean nothing without this one */
  with?: (body: Body, all: readonly AnyLine[]) => EntryId[];
}

type Shape = z.ZodRawShape & { kind: z.ZodLiteral<string> };
type Body<S extends Shape> = z.infer<z.ZodObject<S>>;

/** A body with the stamp every line carries. */
const stamped = <S extends z.ZodRawShape>(body: z.ZodObject<S>) => z.object({ ...body.shape, ...stamp });

interface KindSpec<S extends Shape, Row> {
  body: z.ZodObject<S>;
  /** what happened, as the log’s first word: Measured, Weighed … */
  label: string;
  /** what another device or a file must be allowed to, that it may bring such a line unasked */
  right: Right;
  describe: (body: Body<S>, words: LogWords) => string;
  /**
   * Of lines that tell what is in a code's bottle: what may be said of them while the codes are closed; null for
   * one that tells nothing
   */
  underCodes?: (body: Body<S>) => string | null;
  takeBack: TakeBack<Body<S>>;
  table: KindTable<Body<S>, Row>;
}

/**
 * One kind of line: what it says, how it reads, how it is taken back, its table in the package. Adding a kind
 * is adding a file in this folder and naming it in `index.ts`.
 */
export function entryKind<S extends Shape, Row>({
  body,
  label,
  right,
  describe,
  underCodes = () => null,
  takeBack,
  table,
}: KindSpec<S, Row>) {
  const kind = body.shape.kind.value;
  const isOwn = (other: { kind: string }): other is Body<S> & { kind: string } => other.kind === kind;
  return {
    label,
    right,
    body,
    /** body and stamp: the line as it is stored */
    line: stamped(body),
    canTakeBack: takeBack.allowed,
    /** the line in words */
    say: (own: { kind: string }, words: LogWords): string =>
      isOwn(own) ? ((words.hides ? underCodes(own) : null) ?? describe(own, words)) : '',
    /** it tells what is in a code's bottle */
    tells: (own: { kind: string }): boolean => isOwn(own) && underCodes(own) !== null,
    /** lines that are taken back together with this one */
    goesWith: (own: { kind: string }, all: readonly AnyLine[]): EntryId[] =>
      isOwn(own) ? (takeBack.with?.(own, all) ?? []) : [],
    /** this kind’s table of these lines; those of other kinds are passed over */
    fill: (lines: readonly AnyLine[], words: LogWords): FilledTable => ({
      name: table.name,
      title: table.title,
      columns: table.columns.map(([name, type, description]) => ({ name, type, description })),
      rows: lines
        .flatMap((line) => (isOwn(line.body) ? table.rows({ ...line, body: line.body }, words) : []))
        .map((row) => table.columns.map(([, , , value]) => value(row))),
    }),
  };
}
