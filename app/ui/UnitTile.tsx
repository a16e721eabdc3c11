import type { CSSProperties, ReactNode } from 'react';
import { Tessera, tesseraLetter } from './Tessera';
import { useTileOf } from './Tiles';
import './UnitTile.css';

/** The inside of a unit on the plan: tile, letter, number and what is known of it. */
export function UnitFace({
  index,
  number,
  value,
  words,
  block,
}: {
  index: number;
  number: string;
  value: ReactNode;
  words?: boolean;
  block?: number | null;
}) {
  return (
    <>
      <span className="top">
        <Tessera index={index} size={22} />
        <span className="tile-letter">{tesseraLetter(index)}</span>
        <span className="number">
          {block != null && <span className="block">b{block} · </span>}
          {number}
        </span>
      </span>
      <span className={words ? 'value words' : 'value'}>{value}</span>
    </>
  );
}

/** The colour a unit's border takes, for its `style`, by its treatment's place in the plan. */
export function useTileInk(): (index: number) => CSSProperties {
  const tileOf = useTileOf();
  return (index) => ({ '--tile-ink': `var(${tileOf(index).colour})` }) as CSSProperties;
}

/** The number on the label without the trial's code: LOG-08 → 08. */
export const unitNumber = (code: string): string => code.replace(/^[A-Z]+-/, '');
