import { planProgress } from '../planProgress';
import type { Room } from '../room';

export const room: Room = {
  id: 'contenders',
  title: 'Contenders',
  order: 20,
  progress: ({ state: { plan } }) => ({
    howFar: plan.treatments.length ? String(plan.treatments.length) : '',
    ...planProgress(plan, 'contenders', plan.treatments.length > 0),
  }),
};
