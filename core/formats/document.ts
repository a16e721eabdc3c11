/** A written document as plain blocks, printed as Markdown or HTML. All text is plain and escaped here. */
export type Block =
  | { type: 'heading'; level: 1 | 2 | 3; text: string }
  | { type: 'paragraph'; text: string; tone?: 'lead' | 'small' }
  | { type: 'list'; items: string[] }
  | { type: 'table'; head: string[]; rows: string[][]; numeric: boolean[] }
  | { type: 'figure'; id: string; alt: string; caption: string };

const escapeMarkdown = (text: string) =>
  text.replace(/[\\`*_{}[\]<>|#]/g, (c) => `\\${c}`).replace(/^(\s*)([-+]|\d+\.)(\s)/gm, '$1\\$2$3');

/** Prints blocks as Markdown (GitHub tables). @param pathOf where the picture of a figure lies */
export function toMarkdown(blocks: readonly Block[], pathOf: (figureId: string) => string): string {
  const cell = (text: string) => escapeMarkdown(text).replaceAll('\n', ' ');
  const print = (b: Block): string => {
    switch (b.type) {
      case 'heading':
        return `${'#'.repeat(b.level)} ${cell(b.text)}`;
      case 'paragraph':
        return b.tone === 'lead' ? `**${cell(b.text)}**` : escapeMarkdown(b.text);
      case 'list':
        return b.items.map((i) => `- ${cell(i)}`).join('\n');
      case 'table':
        return [b.head, b.numeric.map((n) => (n ? '---:' : '---')), ...b.rows]
          .map((r, i) => `| ${r.map((c) => (i === 1 ? c : cell(c))).join(' | ')} |`)
          .join('\n');
      case 'figure':
        return `![${cell(b.alt)}](${pathOf(b.id)})\n\n${escapeMarkdown(b.caption)}`;
    }
  };
  return `${blocks.map(print).join('\n\n')}\n`;
}

const escapeHtml = (text: string) =>
  text.replace(
    /[&<>"']/g,
    (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' })[c]!,
  );

const STYLE = `
body{margin:0 auto;max-width:46rem;padding:2.5rem 1.25rem;background:#F5EFE4;color:#2A241F;font:17px/1.55 "Source Sans 3",system-ui,sans-serif}
h1,h2,h3{font-family:Fraunces,Georgia,serif;line-height:1.2;margin:2em 0 .5em}h1{font-size:2.1rem;margin-top:0}h2{font-size:1.4rem}
.lead{font:600 1.25rem/1.4 Fraunces,Georgia,serif}.small{font-size:.85rem;color:#5f564b}
table{border-collapse:collapse;width:100%;font-size:.95rem}th,td{text-align:left;padding:.4rem .6rem;border-bottom:1px solid #D8CCB8}
thead th{border-bottom:1px solid #2A241F;font-weight:600}.n{text-align:right;font-variant-numeric:tabular-nums}
figure{margin:1.5rem 0}img{max-width:100%;background:#FFFBF3;border:1px solid #D8CCB8}figcaption{font-size:.9rem;color:#5f564b}`;

/** Prints blocks as one self-contained HTML page. @param sourceOf a data URI for each figure */
export function toHtml(
  title: string,
  blocks: readonly Block[],
  sourceOf: (figureId: string) => string,
): string {
  const cells = (tag: 'th' | 'td', row: string[], numeric: boolean[]) =>
    row.map((c, i) => `<${tag}${numeric[i] ? ' class="n"' : ''}>${escapeHtml(c)}</${tag}>`).join('');
  const print = (b: Block): string => {
    switch (b.type) {
      case 'heading':
        return `<h${b.level}>${escapeHtml(b.text)}</h${b.level}>`;
      case 'paragraph':
        return `<p${b.tone ? ` class="${b.tone}"` : ''}>${escapeHtml(b.text).replaceAll('\n', '<br>')}</p>`;
      case 'list':
        return `<ul>${b.items.map((i) => `<li>${escapeHtml(i)}</li>`).join('')}</ul>`;
      case 'table':
        return `<table><thead><tr>${cells('th', b.head, b.numeric)}</tr></thead><tbody>${b.rows
          .map((r) => `<tr>${cells('td', r, b.numeric)}</tr>`)
          .join('')}</tbody></table>`;
      case 'figure':
        return `<figure><img alt="${escapeHtml(b.alt)}" src="${escapeHtml(sourceOf(b.id))}"><figcaption>${escapeHtml(b.caption)}</figcaption></figure>`;
    }
  };
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">
<title>${escapeHtml(title)}</title><style>${STYLE}</style></head>
<body>
${blocks.map(print).join('\n')}
</body></html>
`;
}
