import type { Block, Cell, TableBlock } from './block';
import { type BlindLook, blindLookHtml } from './blindLook';
import { cellText } from './cell';
import { type PageCard, scriptHash, weighYourself } from './weighYourself';

/** Text that stands as it is in a page. */
export const escaped = (text: string) =>
  text.replace(
    /[&<>"']/g,
    (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' })[c]!,
  );

/** Colours a page is printed in; the interface hands in its own. */
interface PageColours {
  plaster: string;
  sheet: string;
  ink: string;
  soft: string;
  line: string;
  warning: string;
}

const variables = ({ plaster, sheet, ink, soft, line, warning }: PageColours) =>
  `:root{--plaster:${plaster};--sheet:${sheet};--ink:${ink};--soft:${soft};--line:${line};--warning:${warning}}`;

/** Pictures are drawn for paper and stay on it by night. */
const style = (day: PageColours, night: PageColours | null) => `${variables(day)}
${night ? `@media screen and (prefers-color-scheme:dark){${variables(night)}}` : ''}
body{overflow-wrap:break-word;margin:0 auto;max-width:46rem;padding:2.5rem 1.25rem;background:var(--plaster);color:var(--ink);font:17px/1.55 "Source Sans 3 Variable","Source Sans 3",system-ui,sans-serif}
h1,h2,h3{font-family:"Fraunces Variable",Fraunces,Georgia,serif;line-height:1.2;margin:2em 0 .5em}h1{font-size:2.1rem;margin-top:0}h2{font-size:1.4rem}
.lead{font:600 1.25rem/1.4 "Fraunces Variable",Fraunces,Georgia,serif}.small{font-size:.85rem;color:var(--soft)}.warning{font-weight:600;color:var(--warning)}
table{border-collapse:collapse;width:100%;font-size:.95rem}th,td{text-align:left;padding:.4rem .6rem;border-bottom:1px solid var(--line)}
thead th{border-bottom:1px solid var(--ink);font-weight:600}.n{text-align:right;font-variant-numeric:tabular-nums}.strong{font-weight:600}
.look fieldset{display:flex;flex-wrap:wrap;gap:1rem;border:0;padding:0}.look legend{font-size:.85rem;color:var(--soft)}.look label{flex:1 1 9rem}.look label span{display:block}.look summary{cursor:pointer;padding:.5rem 0}
@media print{body{max-width:none;background:none}.look,details{display:none}}
.scroll{overflow-x:auto;position:relative}.sr{position:absolute;width:1px;height:1px;overflow:hidden;clip-path:inset(50%)}figure{margin:1.5rem 0}figure svg{max-width:100%;height:auto}img{max-width:100%;background:${day.sheet};border:1px solid var(--line)}figcaption{font-size:.9rem;color:var(--soft)}`;

function cell(tag: 'th' | 'td', content: string, numeric: boolean): string {
  return `<${tag}${numeric ? ' class="n"' : ''}>${escaped(content)}</${tag}>`;
}

function table({ columns, rows }: TableBlock): string {
  const row = (cells: readonly Cell[]) =>
    cells.map((c, i) => cell('td', cellText(c), columns[i]?.numeric ?? false)).join('');
  // A wide table scrolls by itself, by keys too; the page never does.
  const label = escaped(
    columns
      .map((c) => c.head)
      .filter(Boolean)
      .slice(0, 3)
      .join(', '),
  );
  return `<div class="scroll" tabindex="0" role="group" aria-label="Table: ${label}"><table><thead><tr>${columns.map((c) => (c.head === '' ? '<th><span class="sr">letter</span></th>' : cell('th', c.head, c.numeric))).join('')}</tr></thead><tbody>${rows
    .map((r) => `<tr${r.strong ? ' class="strong"' : ''}>${row(r.cells)}</tr>`)
    .join('')}</tbody></table></div>`;
}

const picture = (alt: string, svg: string | undefined, source: () => string): string =>
  svg === undefined
    ? `<img alt="${escaped(alt)}" src="${escaped(source())}">`
    : `<div role="img" aria-label="${escaped(alt)}">${svg}</div>`;

/** What stands in a page beside its blocks; all of it may be left out. */
interface PageExtras {
  /** points for a reader to weigh */
  card?: PageCard | null;
  /** photos a reader judges before anything is said of them */
  look?: BlindLook | null;
  /** a data URI for each photo of the blind look; empty where there is none */
  photoOf?: (sha256: string) => string;
  /** a picture drawn as text, which stands in the page and has its fonts; left out: an image */
  svgOf?: (figureId: string) => string | undefined;
  /** rules of fonts with the fonts in them */
  fontRules?: string;
  /** colours of a screen by night */
  night?: PageColours | null;
}

/** Where the blind look stands: after the title and whoever wrote it, before anything is told. */
const HEAD_BLOCKS = 2;

/**
 * Prints blocks as one self-contained HTML page, which may show the pictures in it and run the one script in it.
 * @param sourceOf a data URI for each figure
 */
export function toHtml(
  title: string,
  blocks: readonly Block[],
  sourceOf: (figureId: string) => string,
  colours: PageColours,
  {
    card = null,
    look = null,
    photoOf = () => '',
    svgOf = () => undefined,
    fontRules = '',
    night = null,
  }: PageExtras = {},
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
        return `<figure>${picture(b.alt, svgOf(b.id), () => sourceOf(b.id))}<figcaption>${escaped(b.caption)}</figcaption></figure>`;
    }
  };
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; img-src data:; font-src data:; style-src 'unsafe-inline'; script-src ${card ? scriptHash() : "'none'"}">
<title>${escaped(title)}</title><style>${fontRules}${style(colours, night)}</style></head>
<body><main>
${blocks.slice(0, HEAD_BLOCKS).map(print).join('\n')}
${look ? blindLookHtml(look, photoOf, escaped) : ''}
${blocks.slice(HEAD_BLOCKS).map(print).join('\n')}
${card ? weighYourself(card, escaped) : ''}
</main></body></html>
`;
}
