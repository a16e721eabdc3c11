import type { Room } from '../room';

export const room: Room = {
  id: 'fairness',
  title: 'Fairness',
  order: 40,
  progress: ({ open }) => ({
    howFar: open.length > 0 ? `${open.length} open` : '',
    progress: open.length === 0 ? 'full' : 'half',
    hint:
      open.length === 0
        ? 'Nothing a reader could object to'
        : open
            .slice(0, 4)
            .map((f) => f.title)
            .join('; ') + (open.length > 4 ? ' …' : ''),
  }),
};
