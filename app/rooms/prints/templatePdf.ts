import type { CanvasElement, Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import {
  type Opening,
  type Station,
  TEMPLATE_AREA,
  type TemplateSheet,
  templateSheets,
} from '~core/design/stations';
import { papers } from '~core/formats/labelSheet';
import type { Paper } from '~core/quantity/regionUnits';

/** Points in a millimetre: 72 points an inch of 25.4 mm. */
const PT = 72 / 25.4;
const MARGIN_MM = 12;
const RULER_MM = 100;
const CROSS_MM = 3;

const line = (x1: number, y1: number, x2: number, y2: number, lineWidth = 0.6): CanvasElement => ({
  type: 'line',
  x1: x1 * PT,
  y1: y1 * PT,
  x2: x2 * PT,
  y2: y2 * PT,
  lineWidth,
});

function drawing(
  sheet: TemplateSheet,
  opening: Opening,
  list: readonly Station[],
  plantCm: number | null,
): CanvasElement[] {
  const [w, d] = [opening.widthCm * 10, opening.depthCm * 10];
  const [x0, y0] = [-sheet.xMm, -sheet.yMm];
  const outline: CanvasElement =
    opening.shape === 'round'
      ? {
          type: 'ellipse',
          x: (x0 + w / 2) * PT,
          y: (y0 + d / 2) * PT,
          r1: (w / 2) * PT,
          r2: (d / 2) * PT,
          lineWidth: 0.8,
        }
      : { type: 'rect', x: x0 * PT, y: y0 * PT, w: w * PT, h: d * PT, lineWidth: 0.8 };
  return [
    outline,
    ...list.flatMap((s): CanvasElement[] => {
      const [x, y] = [x0 + s.x * 10, y0 + s.y * 10];
      return [
        line(x - CROSS_MM, y, x + CROSS_MM, y),
        line(x, y - CROSS_MM, x, y + CROSS_MM),
        ...(plantCm === null
          ? []
          : [
              {
                type: 'ellipse' as const,
                x: x * PT,
                y: y * PT,
                r1: plantCm * 5 * PT,
                r2: plantCm * 5 * PT,
                lineWidth: 0.3,
                dash: { length: 3 },
              },
            ]),
      ];
    }),
  ];
}

const ruler = (): CanvasElement[] => [
  line(0, 4, RULER_MM, 4, 0.8),
  ...Array.from({ length: RULER_MM / 10 + 1 }, (_, i) => line(i * 10, i % 5 === 0 ? 0 : 2, i * 10, 4)),
];

/**
 * A planting template at 1:1 over as many sheets as it takes, each with a ruler that shows whether the printer kept the
 * scale.
 */
export function templateDocument(
  opening: Opening,
  list: readonly Station[],
  plantCm: number | null,
  paper: Paper,
  title: string,
): TDocumentDefinitions {
  const sheets = templateSheets(opening);
  const { widthMm, heightMm } = papers[paper];
  const bottom = heightMm - MARGIN_MM - 12;
  const page = (sheet: TemplateSheet, i: number): Content => ({
    stack: [
      {
        // what lies beyond the sheet is masked by white margins
        canvas: drawing(sheet, opening, list, plantCm),
        absolutePosition: { x: MARGIN_MM * PT, y: MARGIN_MM * PT },
      },
      {
        canvas: [
          {
            type: 'rect',
            x: 0,
            y: 0,
            w: widthMm * PT,
            h: MARGIN_MM * PT,
            color: '#ffffff',
            lineWidth: 0,
            lineColor: '#ffffff',
          },
          {
            type: 'rect',
            x: 0,
            y: 0,
            w: MARGIN_MM * PT,
            h: heightMm * PT,
            color: '#ffffff',
            lineWidth: 0,
            lineColor: '#ffffff',
          },
          {
            ...{
              type: 'rect',
              x: (MARGIN_MM + TEMPLATE_AREA.widthMm) * PT,
              y: 0,
              w: widthMm * PT,
              h: heightMm * PT,
            },
            ...{ color: '#ffffff', lineWidth: 0, lineColor: '#ffffff' },
          },
          {
            ...{
              type: 'rect',
              x: 0,
              y: (MARGIN_MM + TEMPLATE_AREA.heightMm) * PT,
              w: widthMm * PT,
              h: heightMm * PT,
            },
            ...{ color: '#ffffff', lineWidth: 0, lineColor: '#ffffff' },
          },
        ],
        absolutePosition: { x: 0, y: 0 },
      },
      { canvas: ruler(), absolutePosition: { x: MARGIN_MM * PT, y: (bottom + 4) * PT } },
      {
        text: `100 mm: if it isn’t, print at 100 %.   ${title}   sheet ${i + 1} of ${sheets.length}${sheets.length > 1 ? `, row ${sheet.row + 1}, column ${sheet.column + 1}; overlaps by 10 mm` : ''}`,
        fontSize: 8,
        absolutePosition: { x: MARGIN_MM * PT, y: (bottom + 10) * PT },
      },
    ],
    ...(i > 0 && { pageBreak: 'before' as const }),
  });
  return {
    pageSize: { width: widthMm * PT, height: heightMm * PT },
    pageMargins: [0, 0, 0, 0],
    content: sheets.map(page),
  };
}
