import { decidedUnits } from '../decided';
import type { Room } from '../room';

export const room: Room = {
  id: 'review',
  title: 'Review',
  order: 120,
  progress: ({ state, reviewWritten }) => ({
    howFar: '',
    progress: reviewWritten && decidedUnits(state).all ? 'full' : reviewWritten ? 'half' : 'none',
    hint: reviewWritten ? 'Begun' : 'Not written yet',
  }),
};
