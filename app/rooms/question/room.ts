import { planProgress } from '../planProgress';
import type { Room } from '../room';

export const room: Room = {
  id: 'question',
  title: 'Question',
  order: 10,
  progress: ({ state: { plan } }) => ({ howFar: '', ...planProgress(plan, 'question', true) }),
};
