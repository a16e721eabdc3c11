import { useSyncExternalStore } from 'react';
import { type Room, usualRoom } from '~core/picture/marks';

/** What stands at both sides of a picture: the page's and the frame's own edges, and on a desk the list of rooms. */
const EDGES = 52;
const [ROOMS, DESK] = [250, 760];

const listen = (changed: () => void) => {
  window.addEventListener('resize', changed);
  return () => window.removeEventListener('resize', changed);
};
/** As wide as a picture that has the sheet to itself. */
const WHOLE = 960;

const now = (most: number) => () => {
  const { clientWidth } = document.documentElement;
  return Math.max(260, Math.min(most, clientWidth - EDGES - (clientWidth > DESK ? ROOMS : 0)));
};

/**
 * The room to draw a picture in, so that its words keep their size on a phone.
 * @param share whether it has the sheet to itself or stands beside something
 */
export function usePictureRoom(share: 'part' | 'whole' = 'part'): Room {
  const most = share === 'whole' ? WHOLE : usualRoom.width;
  const width = useSyncExternalStore(listen, now(most), () => most);
  return { width, narrow: width < 520 };
}
