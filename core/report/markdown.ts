import type { Block } from './block';
import { cellText } from './cell';

const escaped = (text: string) =>
  text.replace(/[\\`*_{}[\]<>|#]/g, (c) => `\\${c}`).replace(/^(\s*)([-+]|\d+\.)(\s)/gm, '$1\\$2$3');

const inline = (text: string) => escaped(text).replaceAll('\n', ' ');

/** Prints blocks as Markdown (GitHub tables). @param pathOf where the picture of a figure lies */
export function toMarkdown(blocks: readonly Block[], pathOf: (figureId: string) => string): string {
  const print = (b: Block): string => {
    switch (b.type) {
      case 'heading':
        return `${'#'.repeat(b.level)} ${inline(b.text)}`;
      case 'paragraph':
        return b.tone === 'lead' || b.tone === 'warning' ? `**${inline(b.text)}**` : escaped(b.text);
      case 'note':
        return `**${inline(b.title)}** ${inline(b.text)}`;
      case 'list':
        return b.items.map((i) => `- ${inline(i)}`).join('\n');
      case 'table':
        return [
          b.columns.map((c) => inline(c.head)),
          b.columns.map((c) => (c.numeric ? '---:' : '---')),
          ...b.rows.map((r) => r.cells.map((c) => inline(cellText(c)))),
        ]
          .map((cells) => `| ${cells.join(' | ')} |`)
          .join('\n');
      case 'figure':
        return `![${inline(b.alt)}](${pathOf(b.id)})\n\n${escaped(b.caption)}`;
    }
  };
  return `${blocks.map(print).join('\n\n')}\n`;
}
