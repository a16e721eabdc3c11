import { type Result, err, ok } from '../model/result';
import { type Cell, type LayoutError, type LayoutInput, type PlacedCell, layoutProblem } from './randomise';
import { type Random, oneOf, seededRandom } from '../stats/random';

/**
 * A Latin square drawn at random: n × n symbols 0 … n − 1, each once in every row and column. All squares
 * are equally likely in the limit of the random walk; rows, columns and symbols are shuffled at the end.
 *
 * @param n order, ≥ 1
 * @returns rows of symbols
 * Source: Jacobson and Matthews, Journal of Combinatorial Designs 4 (1996), 405–437 (memory): the walk
 * through proper and improper squares; the state at the n²-th proper square, about n³ steps on, is taken.
 * @example randomLatinSquare(2, seededRandom(1)) // [[0, 1], [1, 0]] or [[1, 0], [0, 1]]
 */
export function randomLatinSquare(n: number, random: Random): number[][] {
  const walked = n < 4 ? cyclic(n) : walkedSquare(n, random);
  const order = () => random.shuffle(Array.from({ length: n }, (_, i) => i));
  const [rows, columns, symbols] = [order(), order(), order()];
  return rows.map((r) => columns.map((c) => symbols[walked[r]![c]!]!));
}

/** Of order 2 and 3 every square is the cyclic one with rows, columns and symbols shuffled. */
const cyclic = (n: number) =>
  Array.from({ length: n }, (_, r) => Array.from({ length: n }, (_, c) => (r + c) % n));

function walkedSquare(n: number, random: Random): number[][] {
  // The incidence cube: 1 where row r, column c holds symbol s; a line of an improper square holds 1, 1, −1.
  const cube = new Int8Array(n * n * n);
  const at = (r: number, c: number, s: number) => (r * n + c) * n + s;
  for (let r = 0; r < n; r++) for (let c = 0; c < n; c++) cube[at(r, c, (r + c) % n)] = 1;
  let improper: [number, number, number] | null = null;

  const onesAlong = (index: (i: number) => number) => {
    const ones: number[] = [];
    for (let i = 0; i < n; i++) if (cube[index(i)] === 1) ones.push(i);
    return ones.length === 1 ? ones[0]! : oneOf(random, ones);
  };
  const step = () => {
    let [r, c, s] = improper ?? [0, 0, 0];
    if (!improper) {
      do {
        [r, c, s] = [random.int(0, n - 1), random.int(0, n - 1), random.int(0, n - 1)];
      } while (cube[at(r, c, s)] !== 0);
    }
    const r1 = onesAlong((i) => at(i, c, s));
    const c1 = onesAlong((i) => at(r, i, s));
    const s1 = onesAlong((i) => at(r, c, i));
    for (const [x, y, z, d] of [
      [r, c, s, 1],
      [r, c1, s1, 1],
      [r1, c, s1, 1],
      [r1, c1, s, 1],
      [r1, c, s, -1],
      [r, c1, s, -1],
      [r, c, s1, -1],
      [r1, c1, s1, -1],
    ] as const) {
      cube[at(x, y, z)]! += d;
    }
    improper = cube[at(r1, c1, s1)]! < 0 ? [r1, c1, s1] : null;
  };
  for (let proper = 0; proper < n * n;) {
    step();
    if (!improper) proper += 1;
  }
  return Array.from({ length: n }, (_, r) =>
    Array.from({ length: n }, (_, c) => {
      let s = 0;
      while (cube[at(r, c, s)] !== 1) s += 1;
      return s;
    }),
  );
}

/**
 * Windows of size × size free positions that don't overlap: inside one area where they fit, else over
 * several areas whose columns stand in line (the levels of a shelf).
 */
function windows(cells: readonly Cell[], size: number, wanted: number): Cell[][][] {
  const free = new Map(cells.map((c) => [`${c.area}/${c.row}/${c.column}`, c]));
  const widest = Math.max(...cells.map((c) => c.column)) + 1;
  const rowsOf = (areas: readonly string[]) => {
    const seen = new Map<string, Pick<Cell, 'area' | 'row'>>();
    for (const c of cells) if (areas.includes(c.area)) seen.set(`${c.area}/${c.row}`, c);
    return [...seen.values()];
  };
  const squares: Cell[][][] = [];
  const search = (areas: readonly string[]) => {
    for (let left = 0; left + size <= widest && squares.length < wanted; left++) {
      const window = ({ area, row }: Pick<Cell, 'area' | 'row'>) =>
        Array.from({ length: size }, (_, i) => free.get(`${area}/${row}/${left + i}`));
      let rows = rowsOf(areas).filter((r) => window(r).every(Boolean));
      while (rows.length >= size && squares.length < wanted) {
        const square = rows.slice(0, size).map((r) => window(r) as Cell[]);
        for (const c of square.flat()) free.delete(`${c.area}/${c.row}/${c.column}`);
        squares.push(square);
        rows = rows.slice(size);
      }
    }
  };
  const areas = [...new Set(cells.map((c) => c.area))];
  for (const area of areas) search([area]);
  search(areas);
  return squares;
}

/**
 * Latin squares: each treatment once in every row and every column of a square, so that a gradient along
 * either is taken off. Every square is equally likely.
 *
 * @param input replicates: the number of treatments, or a multiple for several squares
 * @returns `block` is the row and `columnBlock` the column, both counted on over the squares
 */
export function latinSquares<T>(input: LayoutInput<T>): Result<PlacedCell<T>[], LayoutError> {
  const problem = layoutProblem(input);
  if (problem) return err(problem);
  const { treatments, replicates, cells, seed } = input;
  const k = treatments.length;
  if (replicates % k !== 0) return err({ tag: 'notWholeSquares', treatments: k, replicates });
  const wanted = replicates / k;
  const squares = windows(cells, k, wanted);
  if (squares.length < wanted) {
    return err({ tag: 'noRoomForSquare', size: k, wanted, available: squares.length });
  }
  const random = seededRandom(seed);
  return ok(
    squares.flatMap((window, q) =>
      randomLatinSquare(k, random).flatMap((symbols, r) =>
        symbols.map((symbol, c) => ({
          ...window[r]![c]!,
          block: q * k + r + 1,
          columnBlock: q * k + c + 1,
          treatment: treatments[symbol]!,
        })),
      ),
    ),
  );
}
