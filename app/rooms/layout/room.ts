import { planProgress } from '../planProgress';
import type { Room } from '../room';

export const room: Room = {
  id: 'layout',
  title: 'Layout',
  order: 30,
  progress: ({ state: { plan, seal } }) => ({
    howFar: seal ? 'sealed' : plan.units.length ? String(plan.units.length) : '',
    progress: seal ? 'full' : plan.areas.length > 0 ? 'half' : 'none',
    hint: seal ? 'Sealed' : planProgress(plan, 'layout', false).hint,
  }),
};
