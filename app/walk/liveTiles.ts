import type { UnitId } from '~core/model/ids';
import type { PendingValue } from './usePending';

/** What changes on tiles with every key. */
export interface Live {
  current: UnitId | null;
  /** what stands on the pad now, shown on the current unit */
  typed: string;
  pending: ReadonlyMap<UnitId, PendingValue>;
}

interface LiveTile {
  isCurrent: boolean;
  typed: string;
  pending: PendingValue | undefined;
}

const atRest: LiveTile = { isCurrent: false, typed: '', pending: undefined };

const same = (a: LiveTile, b: LiveTile): boolean =>
  a.isCurrent === b.isCurrent &&
  a.typed === b.typed &&
  a.pending?.value === b.pending?.value &&
  a.pending?.kept === b.pending?.kept;

/** What the tiles of one plan show beside the log; each hears of its own changes alone. */
export class LiveTiles {
  private readonly tiles = new Map<UnitId, LiveTile>();
  private readonly listeners = new Map<UnitId, () => void>();
  /** those whose value is in the database, though the screen wasn't worked out anew yet */
  private readonly committed = new Map<UnitId, number>();

  /** those whose value was sent, though the screen doesn't know yet */
  private readonly sent = new Map<UnitId, number>();

  of = (id: UnitId): LiveTile => this.tiles.get(id) ?? atRest;

  subscribe(id: UnitId, tell: () => void): () => void {
    this.listeners.set(id, tell);
    return () => {
      if (this.listeners.get(id) === tell) this.listeners.delete(id);
    };
  }

  /** A value is on its way to the log. */
  send(id: UnitId, value: number): void {
    this.sent.set(id, value);
    this.committed.delete(id);
    this.put(id, { ...this.of(id), typed: '', pending: { value, kept: false } });
  }

  /** A value has arrived, and the screen was worked out with it; or it was refused. */
  settle(id: UnitId, value: number): void {
    if (this.sent.get(id) !== value) return;
    this.sent.delete(id);
    this.committed.delete(id);
    this.put(id, { ...this.of(id), pending: undefined });
  }

  /** A value is in the database. */
  keep(id: UnitId, value: number): void {
    const tile = this.of(id);
    if (tile.pending?.value !== value) return;
    this.committed.set(id, value);
    this.put(id, { ...tile, pending: { value, kept: true } });
  }

  set({ current, typed, pending }: Live): void {
    for (const id of this.committed.keys())
      if (!pending.has(id) && !this.sent.has(id)) this.committed.delete(id);
    const touched = new Set<UnitId>([
      ...this.tiles.keys(),
      ...pending.keys(),
      ...(current === null ? [] : [current]),
    ]);
    for (const id of touched) {
      const isCurrent = id === current;
      const newest = this.sent.get(id);
      const sent = newest === undefined ? pending.get(id) : { value: newest, kept: false };
      const kept = sent && { ...sent, kept: sent.kept || this.committed.get(id) === sent.value };
      this.put(id, { isCurrent, typed: isCurrent ? typed : '', pending: kept });
    }
  }

  private put(id: UnitId, next: LiveTile): void {
    if (same(this.of(id), next)) return;
    if (same(next, atRest)) this.tiles.delete(id);
    else this.tiles.set(id, next);
    this.listeners.get(id)?.();
  }
}
