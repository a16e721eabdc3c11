import { isDone, sessionsOf } from '~core/sensory/sessions';
import type { Room } from '../room';

export const room: Room = {
  id: 'panel',
  title: 'Panel',
  order: 85,
  progress: ({ state }) => {
    const sessions = sessionsOf(state);
    const revealed = sessions.filter((s) => s.revealed).length;
    const last = sessions.at(-1);
    if (!last) return { howFar: '', progress: 'none', hint: 'No tasting was planned' };
    const tasters = last.session.tasters.length;
    const done = last.session.tasters.filter((_, t) => isDone(last, t)).length;
    return {
      howFar: last.revealed ? `${revealed}` : `${done}/${tasters}`,
      progress: revealed === sessions.length ? 'full' : 'half',
      hint: last.revealed
        ? `${revealed} ${revealed === 1 ? 'session' : 'sessions'} revealed`
        : `${done} of ${tasters} tasters done`,
    };
  },
};
