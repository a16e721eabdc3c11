import type { Room } from '../room';

export const room: Room = {
  id: 'rehearsal',
  title: 'Rehearsal',
  order: 50,
  progress: ({ state: { plan, seal } }) => ({
    howFar: '',
    progress: seal ? 'full' : plan.treatments.length > 1 ? 'half' : 'none',
    hint: 'How many units, and what the plan can see',
  }),
};
