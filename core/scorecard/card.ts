import tQuantile from '@stdlib/stats-base-dists-t-quantile';
import { formatMoney } from '../quantity/money';
import type { CardHeading } from '../model/judgement';
import type { Plan } from '../model/plan';
import { kindOf } from '../model/traitKinds';
import { controlOf } from '../plan/control';
import { formatFigure } from '../quantity/format';
import { wholePercents } from '../quantity/percents';
import { seededRandom } from '../stats/random';
import type { Finding } from '../account/finding';
import { type CardInput, type Source, sourceOf } from './cardSource';
import { type Flip, scorecard } from './scorecard';
import type { VerdictLine } from '../verdict/verdict';

/** A contender under one heading: its figure, what is uncertain about it, and its points. */
export interface CardCell {
  /** null where there is no figure: died, left out, not priced */
  figure: number | null;
  points: number | null;
  /** points at the ends of what the figure may be; null where its spread isn't known */
  low: number | null;
  high: number | null;
  /** why there is no figure, or the reviewer's reason */
  said: string;
}

interface CardRow {
  heading: CardHeading;
  /** how the figure becomes points, in words */
  rule: string;
  cells: Map<string, CardCell>;
  /** in how many of 100 draws each is first under this heading alone; null where there is no spread to draw from */
  firsts: Map<string, number> | null;
  /** its share of all weights that count, in whole per cents that add up to 100 */
  sharePercent: number;
  /** contenders nothing is told to be better than, by the heading's own finding; null where there is no such test */
  leaders: string[] | null;
}

export interface Card {
  rows: CardRow[];
  /** weighted mean of points, and in how many of 100 draws of the findings' own spread the contender is first */
  contenders: { id: string; score: number | null; place: number | null; firstOf100: number | null }[];
  flips: (Flip & { id: string })[];
  /** headings or contenders that keep the card from being added up, in words */
  open: string[];
}

const DRAWS = 2000;

const costSaid = (lines: readonly VerdictLine[], id: string): string => {
  const line = lines.find((l) => l.treatment.id === id);
  return line?.cost.ok ? formatMoney(line.cost.value.perUnit) : '';
};

/** The figures that get 0 and 10, and the rule in words. */
function ruleOf(
  heading: CardHeading,
  source: Source,
  control: string | null,
  nameOf: (id: string) => string,
): { zero: number; ten: number; rule: string } {
  if (heading.scale) {
    const { zero, ten } = heading.scale;
    return { zero, ten, rule: `${zero} ${source.unit} is 0, ${ten} is 10`.replace(/ {2,}/g, ' ') };
  }
  const values = [...source.figures.values()];
  const good = (v: number) => source.better * v;
  const best = values.reduce((a, b) => (good(b) > good(a) ? b : a), values[0]!);
  const worst = values.reduce((a, b) => (good(b) < good(a) ? b : a), values[0]!);
  const base = control === null ? undefined : source.figures.get(control);
  // Where the control itself is the best there is nothing above it to measure by.
  return base !== undefined && good(best) > good(base)
    ? { zero: base, ten: best, rule: `${nameOf(control!)} is 0, the best is 10` }
    : { zero: worst, ten: best, rule: 'the worst is 0, the best is 10' };
}

const pointsAt = (figure: number, zero: number, ten: number): number =>
  ten === zero ? 5 : Math.min(10, Math.max(0, (10 * (figure - zero)) / (ten - zero)));

/**
 * A scorecard: each heading's figures as points by a written rule, their weighted mean, how certain the first place is
 * (figures drawn anew from the findings' own spread), and how far a weight must move before another leads.
 *
 * Without a figure under a heading that counts a contender has no total: it is named, not guessed.
 */
export function makeCard(input: CardInput): Card {
  const { plan, headings, nameOf, seed = 1 } = input;
  const held = (controlOf(plan)?.id as string | undefined) ?? null;
  const ids = plan.treatments.map((t) => t.id as string);
  const open: string[] = [];
  const made = headings.flatMap((heading) => {
    const source = sourceOf(heading, input);
    if (!source || source.figures.size === 0) {
      open.push(`${heading.name}: there are no figures for it yet.`);
      return [];
    }
    const own =
      heading.from.kind === 'own'
        ? { zero: 0, ten: 10, rule: 'the reviewer’s own points, with reasons' }
        : null;
    return [{ heading, source, ...(own ?? ruleOf(heading, source, held, nameOf)) }];
  });
  const shares = wholePercents(made.map((m) => m.heading.weight));
  const rows = made.map(({ heading, source, zero, ten, rule }, at): CardRow => ({
    heading,
    rule,
    sharePercent: shares[at]!,
    leaders: source.leaders ?? null,
    firsts: firstsAlone({ heading, source, zero, ten }, ids, seed),
    cells: new Map(
      ids.map((id): [string, CardCell] => {
        const figure = source.figures.get(id);
        if (figure === undefined)
          return [id, { figure: null, points: null, low: null, high: null, said: source.absent(id) }];
        const se = source.spread.get(id);
        const ends =
          se === undefined
            ? null
            : [figure - half(source) * se, figure + half(source) * se]
                .map((v) => pointsAt(v, zero, ten))
                .sort((a, b) => a - b);
        const reason = heading.from.kind === 'own' ? (heading.from.points[id]?.reason ?? '') : '';
        return [
          id,
          {
            figure,
            points: pointsAt(figure, zero, ten),
            low: ends?.[0] ?? null,
            high: ends?.[1] ?? null,
            said:
              heading.from.kind === 'own'
                ? reason
                : heading.from.kind === 'cost'
                  ? costSaid(input.lines, id)
                  : `${formatFigure(figure, source.decimals)} ${source.unit}`.trim(),
          },
        ];
      }),
    ),
  }));
  const counting = rows.filter((r) => r.heading.weight > 0);
  const grounds = input.findings.some((f) => f.grounds !== undefined);
  if (grounds)
    open.push(
      'Contenders stand on different grounds, such as two species: points over both can’t be added up.',
    );
  const whole = ids.filter(
    (id) => !grounds && counting.length > 0 && counting.every((r) => r.cells.get(id)!.points !== null),
  );
  for (const id of grounds ? [] : ids.filter((x) => !whole.includes(x))) {
    const missing = counting.filter((r) => r.cells.get(id)!.points === null);
    if (missing.length > 0)
      open.push(
        `${nameOf(id)} has no total: ${missing.map((r) => `${r.heading.name}, ${r.cells.get(id)!.said}`).join('; ')}.`,
      );
  }
  const added = scorecard(
    rows.map((r) => ({ name: r.heading.name, weight: r.heading.weight })),
    whole.map((id) => ({ name: id, points: rows.map((r) => r.cells.get(id)!.points ?? 0) })),
  );
  if (!added.ok) {
    if (added.error.tag === 'noWeight') open.push('No heading has a weight yet.');
    return {
      rows,
      contenders: ids.map((id) => ({ id, score: null, place: null, firstOf100: null })),
      flips: [],
      open,
    };
  }
  // Without a spread to draw from a lead may be chance, and nobody knows how often.
  const blind = made.filter(
    ({ heading: { weight, from }, source }) =>
      weight > 0 &&
      (from.kind === 'trait' || from.kind === 'evenness' || from.kind === 'panel') &&
      whole.some((id) => !source.spread.has(id)),
  );
  for (const { heading } of blind)
    open.push(`How sure the first place is can’t be said: ${heading.name} has no spread to draw from.`);
  const first = blind.length > 0 ? null : certainty(made, whole, seed);
  return {
    rows,
    contenders: ids.map((id) => {
      const own = added.value.contenders.find((c) => c.name === id);
      return {
        id,
        score: own?.score ?? null,
        place: own?.place ?? null,
        firstOf100: own && first ? Math.round(100 * (first.get(id) ?? 0)) : null,
      };
    }),
    flips: added.value.flips.map((f, i) => ({ ...f, id: rows[i]!.heading.id })),
    open,
  };
}

/** Half a 95 % interval in standard errors. */
const half = ({ df }: Source): number => (df === undefined ? 1.96 : tQuantile(0.975, df));

/** How often each is first under one heading alone, in 100 draws. */
function firstsAlone(
  made: { heading: CardHeading; source: Source; zero: number; ten: number },
  ids: readonly string[],
  seed: number,
): CardRow['firsts'] {
  const { from } = made.heading;
  const there = ids.filter((id) => made.source.figures.has(id));
  const drawn = from.kind === 'trait' || from.kind === 'evenness' || from.kind === 'panel';
  if (drawn && there.some((id) => !made.source.spread.has(id))) return null;
  const first = certainty([{ ...made, heading: { ...made.heading, weight: 1 } }], there, seed);
  return new Map([...first].map(([id, share]) => [id, Math.round(100 * share)]));
}

/** In what share of draws each contender is first; level ones share it. The rule that makes points isn't drawn anew. */
function certainty(
  made: readonly { heading: CardHeading; source: Source; zero: number; ten: number }[],
  ids: readonly string[],
  seed: number,
): Map<string, number> {
  const random = seededRandom(seed);
  const counting = made.filter((m) => m.heading.weight > 0);
  const total = counting.reduce((s, m) => s + m.heading.weight, 0);
  const first = new Map<string, number>();
  for (let d = 0; d < DRAWS; d++) {
    const drawn = counting.map((m) => m.source.draw?.(random) ?? ((id: string) => m.source.figures.get(id)!));
    const scores = ids.map((id) =>
      counting.reduce(
        (s, { heading, zero, ten }, i) => s + (heading.weight / total) * pointsAt(drawn[i]!(id), zero, ten),
        0,
      ),
    );
    const best = Math.max(...scores);
    const level = ids.filter((_, i) => scores[i]! > best - 1e-9);
    for (const id of level) first.set(id, (first.get(id) ?? 0) + 1 / level.length / DRAWS);
  }
  return first;
}

/** Headings a new card begins with: the deciding trait, its evenness where that has figures, and what it costs. */
export function proposedHeadings(plan: Plan, finding: Finding): CardHeading[] {
  const primary = plan.traits.find((t) => t.id === plan.primaryTraitId);
  const figures =
    primary && kindOf(primary).observes === 'continuous' && finding.analysis.summaries.every((s) => s.n > 2);
  return [
    ...(primary
      ? [
          {
            id: 'primary',
            name: primary.name,
            weight: 50,
            from: { kind: 'trait' as const, traitId: primary.id },
          },
        ]
      : []),
    ...(primary && figures
      ? [
          {
            id: 'evenness',
            name: 'Evenness',
            weight: 20,
            from: { kind: 'evenness' as const, traitId: primary.id },
          },
        ]
      : []),
    { id: 'value', name: 'Low cost', weight: 30, from: { kind: 'cost' as const } },
  ];
}

/** Ready-made weights, by kinds of heading. */
export const presets: Record<string, (h: CardHeading) => number> = {
  grower: (h) => ({ trait: 50, evenness: 20, cost: 20, panel: 20, own: 10 })[h.from.kind],
  cook: (h) => ({ trait: 20, evenness: 10, cost: 10, panel: 60, own: 60 })[h.from.kind],
  seller: (h) => ({ trait: 40, evenness: 40, cost: 15, panel: 15, own: 5 })[h.from.kind],
  saver: (h) => ({ trait: 25, evenness: 5, cost: 65, panel: 10, own: 5 })[h.from.kind],
};
