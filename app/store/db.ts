import Dexie, { type EntityTable, type Table } from 'dexie';
import type { Entry } from '~core/model/entry';
import type { Plan } from '~core/model/plan';
import type { Product } from '~core/model/product';
import { migrate, productFrom1 } from '~core/model/migrations';
import type { BlindKey, ReviewText } from '~core/model/trial';

export type BenchName = 'demo' | 'own';

export interface TrialRow {
  id: string;
  plan: Plan;
  review: ReviewText;
  createdAt: string;
}

export interface EntryRow {
  trialId: string;
  id: string;
  entry: Entry;
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
  key?: BlindKey;
}

/** The key of a blind trial's codes, apart from its plan. */
export interface KeyRow {
  trialId: string;
  key: BlindKey;
}

/** One bench: the demo's and the user's own are two separate databases. */
export class BenchDb extends Dexie {
  products!: EntityTable<Product, 'id'>;
  trials!: EntityTable<TrialRow, 'id'>;
  entries!: Table<EntryRow, [string, string]>;
  bin!: EntityTable<BinRow, 'id'>;
  keys!: EntityTable<KeyRow, 'trialId'>;
  settings!: Table<{ key: string; value: string }, string>;

  constructor(name: BenchName) {
    super(`palazzo-${name}`);
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
            const current = migrate({ version: 1, plan: row.plan });
            if (current.ok) row.plan = current.value.plan as Plan;
          }),
      );
    this.version(3).upgrade(async (tx) => {
      await tx
        .table('trials')
        .toCollection()
        .modify((row: TrialRow) => {
          const current = migrate({ version: 2, plan: row.plan });
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
          const current = row.trial && migrate({ version: 2, plan: row.trial.plan });
          if (row.trial && current?.ok) row.trial.plan = current.value.plan as Plan;
        });
    });
  }
}
