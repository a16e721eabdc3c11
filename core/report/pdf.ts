import type { Paper } from '../quantity/regionUnits';
import type { Block, Cell, TableBlock } from './block';
import { cellText } from './cell';
import { printable } from '../picture/printable';

/** A figure in a PDF: SVG text, or a picture as a data URI. */
type PdfFigure = { svg: string } | { image: string };

/** Part of a PDF as its maker takes it; plain data, so that core needn't know the maker. */
type PdfNode = Record<string, unknown>;

interface PdfColours {
  ink: string;
  soft: string;
  line: string;
  warning: string;
}

/** What the PDF's font can't print is written with what it has. */
const plain = (text: string): string => printable(text.replace(/\u202f|\u2009/g, ' '));

function table({ columns, rows }: TableBlock, colours: PdfColours): PdfNode {
  const cell = (text: string, numeric: boolean, bold = false): PdfNode => ({
    text: plain(text),
    alignment: numeric ? 'right' : 'left',
    bold,
  });
  const wide = columns.map((c, i) => (i === 0 || !c.numeric ? '*' : 'auto'));
  return {
    table: {
      headerRows: 1,
      widths: wide.includes('*') ? wide : columns.map(() => '*'),
      body: [
        columns.map((c) => cell(c.head, c.numeric, true)),
        ...rows.map((r) =>
          columns.map((c, i) =>
            cell(cellText(r.cells[i] ?? ({ type: 'text', text: '' } as Cell)), c.numeric, r.strong),
          ),
        ),
      ],
    },
    layout: {
      hLineWidth: (i: number) => (i === 0 ? 0 : i === 1 ? 0.8 : 0.4),
      vLineWidth: () => 0,
      hLineColor: (i: number) => (i === 1 ? colours.ink : colours.line),
    },
    fontSize: 9,
    margin: [0, 6, 0, 10],
  };
}

/**
 * Blocks as a PDF document, its first page headed by the question, numbered pages.
 * @param figureOf a figure's picture; null leaves its caption alone
 */
export function toPdf(
  title: string,
  blocks: readonly Block[],
  figureOf: (figureId: string) => PdfFigure | null,
  colours: PdfColours,
  paper: Paper = 'A4',
): PdfNode {
  const node = (b: Block): PdfNode => {
    switch (b.type) {
      case 'heading':
        return {
          text: plain(b.text),
          fontSize: { 1: 22, 2: 15, 3: 12 }[b.level],
          bold: true,
          headlineLevel: b.level,
          margin: [0, b.level === 1 ? 0 : 14, 0, 6],
        };
      case 'paragraph':
        return {
          text: plain(b.text),
          margin: [0, 0, 0, 6],
          ...(b.tone === 'lead' && { fontSize: 13, bold: true }),
          ...(b.tone === 'small' && { fontSize: 8.5, color: colours.soft }),
          ...(b.tone === 'warning' && { bold: true, color: colours.warning }),
        };
      case 'note':
        return {
          text: [{ text: `${plain(b.title)} `, bold: true }, plain(b.text)],
          margin: [0, 0, 0, 6],
        };
      case 'list':
        return {
          ul: b.items.map(plain),
          margin: [0, 0, 0, 8],
          ...(b.tone === 'warning' && { color: colours.warning }),
        };
      case 'table':
        return table(b, colours);
      case 'figure': {
        const figure = figureOf(b.id);
        const caption = {
          text: plain(b.caption),
          fontSize: 8.5,
          color: colours.soft,
          margin: [0, 3, 0, 8],
        };
        if (figure === null) return caption;
        return { stack: [{ ...figure, width: 480, alt: b.alt }, caption], unbreakable: true };
      }
    }
  };
  return {
    info: { title: plain(title) },
    pageSize: paper === 'Letter' ? 'LETTER' : 'A4',
    pageMargins: [56, 56, 56, 60],
    defaultStyle: { fontSize: 10.5, lineHeight: 1.25, color: colours.ink },
    content: blocks.map(node),
    footer: (page: number, pages: number) => ({
      text: `${page} / ${pages}`,
      alignment: 'center',
      fontSize: 8.5,
      color: colours.soft,
      margin: [0, 16, 0, 0],
    }),
    // A heading isn't left alone at the foot of a page.
    pageBreakBefore: (
      current: { headlineLevel?: number },
      nodes: { getFollowingNodesOnPage: () => unknown[] },
    ) => current.headlineLevel !== undefined && nodes.getFollowingNodesOnPage().length === 0,
  };
}
