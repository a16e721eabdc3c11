import type { Photo } from './photoData';

/** The filter that shows a picture as its grey card says; undefined: as taken. */
export const balanceFilter = (p: Photo): string | undefined =>
  p.gains ? `url(#balance-${p.entryId})` : undefined;

/** Filters of the balanced pictures on a page; the pictures themselves stay as they were taken. */
export function BalanceFilters({ photos }: { photos: readonly Photo[] }) {
  const balanced = photos.flatMap((p) => (p.gains ? [{ id: p.entryId, gains: p.gains }] : []));
  return (
    <svg width="0" height="0" aria-hidden="true" style={{ position: 'absolute' }}>
      {balanced.map(({ id, gains: [r, g, b] }) => (
        <filter key={id} id={`balance-${id}`} colorInterpolationFilters="sRGB">
          <feColorMatrix values={`${r} 0 0 0 0  0 ${g} 0 0 0  0 0 ${b} 0 0  0 0 0 1 0`} />
        </filter>
      ))}
    </svg>
  );
}
