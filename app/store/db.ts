import Dexie, { type EntityTable, type Table } from 'dexie';
import type { Entry } from '~core/model/entry';
import type { Plan } from '~core/model/plan';
import type { Product } from '~core/model/product';
import type { ReviewText } from '~core/model/trial';

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
}

/** One bench: the demo's and the user's own are two separate databases. */
export class BenchDb extends Dexie {
  products!: EntityTable<Product, 'id'>;
  trials!: EntityTable<TrialRow, 'id'>;
  entries!: Table<EntryRow, [string, string]>;
  bin!: EntityTable<BinRow, 'id'>;
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
  }
}
