import { decidedUnits } from '../decided';
import type { Room } from '../room';

export const room: Room = {
  id: 'findings',
  title: 'Findings',
  order: 100,
  progress: ({ state }) => {
    const { decided, all } = decidedUnits(state);
    return {
      howFar: '',
      progress: all ? 'full' : decided > 0 ? 'half' : 'none',
      hint:
        decided > 0
          ? `${decided} of ${state.plan.units.length} have the deciding value`
          : 'Nothing measured yet',
    };
  },
};
