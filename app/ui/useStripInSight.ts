import { type RefObject, useEffect, useRef } from 'react';

/**
 * Keeps the open part of a strip in sight where it scrolls sideways, as on a phone.
 *
 * @param selector finds the open part inside the strip
 * @param open changes when another part is opened
 * @returns for the strip
 */
export function useStripInSight<E extends HTMLElement>(selector: string, open: unknown): RefObject<E | null> {
  const strip = useRef<E>(null);
  useEffect(() => {
    const part = strip.current?.querySelector<HTMLElement>(selector);
    if (part && strip.current) strip.current.scrollLeft = part.offsetLeft - strip.current.offsetLeft - 60;
  }, [selector, open]);
  return strip;
}
