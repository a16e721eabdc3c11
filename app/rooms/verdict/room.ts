import { decidedUnits } from '../decided';
import type { Room } from '../room';

export const room: Room = {
  id: 'verdict',
  title: 'Verdict',
  order: 110,
  progress: ({ state }) => {
    const { decided, all } = decidedUnits(state);
    return {
      howFar: '',
      progress: all ? 'full' : decided > 0 ? 'half' : 'none',
      hint: decided > 0 ? 'Ready to read' : 'Nothing to judge yet',
    };
  },
};
