import type { Block, Cell, TableBlock } from './block';
import { cellText } from './cell';
import { type PageCard, scriptHash, weighYourself } from './weighYourself';

const escaped = (text: string) =>
  text.replace(
    /[&<>"']/g,
    (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' })[c]!,
  );

/** Colours a page is printed in; the interface hands in its own. */
export interface PageColours {
  plaster: string;
  sheet: string;
  ink: string;
  soft: string;
  line: string;
  warning: string;
}

const style = (c: PageColours) => `
body{margin:0 auto;max-width:46rem;padding:2.5rem 1.25rem;background:${c.plaster};color:${c.ink};font:17px/1.55 "Source Sans 3",system-ui,sans-serif}
h1,h2,h3{font-family:Fraunces,Georgia,serif;line-height:1.2;margin:2em 0 .5em}h1{font-size:2.1rem;margin-top:0}h2{font-size:1.4rem}
.lead{font:600 1.25rem/1.4 Fraunces,Georgia,serif}.small{font-size:.85rem;color:${c.soft}}.warning{font-weight:600;color:${c.warning}}
table{border-collapse:collapse;width:100%;font-size:.95rem}th,td{text-align:left;padding:.4rem .6rem;border-bottom:1px solid ${c.line}}
thead th{border-bottom:1px solid ${c.ink};font-weight:600}.n{text-align:right;font-variant-numeric:tabular-nums}.strong{font-weight:600}
figure{margin:1.5rem 0}img{max-width:100%;background:${c.sheet};border:1px solid ${c.line}}figcaption{font-size:.9rem;color:${c.soft}}`;

function cell(tag: 'th' | 'td', content: string, numeric: boolean): string {
  return `<${tag}${numeric ? ' class="n"' : ''}>${escaped(content)}</${tag}>`;
}

function table({ columns, rows }: TableBlock): string {
  const row = (cells: readonly Cell[]) =>
    cells.map((c, i) => cell('td', cellText(c), columns[i]?.numeric ?? false)).join('');
  return `<table><thead><tr>${columns.map((c) => cell('th', c.head, c.numeric)).join('')}</tr></thead><tbody>${rows
    .map((r) => `<tr${r.strong ? ' class="strong"' : ''}>${row(r.cells)}</tr>`)
    .join('')}</tbody></table>`;
}

/**
 * Prints blocks as one self-contained HTML page, which may show the pictures in it and run the one script in it.
 * @param sourceOf a data URI for each figure
 * @param card points for a reader to weigh; left out: none
 */
export function toHtml(
  title: string,
  blocks: readonly Block[],
  sourceOf: (figureId: string) => string,
  colours: PageColours,
  card: PageCard | null = null,
): string {
  const print = (b: Block): string => {
    switch (b.type) {
      case 'heading':
        return `<h${b.level}>${escaped(b.text)}</h${b.level}>`;
      case 'paragraph':
        return `<p${b.tone ? ` class="${b.tone}"` : ''}>${escaped(b.text).replaceAll('\n', '<br>')}</p>`;
      case 'note':
        return `<p><strong>${escaped(b.title)}</strong> ${escaped(b.text)}</p>`;
      case 'list':
        return `<ul${b.tone ? ` class="${b.tone}"` : ''}>${b.items.map((i) => `<li>${escaped(i)}</li>`).join('')}</ul>`;
      case 'table':
        return table(b);
      case 'figure':
        return `<figure><img alt="${escaped(b.alt)}" src="${escaped(sourceOf(b.id))}"><figcaption>${escaped(b.caption)}</figcaption></figure>`;
    }
  };
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; img-src data:; style-src 'unsafe-inline'; script-src ${card ? scriptHash() : "'none'"}">
<title>${escaped(title)}</title><style>${style(colours)}</style></head>
<body>
${blocks.map(print).join('\n')}
${card ? weighYourself(card, escaped) : ''}
</body></html>
`;
}
