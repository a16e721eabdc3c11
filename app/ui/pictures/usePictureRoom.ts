import { useSyncExternalStore } from 'react';
import { type Room, usualRoom } from '~core/picture/marks';

/** What stands at both sides of a picture on a narrow page: the page's and the frame's own edges. */
const EDGES = 52;

const listen = (changed: () => void) => {
  window.addEventListener('resize', changed);
  return () => window.removeEventListener('resize', changed);
};
const now = () => Math.max(260, Math.min(usualRoom.width, document.documentElement.clientWidth - EDGES));

/** The room to draw a picture in, so that its words keep their size on a phone. */
export function usePictureRoom(): Room {
  const width = useSyncExternalStore(listen, now, () => usualRoom.width);
  return { width, narrow: width < 520 };
}
