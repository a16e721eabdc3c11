import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { type ReactNode, useEffect, useLayoutEffect, useRef, useState } from 'react';

/** Up to so many rows all are there: short lists can be searched by the browser and printed as they are. */
const ALL = 120;

interface RowProps {
  ref: (e: HTMLTableRowElement | null) => void;
  'data-index': number;
  'aria-rowindex': number;
}

interface Props<T> {
  rows: readonly T[];
  columns: number;
  /** what a row is high by guess, px; it is measured once it is there */
  guess: number;
  /** @param own goes onto the row */
  children: (row: T, own: Partial<RowProps>) => ReactNode;
}

/** The body of a long table: only the rows in sight, and some around them, are in the page. All of them on paper. */
export function VirtualRows<T>(props: Props<T>) {
  const [printing, setPrinting] = useState(false);
  useEffect(() => {
    const [before, after] = [() => setPrinting(true), () => setPrinting(false)];
    window.addEventListener('beforeprint', before);
    window.addEventListener('afterprint', after);
    return () => {
      window.removeEventListener('beforeprint', before);
      window.removeEventListener('afterprint', after);
    };
  }, []);
  if (props.rows.length > ALL && !printing) return <InSight {...props} />;
  return <tbody>{props.rows.map((row) => props.children(row, {}))}</tbody>;
}

/** So many rows are drawn before it is known where the page is scrolled to. */
const FIRST = 30;

const Gap = ({ columns, height }: { columns: number; height: number }) =>
  height > 0 && (
    <tr aria-hidden="true">
      <td colSpan={columns} style={{ height, padding: 0, border: 0 }} />
    </tr>
  );

/**
 * Rows are measured once the page stands where it should: a page that is gone to begins at its top, after its first
 * drawing, and rows measured before would scroll it down to where the page before stood, and further.
 */
function InSight<T>(props: Props<T>) {
  const [stands, setStands] = useState(false);
  useEffect(() => {
    const frame = requestAnimationFrame(() => setStands(true));
    return () => cancelAnimationFrame(frame);
  }, []);
  if (stands) return <Measured {...props} />;
  const { rows, columns, guess, children } = props;
  return (
    <tbody>
      {rows.slice(0, FIRST).map((row) => children(row, {}))}
      <Gap columns={columns} height={(rows.length - FIRST) * guess} />
    </tbody>
  );
}

function Measured<T>({ rows, columns, guess, children }: Props<T>) {
  const body = useRef<HTMLTableSectionElement>(null);
  const [top, setTop] = useState(0);
  useLayoutEffect(() => {
    setTop((body.current?.getBoundingClientRect().top ?? 0) + window.scrollY);
  }, []);
  // oxlint-disable-next-line react/incompatible-library -- what it returns is used here alone, and in no memo
  const virtual = useWindowVirtualizer({
    count: rows.length,
    estimateSize: () => guess,
    overscan: 12,
    scrollMargin: top,
  });
  const items = virtual.getVirtualItems();
  return (
    <tbody ref={body}>
      <Gap columns={columns} height={(items[0]?.start ?? top) - top} />
      {items.map((i) =>
        children(rows[i.index]!, {
          ref: virtual.measureElement,
          'data-index': i.index,
          'aria-rowindex': i.index + 2,
        }),
      )}
      <Gap columns={columns} height={virtual.getTotalSize() - ((items.at(-1)?.end ?? top) - top)} />
    </tbody>
  );
}
