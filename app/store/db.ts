import Dexie, { type EntityTable, type Table } from 'dexie';
import type { Entry } from '~core/log/entry';
import type { BlindKey, ReviewText, Trial } from '~core/log/trial';
import type { SealedAs } from '~core/log/verifySeal';
import { migrate, productFrom1, trialMigrations } from '~core/model/migrations';
import type { PanelKey } from '~core/model/panel';
import type { Plan } from '~core/model/plan';
import type { Product } from '~core/model/product';
import type { Folder } from './folder';
import type { SettledRow } from './settled';
import { type SingleRow, toVersion4, toVersion8 } from './upgrade';

export type BenchName = 'demo' | 'own';

export interface TrialRow {
  id: string;
  plan: Plan;
  review: ReviewText;
  createdAt: string;
  /** the plan in the words it was sealed in, where the format has changed since */
  sealedAs: SealedAs | null;
}

/** How often a trial was changed. It moves with every change, in the same transaction: memory goes by it. */
interface HeadRow {
  id: string;
  /** counts every change */
  rev: number;
  /** `rev` of the last change of the plan */
  planRev: number;
}

/** Lines that were written together (`lines.ts`). */
export interface EntryRow {
  trialId: string;
  /** the first line's */
  id: string;
  /** the change of the trial that brought the lines */
  rev: number;
  lines: Entry[];
}

/**
 * A line of another copy that waits for a word: it shares its id with a line here and says something else, or whoever
 * brought it may not bring such a line unasked.
 */
export interface ConflictRow {
  trialId: string;
  id: string;
  /** SHA-256 of the other line */
  sha256: string;
  other: Entry;
  /** what the reviewer decided; null: not yet */
  settled: 'kept' | 'taken' | null;
  /** of a line that isn't here: why it wasn't taken, and who brought it */
  why?: string;
  from?: string;
}

/** Something deleted that can still be brought back. */
export interface BinRow {
  id: string;
  kind: 'product' | 'trial';
  title: string;
  deletedAt: string;
  product?: Product;
  trial?: TrialRow;
  entries?: EntryRow[];
  conflicts?: ConflictRow[];
  key?: BlindKey;
}

/** The key of a blind trial's codes, apart from its plan. */
interface KeyRow {
  trialId: string;
  key: BlindKey;
}

/** A change of a plan that its tab can take back. */
interface StepRow {
  seq?: number;
  trialId: string;
  tab: string;
  before: Plan;
  after: Plan;
}

/** Bulk data that a line of the log points to by its hash: pictures, files. */
export interface BlobRow {
  sha256: string;
  trialId: string;
  type: string;
  bytes: Uint8Array;
}

/** A stretch of a logger's readings; the log keeps the series' span and hash. */
export interface SeriesChunk {
  seriesId: string;
  chunk: number;
  trialId: string;
  /** first and last reading, ms since 1970 */
  from: number;
  to: number;
  times: Float64Array;
  /** one array a column */
  columns: Float64Array[];
}

/** What is in the cups of a panel session, on the device of whoever serves; it joins the log at the reveal. */
interface PanelKeyRow {
  trialId: string;
  sessionId: string;
  key: PanelKey;
}

/** Another plan of a trial that is here, as another device or a file has it: shown beside ours until one is chosen. */
interface ClashRow {
  trialId: string;
  theirs: Trial;
  /** where it came from, in words */
  from: string;
  at: string;
}

/** A letter of another device that wasn't taken in, with its reason: tried again, or thrown away. */
export interface LetterRow {
  seq?: number;
  /** the peer in the letter-box, and what it is called */
  peer: string;
  from: string;
  /** its number in the box, by which it is answered */
  letter: string;
  at: string;
  why: string;
  /** as it came out of its seal; null: it can't be tried again */
  content: Uint8Array | null;
}

/** The database of this build. A database with a higher number was written by a newer one. */
export const DATABASE_VERSION = 8;

/** One bench: the demo's and the user's own are two separate databases. */
export class BenchDb extends Dexie {
  products!: EntityTable<Product, 'id'>;
  trials!: EntityTable<TrialRow, 'id'>;
  heads!: EntityTable<HeadRow, 'id'>;
  entries!: Table<EntryRow, [string, string]>;
  conflicts!: Table<ConflictRow, [string, string, string]>;
  bin!: EntityTable<BinRow, 'id'>;
  keys!: EntityTable<KeyRow, 'trialId'>;
  steps!: Table<StepRow, number>;
  blobs!: Table<BlobRow, string>;
  series!: Table<SeriesChunk, [string, number]>;
  panelKeys!: Table<PanelKeyRow, [string, string]>;
  clashes!: EntityTable<ClashRow, 'trialId'>;
  handles!: EntityTable<{ key: string; folder: Folder }, 'key'>;
  letters!: Table<LetterRow, number>;
  settled!: EntityTable<SettledRow, 'id'>;
  settings!: Table<{ key: string; value: string }, string>;

  constructor(name: BenchName) {
    // A value is kept when it is on the disk, not when the browser means to write it.
    super(`palazzo-${name}`, { chromeTransactionDurability: 'strict' });
    this.version(1).stores({
      products: 'id',
      trials: 'id',
      entries: '[trialId+id], trialId',
      bin: 'id',
      settings: 'key',
    });
    // Plans are brought up to the file format of this build, as imported ones are.
    this.version(2)
      .stores({ keys: 'trialId' })
      .upgrade((tx) =>
        tx
          .table('trials')
          .toCollection()
          .modify((row: TrialRow) => {
            row.sealedAs = { version: 1, plan: row.plan };
            const current = migrate({ version: 1, plan: row.plan }, trialMigrations, 2);
            if (current.ok) row.plan = current.value.plan as Plan;
          }),
      );
    this.version(3).upgrade(async (tx) => {
      await tx
        .table('trials')
        .toCollection()
        .modify((row: TrialRow) => {
          row.sealedAs ??= { version: 2, plan: row.plan };
          const current = migrate({ version: 2, plan: row.plan }, trialMigrations, 3);
          if (current.ok) row.plan = current.value.plan as Plan;
        });
      const products = tx.table('products').toCollection();
      await products.modify((p, place: { value: unknown }) => {
        place.value = productFrom1(p as Record<string, unknown>);
      });
      await tx
        .table('bin')
        .toCollection()
        .modify((row: BinRow) => {
          if (row.product) row.product = productFrom1(row.product as never) as never;
          const current = row.trial && migrate({ version: 2, plan: row.trial.plan }, trialMigrations, 3);
          if (row.trial && current?.ok) row.trial.plan = current.value.plan as Plan;
        });
    });
    this.version(4)
      .stores({
        heads: 'id',
        entries: '[trialId+id], [trialId+rev], trialId',
        conflicts: '[trialId+id+sha256], trialId',
        steps: '++seq, [trialId+tab], trialId',
        blobs: 'sha256, trialId',
        series: '[seriesId+chunk], trialId',
      })
      .upgrade(async (tx) => {
        const [trials, entries, heads] = [tx.table('trials'), tx.table('entries'), tx.table('heads')];
        for (const row of (await trials.toArray()) as TrialRow[]) {
          const lines = (await entries.where('trialId').equals(row.id).toArray()) as SingleRow[];
          const now = toVersion4(row, lines);
          await trials.put(now.row);
          await entries.bulkPut(now.lines);
          await heads.put({ id: row.id, rev: 1, planRev: 1 } satisfies HeadRow);
        }
        await tx
          .table('bin')
          .toCollection()
          .modify((row: BinRow) => {
            if (!row.trial) return;
            const now = toVersion4(row.trial, (row.entries ?? []) as never);
            row.trial = now.row;
            row.entries = now.lines as never;
          });
      });
    this.version(5).stores({ panelKeys: '[trialId+sessionId], trialId' });
    this.version(6).stores({ clashes: 'trialId', handles: 'key' });
    this.version(7).stores({ letters: '++seq' });
    this.version(8)
      .stores({ settled: 'id' })
      .upgrade(async (tx) => {
        const entries = tx.table('entries');
        for (const id of await entries.orderBy('trialId').uniqueKeys()) {
          const own = entries.where('trialId').equals(id);
          const rows = toVersion8((await own.toArray()) as SingleRow[]);
          await own.delete();
          await entries.bulkAdd(rows);
        }
        await tx
          .table('bin')
          .toCollection()
          .modify((row: BinRow) => {
            if (row.entries) row.entries = toVersion8(row.entries as never);
          });
      });
  }

  /** The tables a change of a trial reads and writes. */
  get ofChanges() {
    return [
      this.trials,
      this.heads,
      this.entries,
      this.keys,
      this.panelKeys,
      this.steps,
      this.products,
      this.settings,
    ];
  }

  /** The tables that hold a trial, for transactions over all of it. */
  get ofTrials() {
    return [
      this.trials,
      this.heads,
      this.entries,
      this.conflicts,
      this.keys,
      this.panelKeys,
      this.steps,
      this.blobs,
      this.series,
      this.clashes,
      this.bin,
      this.settled,
      this.products,
      this.settings,
    ];
  }
}
