import type { ReactNode } from 'react';
import type { Block, Cell, TableBlock } from '~core/report/block';
import { cellText } from '~core/report/cell';
import { Tessera } from './Tessera';
import './ledger.css';

/** What a heading is gone to by. */
export const headingId = (text: string): string => `h-${text.toLowerCase().replace(/[^a-z0-9]+/g, '-')}`;

/** Blocks of a document as the screen shows them: rooms and the review's preview draw with the same. */
export function Report({
  blocks,
  figure,
}: {
  blocks: readonly Block[];
  figure?: (id: string, alt: string) => ReactNode;
}) {
  return blocks.map((b, i) => <ReportBlock key={i} block={b} figure={figure} />);
}

function ReportBlock({
  block: b,
  figure,
}: {
  block: Block;
  figure?: ((id: string, alt: string) => ReactNode) | undefined;
}) {
  switch (b.type) {
    case 'heading': {
      // The page has its own h1: the document's levels move down by one.
      const Tag = b.level === 1 ? 'h2' : b.level === 2 ? 'h3' : 'h4';
      return (
        <Tag className={`report-h${b.level}`} id={headingId(b.text)}>
          {b.text}
        </Tag>
      );
    }
    case 'paragraph':
      return <p className={b.tone === 'small' ? 'small quiet' : b.tone}>{b.text}</p>;
    case 'note':
      return (
        <div className={`note ${b.tone}`}>
          <h3>{b.title}</h3>
          <p>{b.text}</p>
        </div>
      );
    case 'list':
      return (
        <ul className={b.tone === 'warning' ? 'report-list small warning' : 'report-list'}>
          {b.items.map((t) => (
            <li key={t}>{t}</li>
          ))}
        </ul>
      );
    case 'table':
      return <ReportTable table={b} />;
    case 'figure':
      return (
        <figure>
          {figure?.(b.id, b.alt)}
          <figcaption className="small quiet">{b.caption}</figcaption>
        </figure>
      );
  }
}

/** A table whose cells know what they are. On a phone each row becomes lines of name and figure. */
export function ReportTable({ table }: { table: TableBlock }) {
  return (
    <table className={`ledger as-rows${table.columns.length > 6 ? ' wide' : ''}`}>
      <thead>
        <tr>
          {table.columns.map((c, i) => (
            <th key={i} className={c.numeric ? 'n' : undefined}>
              {c.head === '' && <span className="sr-only">letter</span>}
              {c.head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {table.rows.map((r, i) => (
          <tr key={i} className={r.strong ? 'first' : undefined} title={r.title}>
            {r.cells.map((c, j) => (
              <td
                key={j}
                className={classOf(c, table.columns[j]?.numeric ?? false)}
                data-label={table.columns[j]?.head}
              >
                <CellContent cell={c} />
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function classOf(cell: Cell, numeric: boolean): string | undefined {
  if (cell.type === 'letter' || cell.type === 'rank') return 'letter';
  return numeric ? 'n' : undefined;
}

function CellContent({ cell }: { cell: Cell }) {
  if (cell.type === 'treatment') {
    return (
      <span className="who">
        <Tessera index={cell.order} size={cell.beneath ? 26 : 19} />
        <span>
          {cell.beneath ? <strong>{cell.name}</strong> : cell.name}
          {cell.beneath && <span className="beneath small quiet">{cell.beneath}</span>}
        </span>
      </span>
    );
  }
  if (cell.type === 'fault') return <span className="small warning wrap">{cell.text}</span>;
  const text = cellText(cell);
  return text.trim() === '' ? null : text;
}
