import type { Block } from '~core/formats/document';

/** The review as readers will see it. */
export function ReviewPreview({
  blocks,
  figures,
}: {
  blocks: readonly Block[];
  figures: Readonly<Record<string, string>>;
}) {
  return (
    <article className="paper" aria-label="Preview of the review">
      {blocks.map((b, i) => (
        <PreviewBlock key={i} block={b} figures={figures} />
      ))}
    </article>
  );
}

function PreviewBlock({ block: b, figures }: { block: Block; figures: Readonly<Record<string, string>> }) {
  switch (b.type) {
    case 'heading': {
      // The page has its own h1: the document's levels move down by one.
      const Tag = b.level === 1 ? 'h2' : b.level === 2 ? 'h3' : 'h4';
      return (
        <Tag style={b.level === 1 ? { fontSize: '1.6rem', marginTop: 0 } : { fontSize: '1.2rem' }}>
          {b.text}
        </Tag>
      );
    }
    case 'paragraph':
      return <p className={b.tone === 'small' ? 'small quiet' : b.tone}>{b.text}</p>;
    case 'list':
      return (
        <ul>
          {b.items.map((t) => (
            <li key={t}>{t}</li>
          ))}
        </ul>
      );
    case 'table':
      return (
        <div className="scroll-x">
          <table className="ledger">
            <thead>
              <tr>
                {b.head.map((h, i) => (
                  <th key={h} className={b.numeric[i] ? 'n' : undefined}>
                    {h}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {b.rows.map((r) => (
                <tr key={r.join('|')}>
                  {r.map((c, i) => (
                    <td key={i} className={b.numeric[i] ? 'n' : undefined}>
                      {c}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      );
    case 'figure':
      return (
        <figure>
          {figures[b.id] ? <img src={figures[b.id]} alt={b.alt} /> : <p className="quiet small">Drawing …</p>}
          <figcaption className="small quiet">{b.caption}</figcaption>
        </figure>
      );
  }
}
