import { type Result, err, ok } from '../model/result';

/** A heading people weigh differently: looks, yield, value … */
export interface Heading {
  name: string;
  /** from 0; only the proportions of all count */
  weight: number;
}

/** A contender's points under each heading, 0 to 10, in the order of the headings. */
export interface Points {
  name: string;
  points: readonly number[];
}

export interface Scored {
  name: string;
  /** weighted mean of the points, 0 to 10 */
  score: number;
  /** 1 + those with a higher score; shared by ties */
  place: number;
}

/** How far a heading's weight must move before another contender leads. */
export interface Flip {
  heading: string;
  /** share of 1 */
  weightNow: number;
  /** the nearest other share at which another contender draws level with the first; null: none does */
  weightThen: number | null;
  /** who leads beyond it */
  winner: string | null;
}

export interface Scorecard {
  contenders: Scored[];
  flips: Flip[];
}

export type ScorecardError =
  | { tag: 'noHeadings' }
  | { tag: 'badWeight'; heading: string }
  | { tag: 'noWeight' }
  | { tag: 'fewContenders' };

/** Scores nearer than this are level: points and weights have few digits. */
const LEVEL = 1e-9;

/**
 * Weighs the headings, and says for each how far its weight must move, the rest kept in proportion, before another
 * contender draws level with the first. Scores are straight lines in a heading's weight, so the point is exact.
 *
 * @example scorecard([{ name: 'looks', weight: 1 }, { name: 'yield', weight: 1 }], […]).value.flips[0].weightThen // 0.6
 */
export function scorecard(
  headings: readonly Heading[],
  contenders: readonly Points[],
): Result<Scorecard, ScorecardError> {
  if (headings.length === 0) return err({ tag: 'noHeadings' });
  const bad = headings.find((h) => !Number.isFinite(h.weight) || h.weight < 0);
  if (bad) return err({ tag: 'badWeight', heading: bad.name });
  const total = headings.reduce((s, h) => s + h.weight, 0);
  if (!(total > 0)) return err({ tag: 'noWeight' });
  if (contenders.length < 2) return err({ tag: 'fewContenders' });
  const shares = headings.map((h) => h.weight / total);
  const score = (c: Points) => c.points.reduce((s, x, i) => s + shares[i]! * x, 0);
  const scores = contenders.map(score);
  return ok({
    contenders: contenders.map((c, i) => ({
      name: c.name,
      score: scores[i]!,
      place: 1 + scores.filter((s) => s > scores[i]! + LEVEL).length,
    })),
    flips: headings.map((h, i) => ({
      heading: h.name,
      weightNow: shares[i]!,
      ...nearestFlip(contenders, shares, i),
    })),
  });
}

/** A contender's score as a line in the weight of one heading. */
interface Line {
  name: string;
  at: (weight: number) => number;
  slope: number;
}

function nearestFlip(
  contenders: readonly Points[],
  shares: readonly number[],
  heading: number,
): Pick<Flip, 'weightThen' | 'winner'> {
  const now = shares[heading]!;
  const rest = 1 - now;
  // All weight on this heading: the rest has no proportion to keep.
  if (rest <= LEVEL) return { weightThen: null, winner: null };
  const lines = contenders.map(({ name, points }): Line => {
    const others = points.reduce((s, x, i) => (i === heading ? s : s + (shares[i]! / rest) * x), 0);
    const slope = points[heading]! - others;
    return { name, slope, at: (w) => others + w * slope };
  });
  const crossings = [crossing(lines, now, 1), crossing(lines, now, -1)].filter((c) => c !== null);
  const nearest = crossings.sort((a, b) => Math.abs(a.weight - now) - Math.abs(b.weight - now))[0];
  return nearest
    ? { weightThen: nearest.weight, winner: nearest.winner }
    : { weightThen: null, winner: null };
}

/** Where, going one way, somebody who isn't first now draws level with who leads on the way. */
function crossing(
  lines: readonly Line[],
  now: number,
  way: 1 | -1,
): { weight: number; winner: string } | null {
  const best = Math.max(...lines.map((l) => l.at(now)));
  const first = lines.filter((l) => l.at(now) >= best - LEVEL);
  // Of those level now the one that gains most on the way leads it.
  const leader = first.reduce((a, b) => (way * b.slope > way * a.slope ? b : a));
  const end = way === 1 ? 1 : 0;
  const meetings = lines.flatMap((l) => {
    const gain = way * (l.slope - leader.slope);
    if (first.includes(l) || gain <= LEVEL) return [];
    const weight = now + (way * (leader.at(now) - l.at(now))) / gain;
    return way * (end - weight) < -LEVEL ? [] : [{ weight: Math.min(1, Math.max(0, weight)), line: l }];
  });
  if (meetings.length === 0) return null;
  const nearest = Math.min(...meetings.map((m) => way * (m.weight - now)));
  const level = meetings.filter((m) => way * (m.weight - now) <= nearest + LEVEL);
  // Several draw level at once: the one that gains most leads beyond.
  const winner = level.reduce((a, b) => (way * b.line.slope > way * a.line.slope ? b : a));
  return { weight: winner.weight, winner: winner.line.name };
}
