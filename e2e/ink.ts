import type { Browser, Page } from 'puppeteer-core';

/** Dots per inch the pages are drawn at: a dot is a quarter of a millimetre. */
const DPI = 101.6;

/** How much of one side of paper stays free, in mm from each of its edges; nothing is on it where all are the paper's size. */
export interface Ink {
  paper: { widthMm: number; heightMm: number };
  free: { left: number; top: number; right: number; bottom: number };
  /** the part of the page's height that has ink on it, 0 to 1 */
  filled: number;
}

interface PdfPage {
  getViewport: (o: { scale: number }) => { width: number; height: number };
  render: (o: object) => { promise: Promise<void> };
}
interface Pdfjs {
  GlobalWorkerOptions: { workerSrc: string };
  getDocument: (o: object) => {
    promise: Promise<{ numPages: number; getPage: (n: number) => Promise<PdfPage> }>;
  };
}

/** Draws PDF files in a blank page of the browser, by the library that also shows them to people. */
export class Press {
  private readonly page: Page;
  private constructor(page: Page) {
    this.page = page;
  }

  static async setUp(browser: Browser): Promise<Press> {
    const page = await browser.newPage();
    for (const part of ['pdf.worker.mjs', 'pdf.mjs'])
      await page.addScriptTag({ path: `node_modules/pdfjs-dist/build/${part}`, type: 'module' });
    await page.waitForFunction(() => 'pdfjsLib' in window && 'pdfjsWorker' in window);
    return new Press(page);
  }

  /** Where the ink of each page lies. */
  async inkOf(pdf: Uint8Array): Promise<Ink[]> {
    return this.page.evaluate(
      async (base64, dpi) => {
        const { pdfjsLib } = window as unknown as { pdfjsLib: Pdfjs };
        const data = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
        const file = await pdfjsLib.getDocument({ data, isEvalSupported: false }).promise;
        const mm = 25.4 / dpi;
        const pages: Ink[] = [];
        for (let n = 1; n <= file.numPages; n++) {
          const page = await file.getPage(n);
          const viewport = page.getViewport({ scale: dpi / 72 });
          const canvas = Object.assign(document.createElement('canvas'), {
            width: Math.round(viewport.width),
            height: Math.round(viewport.height),
          });
          const canvasContext = canvas.getContext('2d')!;
          await page.render({ canvasContext, viewport }).promise;
          const { width, height } = canvas;
          const dots = canvasContext.getImageData(0, 0, width, height).data;
          let [left, top, right, bottom, rows] = [width, height, -1, -1, 0];
          for (let y = 0; y < height; y++) {
            let hasInk = false;
            for (let x = 0; x < width; x++) {
              const i = 4 * (y * width + x);
              // Paper is white; a hair of a rounded edge isn't ink.
              if (Math.min(dots[i]!, dots[i + 1]!, dots[i + 2]!) > 250) continue;
              hasInk = true;
              left = Math.min(left, x);
              right = Math.max(right, x);
            }
            if (!hasInk) continue;
            rows += 1;
            top = Math.min(top, y);
            bottom = y;
          }
          pages.push({
            paper: { widthMm: width * mm, heightMm: height * mm },
            free: {
              left: left * mm,
              top: top * mm,
              right: (width - 1 - right) * mm,
              bottom: (height - 1 - bottom) * mm,
            },
            filled: rows / height,
          });
        }
        return pages;
      },
      Buffer.from(pdf).toString('base64'),
      DPI,
    );
  }
}
