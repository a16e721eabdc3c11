/** Whether an address is this machine's name for itself: no other device can open it. */
export const isThisMachineAlone = (hostname: string): boolean =>
  hostname === 'localhost' || hostname === '[::1]' || /^127\./.test(hostname);

/**
 * Where other devices can open a page from, the best first; the page's own origin last where it is this machine's name for itself.
 * @param here what is served in the network; null where nothing is
 */
export const reachableAt = (
  { hostname, origin }: Pick<Location, 'hostname' | 'origin'>,
  here: { addresses: readonly string[] } | null,
): string[] => (isThisMachineAlone(hostname) ? [...(here?.addresses ?? []), origin] : [origin]);
