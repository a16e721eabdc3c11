import type { Room, RoomContext, RoomProgress } from './room';

const modules = import.meta.glob<{ room: Room }>('./*/room.ts', { eager: true });

/** Every room of a trial, in the order of the work. */
export const rooms: readonly Room[] = Object.values(modules)
  .map((m) => m.room)
  .sort((a, b) => a.order - b.order);

export interface RoomStep extends RoomProgress {
  room: string;
  name: string;
}

/** The steps of the list of rooms with how far each is and what is missing, from plan and log. */
export const roomSteps = (context: RoomContext): RoomStep[] =>
  rooms.map((r) => ({ room: r.id, name: r.title, ...r.progress(context) }));
