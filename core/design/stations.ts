/** The opening of a container seen from above, cm. */
export interface Opening {
  shape: 'rectangle' | 'round';
  widthCm: number;
  /** the same as the width where it is round */
  depthCm: number;
}

/** Where a plant goes, cm from the left and from the back of the opening. */
export interface Station {
  x: number;
  y: number;
}

/**
 * How many times the diameter of equal circles their surrounding circle needs: densest packings known (Graham et al.
 * 1998, from memory; re-derived for 2 to 7 by geometry in the tests).
 */
const roundRatio = [0, 1, 2, 2.1547, 2.4142, 2.7013, 3, 3, 3.3048, 3.6131, 3.813, 3.9238, 4.0296];
/** Beyond the table: circles fill about this share of a round opening. */
const ROUND_FILL = 0.74;

const areaOf = ({ shape, widthCm, depthCm }: Opening): number =>
  (shape === 'round' ? Math.PI / 4 : 1) * widthCm * depthCm;

/** Circles of a diameter in a rectangle, in straight rows. */
const inRows = (w: number, d: number, plant: number) =>
  Math.floor(w / plant + 1e-9) * Math.floor(d / plant + 1e-9);

/** Circles of a diameter in a rectangle, each row set off by half against the next. */
function staggered(w: number, d: number, plant: number): number {
  if (w < plant || d < plant) return 0;
  const pitch = (plant * Math.sqrt(3)) / 2;
  const rows = 1 + Math.floor((d - plant) / pitch + 1e-9);
  const full = Math.floor(w / plant + 1e-9);
  const between = Math.floor((w - plant / 2) / plant + 1e-9);
  return Math.ceil(rows / 2) * full + Math.floor(rows / 2) * between;
}

/**
 * How many plants of a full-grown diameter stand in an opening without touching.
 * @param plantCm full-grown diameter
 * @example howManyFit({ shape: 'round', widthCm: 30, depthCm: 30 }, 10) // 7
 */
export function howManyFit(opening: Opening, plantCm: number): number {
  const { shape, widthCm: w, depthCm: d } = opening;
  if (!(plantCm > 0)) return 0;
  if (shape === 'rectangle') {
    return Math.max(inRows(w, d, plantCm), staggered(w, d, plantCm), staggered(d, w, plantCm));
  }
  const ratio = Math.min(w, d) / plantCm;
  let n = 0;
  for (let k = 1; k < roundRatio.length; k++) if (roundRatio[k]! <= ratio + 1e-9) n = k;
  return n < roundRatio.length - 1 ? n : Math.max(n, Math.floor(ROUND_FILL * ratio ** 2));
}

/**
 * Share of the opening that so many full-grown plants cover, 1 or more: they stand in each other.
 * @example crowding({ shape: 'rectangle', widthCm: 20, depthCm: 20 }, 4, 10) // 0.785…
 */
export const crowding = (opening: Opening, n: number, plantCm: number): number =>
  (n * Math.PI * (plantCm / 2) ** 2) / areaOf(opening);

const GOLDEN_ANGLE = Math.PI * (3 - Math.sqrt(5));

function inRound(n: number, radius: number): Station[] {
  const at = (r: number, angle: number) => ({
    x: radius + r * Math.cos(angle),
    y: radius + r * Math.sin(angle),
  });
  const ring = (count: number, r: number) =>
    Array.from({ length: count }, (_, i) => at(r, (2 * Math.PI * i) / count - Math.PI / 2));
  if (n === 1) return [at(0, 0)];
  if (n <= 5) return ring(n, radius * 0.58);
  if (n <= 8) return [at(0, 0), ...ring(n - 1, radius * 0.66)];
  // Sunflower heads fill a disc evenly (Vogel 1979).
  return Array.from({ length: n }, (_, i) => at(radius * Math.sqrt((i + 0.5) / n) * 0.96, i * GOLDEN_ANGLE));
}

function inRectangle(n: number, w: number, d: number): Station[] {
  const rows = Math.min(n, Math.max(1, Math.round(Math.sqrt((n * d) / w))));
  return Array.from({ length: rows }, (_, r) => {
    const from = Math.floor((r * n) / rows);
    const count = Math.floor(((r + 1) * n) / rows) - from;
    return Array.from({ length: count }, (_, i) => ({
      x: ((i + 0.5) * w) / count,
      y: ((r + 0.5) * d) / rows,
    }));
  }).flat();
}

/**
 * Stations for so many plants, evenly spaced over an opening: rings and spirals in a round one, rows in a rectangle.
 * @example stations({ shape: 'rectangle', widthCm: 20, depthCm: 10 }, 2) // [{ x: 5, y: 5 }, { x: 15, y: 5 }]
 */
export const stations = ({ shape, widthCm, depthCm }: Opening, n: number): Station[] =>
  n < 1 ? [] : shape === 'round' ? inRound(n, widthCm / 2) : inRectangle(n, widthCm, depthCm);

/** Least distance between two stations, cm; Infinity with fewer than two. */
export function leastDistance(list: readonly Station[]): number {
  let least = Infinity;
  list.forEach((a, i) => {
    for (const b of list.slice(i + 1)) least = Math.min(least, Math.hypot(a.x - b.x, a.y - b.y));
  });
  return least;
}

/** What is sown for so many plants. */
export interface Sowing {
  seeds: number;
  /** null without a thousand-seed weight */
  weightG: number | null;
}

/**
 * Seeds to sow so that about so many plants come: pure live seed = purity × germination.
 * @param thousandSeedG null: not known
 * @example sowingFor(20, { germinationPercent: 80, purityPercent: 100, thousandSeedG: 2.5 }) // { seeds: 25, weightG: 0.0625 }
 */
export function sowingFor(
  plants: number,
  lot: { germinationPercent: number; purityPercent: number; thousandSeedG: number | null },
): Sowing {
  const live = (lot.germinationPercent / 100) * (lot.purityPercent / 100);
  const seeds = Math.ceil(plants / live - 1e-9);
  // Weight holds what isn't pure too: it is weighed as it comes.
  return {
    seeds,
    weightG:
      lot.thousandSeedG === null
        ? null
        : (Math.ceil(plants / (lot.germinationPercent / 100) - 1e-9) * lot.thousandSeedG) /
          1000 /
          (lot.purityPercent / 100),
  };
}

/** One sheet of a template: what part of the opening it shows. */
export interface TemplateSheet {
  row: number;
  column: number;
  /** its corner, mm from the left and back of the opening */
  xMm: number;
  yMm: number;
}

/** Printable part of a sheet, mm: what a template may use of A4 or Letter with margins every printer keeps. */
export const TEMPLATE_AREA = { widthMm: 180, heightMm: 250 } as const;
/** Sheets overlap by this, to be glued. */
const TEMPLATE_OVERLAP_MM = 10;

/** The sheets a template at 1:1 is printed on, row by row. @example templateSheets({ shape: 'round', widthCm: 15, depthCm: 15 }).length // 1 */
export function templateSheets({ widthCm, depthCm }: Opening): TemplateSheet[] {
  const count = (mm: number, sheet: number) =>
    Math.max(1, Math.ceil((mm - TEMPLATE_OVERLAP_MM) / (sheet - TEMPLATE_OVERLAP_MM) - 1e-9));
  const columns = count(widthCm * 10, TEMPLATE_AREA.widthMm);
  const rows = count(depthCm * 10, TEMPLATE_AREA.heightMm);
  return Array.from({ length: rows * columns }, (_, i) => {
    const [row, column] = [Math.floor(i / columns), i % columns];
    return {
      row,
      column,
      xMm: column * (TEMPLATE_AREA.widthMm - TEMPLATE_OVERLAP_MM),
      yMm: row * (TEMPLATE_AREA.heightMm - TEMPLATE_OVERLAP_MM),
    };
  });
}
