import { useId } from 'react';
import { tesseraLetter } from './tesserae';
import { useTileOf } from './Tiles';

/** What a tile is made of, on a field of 24 × 24: for whatever SVG it stands in. */
function TesseraShape({ index }: { index: number }) {
  const id = useId();
  const { colour, path } = useTileOf()(index);
  const ink = `var(${colour})`;
  return (
    <>
      <clipPath id={id}>
        <rect x="1" y="1" width="22" height="22" rx="4" />
      </clipPath>
      <rect x="1" y="1" width="22" height="22" rx="4" fill="var(--sheet)" />
      <path d={path} fill={ink} fillRule="evenodd" clipPath={`url(#${id})`} />
      <rect x="1" y="1" width="22" height="22" rx="4" fill="none" stroke={ink} strokeWidth="2" />
    </>
  );
}

/** A treatment's tile. Decorative: the name or letter stands beside it. */
export function Tessera({ index, size = 20 }: { index: number; size?: number | string }) {
  return (
    <svg width={size} height={size} viewBox="0 0 24 24" aria-hidden="true" style={{ flex: 'none' }}>
      <TesseraShape index={index} />
    </svg>
  );
}

/** Tile and name side by side. */
export function TesseraName({ index, name, size = 20 }: { index: number; name: string; size?: number }) {
  return (
    <span className="who">
      <Tessera index={index} size={size} />
      <span>{name}</span>
    </span>
  );
}

export { tesseraLetter };
