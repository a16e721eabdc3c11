import type { Room } from '../room';

export const room: Room = {
  id: 'rehearsal',
  title: 'Rehearsal',
  order: 50,
  // Nothing is kept of a rehearsal, so it is never called done.
  progress: () => ({
    howFar: '',
    progress: 'none',
    hint: 'How many units, and what the plan can see; as often as you like',
  }),
};
