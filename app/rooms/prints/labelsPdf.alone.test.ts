import { DOMMatrix, ImageData, Path2D, createCanvas } from '@napi-rs/canvas';
import jsQR from 'jsqr';
import { describe, expect, it, vi } from 'vitest';
import { defaultSheet, labelBoxes } from '~core/formats/labelSheet';
import { plan } from '~core/testing/trial';
import { unitLabels } from './labelContent';
import { pdfBlob } from '../../ui/pdfBlob';
import { labelsDocument } from './labelsPdf';
import { templateDocument } from './templatePdf';

// The tile takes its colours from the page; here its place is enough.
vi.mock('../../ui/tesseraSvg', () => ({ tesseraSvg: () => '<svg width="9" height="9"></svg>' }));
// What the renderer looks for in a browser.
Object.assign(globalThis, { DOMMatrix, ImageData, Path2D });

const DPI = 200;
const perMm = DPI / 25.4;

/** A page of a PDF as a printer would lay it down, in pixels. */
async function printed(document: Parameters<typeof pdfBlob>[0], page: number) {
  const data = new Uint8Array(await (await pdfBlob(document)).arrayBuffer());
  const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const pdf = await getDocument({ data, useSystemFonts: false, verbosity: 0 }).promise;
  const sheet = await pdf.getPage(page);
  const viewport = sheet.getViewport({ scale: DPI / 72 });
  const canvas = createCanvas(Math.round(viewport.width), Math.round(viewport.height));
  const canvasContext = canvas.getContext('2d');
  canvasContext.fillStyle = '#fff';
  canvasContext.fillRect(0, 0, canvas.width, canvas.height);
  await sheet.render({ canvasContext: canvasContext as never, viewport }).promise;
  return { canvasContext, canvas, pages: pdf.numPages };
}

describe('labels as they are printed', () => {
  it('each QR code is read back from the page’s pixels as the code of its unit', async () => {
    const p = plan({ replicates: 4 });
    const labels = unitLabels(p, new Map(p.units.map((u) => [u.id, u.position])), false);
    const boxes = labelBoxes(defaultSheet, labels.length);
    if (!boxes.ok) throw new Error();
    const { canvasContext } = await printed(labelsDocument(defaultSheet, labels, boxes.value, 'test'), 1);
    const read = boxes.value.map((b) => {
      const [x, y, w, h] = [b.xMm, b.yMm, b.widthMm, b.heightMm].map((mm) => Math.round(mm * perMm));
      const { data } = canvasContext.getImageData(x!, y!, w!, h!);
      return jsQR(new Uint8ClampedArray(data), w!, h!)?.data;
    });
    expect(read).toEqual(labels.map((l) => l.qr));
    expect(new Set(read).size).toBe(p.units.length);
  });
});

describe('a planting template as it is printed', () => {
  it('its ruler is 100 mm, and stations lie where the plan has them', async () => {
    const opening = { shape: 'rectangle', widthCm: 15, depthCm: 10 } as const;
    const stations = [
      { x: 4, y: 3 },
      { x: 11, y: 7 },
    ];
    const { canvasContext, canvas, pages } = await printed(
      templateDocument(opening, stations, null, 'A4', 'test'),
      1,
    );
    expect(pages).toBe(1);
    const { data } = canvasContext.getImageData(0, 0, canvas.width, canvas.height);
    const dark = (x: number, y: number) => data[(y * canvas.width + x) * 4]! < 160;
    const row = (y: number) => Array.from({ length: canvas.width }, (_, x) => dark(x, y));
    // The longest dark run of the lower fifth of the page is the ruler.
    const runs = Array.from({ length: Math.round(canvas.height / 5) }, (_, i) => {
      const y = canvas.height - 1 - i;
      const line = row(y)
        .map((d) => (d ? '1' : '0'))
        .join('');
      return Math.max(0, ...line.split('0').map((r) => r.length));
    });
    expect(Math.max(...runs) / perMm).toBeGreaterThan(99.5);
    expect(Math.max(...runs) / perMm).toBeLessThan(100.7);
    // 12 mm of margin, then 40 mm and 30 mm to the first cross (by hand).
    for (const [xMm, yMm] of [
      [12 + 40, 12 + 30],
      [12 + 110, 12 + 70],
    ] as const) {
      const around = [-1, 0, 1].flatMap((dx) => [-1, 0, 1].map((dy) => [dx, dy] as const));
      expect(
        around.some(([dx, dy]) => dark(Math.round(xMm * perMm) + dx, Math.round(yMm * perMm) + dy)),
      ).toBe(true);
      expect(dark(Math.round((xMm + 6) * perMm), Math.round((yMm + 6) * perMm))).toBe(false);
    }
  });
});
