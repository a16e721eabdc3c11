import { decidedUnits } from '../decided';
import type { Room } from '../room';

export const room: Room = {
  id: 'verdict',
  title: 'Verdict',
  order: 110,
  progress: ({ state, blind }) => {
    const { decided, all } = decidedUnits(state);
    return {
      howFar: blind && all ? 'closed' : '',
      progress: all && !blind ? 'full' : decided > 0 ? 'half' : 'none',
      hint:
        blind && decided > 0
          ? 'Measured, codes closed'
          : decided > 0
            ? 'Ready to read'
            : 'Nothing to judge yet',
    };
  },
};
