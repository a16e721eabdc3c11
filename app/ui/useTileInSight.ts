import { useEffect } from 'react';

/** Room left around the tile, px. */
const AROUND = 12;

/**
 * Keeps the current tile of a plan in sight above the pad, which on a phone lies over the lower half of the page.
 * @param current what changes when another tile is the current one
 */
export function useTileInSight(current: unknown): void {
  useEffect(() => {
    // With the frame that is drawn anyway: looking at once would lay the page out twice.
    const frame = requestAnimationFrame(bringInSight);
    return () => cancelAnimationFrame(frame);
  }, [current]);
}

function bringInSight(): void {
  const tile = document.querySelector('.tile.current')?.getBoundingClientRect();
  const pad = document.querySelector('.with-side.standing > .side');
  if (!tile || !pad || getComputedStyle(pad).position !== 'sticky') return;
  const head = document.querySelector('header')?.getBoundingClientRect().bottom ?? 0;
  const [above, below] = [Math.max(0, head) + AROUND, pad.getBoundingClientRect().top - AROUND];
  if (tile.bottom > below) window.scrollBy({ top: tile.bottom - below });
  else if (tile.top < above) window.scrollBy({ top: tile.top - above });
}
