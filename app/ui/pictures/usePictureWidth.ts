import { useSyncExternalStore } from 'react';

/** As wide as pictures are drawn and saved where there is room, px. */
const USUAL = 640;
/** What stands at both sides of a picture on a narrow page: the page's and the frame's own edges. */
const EDGES = 52;

const listen = (changed: () => void) => {
  window.addEventListener('resize', changed);
  return () => window.removeEventListener('resize', changed);
};
const now = () => Math.max(260, Math.min(USUAL, document.documentElement.clientWidth - EDGES));

/** The width to draw a picture at, so that its words keep their size on a phone; `narrow`: names go below it. */
export function usePictureWidth(): { width: number; narrow: boolean } {
  const width = useSyncExternalStore(listen, now, () => USUAL);
  return { width, narrow: width < 520 };
}
