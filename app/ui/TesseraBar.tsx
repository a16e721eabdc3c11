import { useTileOf } from './Tiles';

/**
 * A bar laid out of a treatment's tile: its length is the figure's share of the longest. Decorative: the
 * figure stands beside it.
 *
 * @param share 0 to 1
 */
export function TesseraBar({ index, share }: { index: number; share: number }) {
  const { colour, path } = useTileOf()(index);
  const tile = `url("data:image/svg+xml,${encodeURIComponent(
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24"><path d="${path}" fill-rule="evenodd"/></svg>`,
  )}")`;
  return (
    <span className="tessera-bar" aria-hidden="true">
      <span
        className="laid"
        style={{
          width: `${Math.max(0, Math.min(1, share)) * 100}%`,
          borderColor: `var(${colour})`,
        }}
      >
        <span
          style={{
            background: `var(${colour})`,
            maskImage: tile,
            WebkitMaskImage: tile,
          }}
        />
      </span>
    </span>
  );
}
