import fCdf from '@stdlib/stats-base-dists-f-cdf';
import chiQuantile from '@stdlib/stats-base-dists-chi-quantile';
import { comparedValue, moreIsBetter } from '../analysis/goodness';
import type { CardHeading } from '../model/judgement';
import type { Plan } from '../model/plan';
import { brownForsythe } from '../stats/brownForsythe';
import type { Random } from '../stats/random';
import { absenceOf } from '../account/absence';
import type { Finding } from '../account/finding';
import { leaders } from '../account/outcomes';
import type { VerdictLine } from '../verdict/verdict';

/** Figures that a heading's points are made from. */
export interface Source {
  /** by contender */
  figures: Map<string, number>;
  /** figures drawn from what is uncertain about them, all of one draw together; null where nothing is known of that */
  draw: ((random: Random) => (id: string) => number) | null;
  /** spread of a figure, for its bar */
  spread: Map<string, number>;
  /** degrees of freedom that spread was seen with; left out where it is known by other ways */
  df?: number;
  /** contenders that nothing is told to be better than, by the finding's own test; left out where there is none */
  leaders?: string[];
  better: 1 | -1;
  unit: string;
  decimals: number;
  absent: (id: string) => string;
}

/** What a card is made from. */
export interface CardInput {
  plan: Plan;
  headings: readonly CardHeading[];
  findings: readonly Finding[];
  lines: readonly VerdictLine[];
  nameOf: (id: string) => string;
  /** what blind panels said; left out where there were none */
  panels?: readonly PanelFigures[];
  seed?: number;
}

/** A draw of a chi-square over its degrees of freedom. */
const scaledChiSquare = (df: number, random: Random): number => {
  const chi = chiQuantile(Math.min(1 - 1e-9, Math.max(1e-9, random.uniform())), df);
  return chi ** 2 / df;
};

/** Spread of a contender's figure: what units of one contender differ by, blocks off; else from its interval. */
function standardError(finding: Finding, id: string): number | null {
  const s = finding.analysis.summaries.find((x) => x.name === id);
  if (!s) return null;
  if (finding.analysis.unitSd !== null) return finding.analysis.unitSd / Math.sqrt(s.n);
  return s.low === null || s.high === null ? null : (s.high - s.low) / (2 * 1.96);
}

function traitSource(finding: Finding): Source {
  const figures = new Map(
    finding.analysis.summaries.flatMap((s) => (s.shown === undefined ? [[s.name, s.estimate] as const] : [])),
  );
  const df = finding.analysis.unitDf;
  const spread = new Map<string, number>();
  for (const id of figures.keys()) {
    const se = standardError(finding, id);
    if (se !== null && finding.analysis.spread === 'shown') spread.set(id, se);
  }
  return {
    figures,
    spread,
    // The error all share is itself known by so many degrees of freedom: drawn once for all, that makes Student's t.
    draw: (random) => {
      const scale = df === undefined ? 1 : Math.sqrt(scaledChiSquare(df, random));
      return (id) => figures.get(id)! + ((spread.get(id) ?? 0) * random.normal()) / scale;
    },
    ...(df !== undefined && { df }),
    // On two grounds nobody leads over both; where nothing could be tested nobody is told to lead.
    leaders: finding.analysis.spread !== 'shown' || finding.grounds ? [] : leaders(finding),
    better: moreIsBetter(finding.trait) ? 1 : -1,
    unit:
      finding.trait.direction === 'band'
        ? `${finding.trait.unit} outside the band`.trim()
        : finding.trait.unit,
    decimals: Math.max(1, finding.trait.decimals),
    absent: (id) => {
      const shownFigure = finding.analysis.summaries.find((s) => s.name === id)?.shown;
      return shownFigure ?? absenceOf(finding, id) ?? '';
    },
  };
}

/**
 * Who is as even as the evenest: all, unless spreads differ by more than chance (Brown–Forsythe over all); then those whose
 * spread isn't told from the least (F, Bonferroni).
 */
function evenest(
  groups: ReadonlyMap<string, readonly number[]>,
  sds: ReadonlyMap<string, number>,
  alpha: number,
) {
  const ids = [...sds.keys()];
  const { p } = brownForsythe(ids.map((id) => groups.get(id)!));
  if (p === null || p > alpha || ids.length < 2) return ids;
  const least = ids.reduce((a, b) => (sds.get(b)! < sds.get(a)! ? b : a));
  const df = (id: string) => groups.get(id)!.length - 1;
  return ids.filter((id) => {
    const ratio = (sds.get(id)! / sds.get(least)!) ** 2;
    const tail = fCdf(1 / ratio, df(least), df(id));
    return id === least || !(2 * tail * (ids.length - 1) <= alpha);
  });
}

/** Standard deviation between units: less is better. */
function evennessSource(finding: Finding): Source {
  const figures = new Map<string, number>();
  const units = new Map<string, number>();
  const groups = new Map<string, number[]>();
  for (const s of finding.analysis.summaries) {
    const own = finding.units
      .filter((u) => u.treatmentId === s.name)
      .map((u) => comparedValue(finding.trait, u.value));
    if (own.length < 3) continue;
    const mean = own.reduce((x, y) => x + y, 0) / own.length;
    figures.set(s.name, Math.sqrt(own.reduce((x, y) => x + (y - mean) ** 2, 0) / (own.length - 1)));
    units.set(s.name, own.length);
    groups.set(s.name, own);
  }
  const spread = new Map([...figures].map(([id, sd]) => [id, sd / Math.sqrt(2 * (units.get(id)! - 1))]));
  return {
    figures,
    spread,
    draw: (random) => (id) => figures.get(id)! / Math.sqrt(scaledChiSquare(units.get(id)! - 1, random)),
    leaders: evenest(groups, figures, finding.analysis.alpha),
    better: -1,
    unit: finding.trait.unit ? `${finding.trait.unit} spread` : 'spread',
    decimals: finding.trait.decimals + 1,
    absent: () => 'fewer than three units',
  };
}

function costSource(lines: readonly VerdictLine[]): Source {
  const figures = new Map(
    // What a contender costs that has no unit left is nobody's to take.
    lines.flatMap((l) =>
      l.cost.ok && l.absent === null ? [[l.treatment.id as string, l.cost.value.perUnit.minor] as const] : [],
    ),
  );
  return {
    figures,
    spread: new Map(),
    draw: null,
    better: -1,
    unit: 'minor units of money',
    decimals: 0,
    absent: (id) => lines.find((l) => l.treatment.id === id)?.absent ?? 'not priced',
  };
}

/** What a blind panel said of something, once its cups are known. */
export interface PanelFigures {
  sessionId: string;
  /** the session's name and what was scored */
  name: string;
  thing: string;
  moreIsBetter: boolean | null;
  /** each contender's scores or places, one a serving */
  treatments: { id: string; values: readonly number[] }[];
}

/** Mean score (or place) of a panel; how tasters differ is what is uncertain about it. */
function panelSource({ moreIsBetter, treatments }: PanelFigures): Source {
  const mean = (v: readonly number[]) => v.reduce((a, b) => a + b, 0) / v.length;
  const scored = treatments.filter((t) => t.values.length > 0);
  const figures = new Map(scored.map((t) => [t.id, mean(t.values)]));
  const spread = new Map(
    scored.flatMap(({ id, values }) => {
      const m = mean(values);
      const sd = Math.sqrt(values.reduce((s, v) => s + (v - m) ** 2, 0) / (values.length - 1));
      return values.length > 1 ? [[id, sd / Math.sqrt(values.length)] as const] : [];
    }),
  );
  return {
    figures,
    spread,
    draw: (random) => (id) => figures.get(id)! + (spread.get(id) ?? 0) * random.normal(),
    better: moreIsBetter === false ? -1 : 1,
    unit: 'on average',
    decimals: 1,
    absent: () => 'not before the panel',
  };
}

/** The figures of a heading; null where there are none yet. */
export function sourceOf(heading: CardHeading, { findings, lines, panels = [] }: CardInput): Source | null {
  const { from } = heading;
  switch (from.kind) {
    case 'trait':
    case 'evenness': {
      const finding = findings.find((f) => f.trait.id === from.traitId);
      if (!finding) return null;
      return from.kind === 'trait' ? traitSource(finding) : evennessSource(finding);
    }
    case 'panel': {
      const panel = panels.find((p) => p.sessionId === from.sessionId && p.thing === from.thing);
      return panel ? panelSource(panel) : null;
    }
    case 'cost':
      return costSource(lines);
    case 'own':
      return {
        figures: new Map(Object.entries(from.points).map(([id, p]) => [id, p.points])),
        ...{ spread: new Map(), draw: null, better: 1, unit: 'points', decimals: 1 },
        absent: () => 'no points given',
      };
  }
}
