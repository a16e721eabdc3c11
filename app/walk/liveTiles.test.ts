import { expect, it } from 'vitest';
import type { UnitId } from '~core/model/ids';
import { LiveTiles } from './liveTiles';

const [one, two, three] = ['u1', 'u2', 'u3'] as UnitId[];

it('tells a tile of its own changes alone, and what a tile shows is the same object until it changes', () => {
  const live = new LiveTiles();
  const told: string[] = [];
  for (const id of [one!, two!, three!]) live.subscribe(id, () => told.push(id));
  live.set({ current: one!, typed: '1', pending: new Map() });
  const shown = live.of(one!);
  live.set({ current: one!, typed: '1', pending: new Map() });
  expect(live.of(one!)).toBe(shown);
  expect(told).toEqual(['u1']);
  // Kept and gone on: the first has its value on the way, the second is current.
  live.set({ current: two!, typed: '', pending: new Map([[one!, { value: 12.5, kept: false }]]) });
  expect(told.slice(1).sort()).toEqual(['u1', 'u2']);
  expect(live.of(one!)).toEqual({ isCurrent: false, typed: '', pending: { value: 12.5, kept: false } });
  live.set({ current: two!, typed: '', pending: new Map([[one!, { value: 12.5, kept: true }]]) });
  expect(told.slice(3)).toEqual(['u1']);
  live.set({ current: two!, typed: '', pending: new Map() });
  expect(live.of(one!)).toEqual(live.of(three!));
  expect(told).not.toContain('u3');
});

it('what is committed stands as kept at once, and stays so until the log shows it', () => {
  const live = new LiveTiles();
  const sent = new Map([[one!, { value: 12.5, kept: false }]]);
  live.set({ current: two!, typed: '', pending: sent });
  live.keep(one!, 7);
  expect(live.of(one!).pending).toEqual({ value: 12.5, kept: false });
  live.keep(one!, 12.5);
  expect(live.of(one!).pending).toEqual({ value: 12.5, kept: true });
  live.set({ current: two!, typed: '3', pending: sent });
  expect(live.of(one!).pending?.kept).toBe(true);
  // Another value of the same unit is on its way, not kept.
  live.set({ current: two!, typed: '3', pending: new Map([[one!, { value: 13, kept: false }]]) });
  expect(live.of(one!).pending).toEqual({ value: 13, kept: false });
});

it('what was just sent stands as being kept before the screen knows of it, and goes when it is refused', () => {
  const live = new LiveTiles();
  const none = { current: two!, typed: '', pending: new Map() };
  live.send(one!, 12.5);
  live.set(none);
  expect(live.of(one!).pending).toEqual({ value: 12.5, kept: false });
  live.keep(one!, 12.5);
  live.set(none);
  expect(live.of(one!).pending).toEqual({ value: 12.5, kept: true });
  // Typed over before the first is through: what settles the first leaves the second.
  live.send(one!, 13);
  live.settle(one!, 12.5);
  live.set(none);
  expect(live.of(one!).pending).toEqual({ value: 13, kept: false });
  live.settle(one!, 13);
  live.set(none);
  expect(live.of(one!).pending).toBeUndefined();
});
