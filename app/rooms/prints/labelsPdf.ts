import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { labelFace } from '~core/formats/labelFace';
import { type LabelBox, type LabelSheet, papers } from '~core/formats/labelSheet';
import { tesseraSvg } from '../../ui/tesseraSvg';
import type { LabelContent } from './labelContent';

/** PostScript points in a millimetre. */
const PT = 72 / 25.4;
const CUT = '#d8ccb8';
/** height of a line as part of its size */
const LINE = 1.25;

function labelNodes(label: LabelContent, box: LabelBox): Content[] {
  const [x, y, w, h] = [box.xMm, box.yMm, box.widthMm, box.heightMm].map((mm) => mm * PT) as [
    number,
    number,
    number,
    number,
  ];
  const title = `${label.title}  ${label.letter}`;
  const face = labelFace(box, { ...label, title });
  const [pad, tile, qr, width] = [face.padMm, face.tileMm, face.qrMm, face.textMm].map((mm) => mm * PT) as [
    number,
    number,
    number,
    number,
  ];
  const besideTile = x + pad + tile + 2 * PT;
  const titleY = face.isStacked ? y + pad + (tile - face.titleMm * LINE * PT) / 2 : y + pad;
  const rest: Content[] = [
    ...(label.name ? [{ text: label.name, fontSize: face.nameMm * PT } as Content] : []),
    { text: label.small, fontSize: face.smallMm * PT, color: '#5f564b' },
  ];
  return [
    {
      canvas: [{ type: 'rect', x: 0, y: 0, w, h, r: 3, lineWidth: 0.4, lineColor: CUT, dash: { length: 2 } }],
      absolutePosition: { x, y },
    },
    { svg: tesseraSvg(label.index), width: tile, height: tile, absolutePosition: { x: x + pad, y: y + pad } },
    { text: title, fontSize: face.titleMm * PT, bold: true, absolutePosition: { x: besideTile, y: titleY } },
    {
      columns: [{ width, stack: rest }],
      absolutePosition: face.isStacked
        ? { x: x + pad, y: y + pad + tile + PT }
        : { x: besideTile, y: y + pad + face.titleMm * LINE * PT },
    },
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
