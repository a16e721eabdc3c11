import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { type LabelBox, type LabelSheet, papers } from '~core/formats/labelSheet';
import { tesseraSvg } from '../../ui/tesseraSvg';
import type { LabelContent } from './labelContent';

/** PostScript points in a millimetre. */
const PT = 72 / 25.4;
const CUT = '#d8ccb8';

function labelNodes(label: LabelContent, box: LabelBox): Content[] {
  const [x, y, w, h] = [box.xMm, box.yMm, box.widthMm, box.heightMm].map((mm) => mm * PT) as [
    number,
    number,
    number,
    number,
  ];
  const pad = Math.min(10, h * 0.12);
  const qr = Math.min(h - 2 * pad, w * 0.28, 56);
  const tile = Math.min(h - 2 * pad, w * 0.2, 34);
  const textX = x + pad + tile + 7;
  const textWidth = w - 3 * pad - tile - qr - 8;
  const text: Content[] = [
    { text: `${label.title}  ${label.letter}`, fontSize: 12, bold: true },
    ...(label.name ? [{ text: label.name, fontSize: 9, margin: [0, 2, 0, 0] } as Content] : []),
    { text: label.small, fontSize: 7, color: '#5f564b', margin: [0, 2, 0, 0] },
  ];
  return [
    {
      canvas: [{ type: 'rect', x: 0, y: 0, w, h, r: 3, lineWidth: 0.4, lineColor: CUT, dash: { length: 2 } }],
      absolutePosition: { x, y },
    },
    { svg: tesseraSvg(label.index), width: tile, height: tile, absolutePosition: { x: x + pad, y: y + pad } },
    { columns: [{ width: textWidth, stack: text }], absolutePosition: { x: textX, y: y + pad } },
    {
      qr: label.qr,
      fit: qr,
      eccLevel: 'M',
      absolutePosition: { x: x + w - pad - qr, y: y + (h - qr) / 2 },
    },
  ];
}

/** The labels as a PDF document. */
export function labelsDocument(
  sheet: LabelSheet,
  labels: readonly LabelContent[],
  boxes: readonly LabelBox[],
  title: string,
): TDocumentDefinitions {
  const { widthMm, heightMm } = papers[sheet.paper];
  const pages = Math.max(...boxes.map((b) => b.page)) + 1;
  return {
    info: { title },
    pageSize: { width: widthMm * PT, height: heightMm * PT },
    pageMargins: [0, 0, 0, 0],
    content: Array.from({ length: pages }, (_, page) => ({
      stack: [
        { text: ' ', fontSize: 1 },
        ...labels.flatMap((l, i) => (boxes[i]!.page === page ? labelNodes(l, boxes[i]!) : [])),
      ],
      ...(page > 0 && { pageBreak: 'before' as const }),
    })),
  };
}
