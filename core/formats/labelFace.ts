/** What is written on a label: large, below it, small. */
export interface LabelWords {
  title: string;
  name: string;
  small: string;
}

/** How large the parts of a label are, in mm; the tile stands top left, the QR code at the right, in the middle. */
export interface LabelFace {
  padMm: number;
  tileMm: number;
  qrMm: number;
  /** between the edges of what is written */
  textMm: number;
  /** name and small print go below the tile, else beside it under the title */
  isStacked: boolean;
  titleMm: number;
  nameMm: number;
  smallMm: number;
}

/** A letter's width as part of its size: of the bold serif of titles, of the sans of the rest (both measured, rounded up). */
const WIDE = { title: 0.64, rest: 0.5 };
const LINE = 1.25;
/** between tile, words and QR code */
const GAP_MM = 2;

const lines = (text: string, sizeMm: number, widthMm: number) =>
  text === '' ? 0 : Math.ceil((text.length * WIDE.rest * sizeMm) / widthMm);

/**
 * The face of a label: as large as its box and its words let it be, to be read from where one stands.
 *
 * @param box in mm, 38 × 18 and more
 * @returns sizes in mm with which all words fit, down to small print of 1.5 mm
 * @example labelFace({ widthMm: 63.7, heightMm: 36 }, { title: 'COR-01 D', name: 'Sarmenta Fine', small: 'block 1' }).tileMm // 12.7
 */
export function labelFace(box: { widthMm: number; heightMm: number }, words: LabelWords): LabelFace {
  const padMm = Math.min(3, box.heightMm * 0.08);
  const height = box.heightMm - 2 * padMm;
  const width = box.widthMm - 2 * padMm;
  const qrMm = Math.min(height, width * 0.34, 24);
  const isStacked = height >= 24;
  const tileMm = isStacked ? Math.min(height * 0.44, width * 0.22, 14) : Math.min(height, width * 0.2, 12);
  const besideTile = width - qrMm - tileMm - 2 * GAP_MM;
  const textMm = isStacked ? width - qrMm - GAP_MM : besideTile;
  const widest = besideTile / (WIDE.title * Math.max(1, words.title.length));
  const face = (scale: number): LabelFace => ({
    padMm,
    tileMm,
    qrMm,
    textMm,
    isStacked,
    titleMm: Math.min(6, height * 0.36, widest),
    nameMm: 4.2 * Math.max(scale, 0.8),
    smallMm: 3 * scale,
  });
  const takes = (f: LabelFace) =>
    (isStacked ? Math.max(tileMm, LINE * f.titleMm) + 1 : LINE * f.titleMm) +
    LINE *
      (f.nameMm * lines(words.name, f.nameMm, textMm) + f.smallMm * lines(words.small, f.smallMm, textMm));
  for (let step = 20; step > 10; step--) {
    const tried = face(step / 20);
    if (takes(tried) <= height) return tried;
  }
  return face(0.5);
}
