import { roundProgress } from '~core/schedule/rounds';
import type { Room } from '../room';

export const room: Room = {
  id: 'rounds',
  title: 'Rounds',
  order: 70,
  progress: ({ state, today }) => {
    const rounds = roundProgress(state, today);
    const open = rounds.find((r) => r.status === 'due' || r.status === 'overdue');
    const done = rounds.filter((r) => r.status === 'done').length;
    return {
      howFar:
        open && state.seal
          ? `${open.unitsDone}/${open.unitsWanted}`
          : rounds.length > 0
            ? `${done}/${rounds.length}`
            : '',
      progress:
        rounds.length > 0 && done === rounds.length
          ? 'full'
          : state.observations.length > 0
            ? 'half'
            : 'none',
      hint: open ? `${open.round.name} is ${open.status}` : `${done} of ${rounds.length} rounds done`,
    };
  },
};
