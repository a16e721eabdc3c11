import type { Summary } from '../analysis/analysis';
import type { Contrast } from '../analysis/contrast';
import { moreIsBetter } from '../analysis/goodness';
import type { Plan } from '../model/plan';
import { perOf } from '../plan/divisor';
import { planIndex } from '../plan/planIndex';
import { experimentalNoun } from '../plan/sharing';
import { formatFigure, formatP, plural } from '../quantity/format';
import type { Finding } from '../account/finding';
import { absenceOf } from '../account/absence';
import { heldOf, soleControl } from '../account/outcomes';
import { decimalsOfFinding, sayEstimate, sayInterval } from '../say/sayContrast';
import { headline, methodText, notes, warningsOf } from '../say/words';
import type { NameOf } from '../model/nameOf';
import { figureName, level, pictureCaption } from './pictureCaption';
import { type Block, type Cell, type TableBlock, column, numbers, text } from './block';

/** The id of the figure that shows a trait's finding. */
export const figureId = (finding: Finding): string => `finding-${finding.trait.id}`;

const meanHead = (finding: Finding) =>
  finding.trait.direction === 'band'
    ? `outside, ${finding.trait.unit}`
    : finding.trait.unit || figureName(finding);

/** A contender's figure, or what is said in its place. */
const figureCell = (s: Summary, decimals: number): Cell =>
  s.shown === undefined ? { type: 'figure', value: s.estimate, decimals } : text(s.shown);

interface ContrastShape {
  head: string;
  cell: (c: Contrast | undefined) => Cell;
  interval: (c: Contrast) => Cell;
}

/** How effects stand in a table: per cent, differences, or how many of ten pairs. */
function contrastShape(finding: Finding, percent: boolean): ContrastShape {
  const d = decimalsOfFinding(finding);
  const scale = finding.analysis.pairs[0]?.scale;
  if (scale === 'superiority') {
    const better = (share: number) => (moreIsBetter(finding.trait) ? share : 1 - share);
    return {
      head: 'ahead in, of 10 pairs',
      cell: (c) => ({ type: 'figure', value: c ? 10 * better(c.estimate) : null, decimals: 1 }),
      interval: (c) => {
        if (c.low === null || c.high === null) return text('');
        const ends = [better(c.low), better(c.high)].sort((x, y) => x - y);
        return text(ends.map((x) => formatFigure(10 * x, 1)).join(' to '));
      },
    };
  }
  if (scale === 'ratio' || percent) {
    return {
      head: 'change, %',
      cell: (c) =>
        c && !Number.isFinite(c.estimate)
          ? text(sayEstimate(c, finding))
          : { type: 'figure', value: c?.percent?.estimate ?? null, decimals: 0, signed: true },
      interval: (c) =>
        c.high !== null && !Number.isFinite(c.high)
          ? text(sayInterval(c, finding))
          : {
              type: 'interval',
              low: c.percent?.low ?? null,
              high: c.percent?.high ?? null,
              decimals: 0,
            },
    };
  }
  return {
    head: 'change',
    cell: (c) => ({ type: 'figure', value: c?.estimate ?? null, decimals: d, signed: true }),
    interval: (c) => ({ type: 'interval', low: c.low, high: c.high, decimals: d }),
  };
}

/** @param counted what its figure was counted from, e.g. 7/20 */
const treatmentCell = (plan: Plan, id: string, nameOf: NameOf, counted?: string): Cell => ({
  type: 'treatment',
  ...(counted && { beneath: counted }),
  name: nameOf(id),
  order: planIndex(plan).treatmentOrder(id),
});

/** Every contender against its control: mean, change with its interval, letter. */
export function againstControlTable(finding: Finding, plan: Plan, nameOf: NameOf): TableBlock {
  const { analysis } = finding;
  const d = decimalsOfFinding(finding);
  const allTested = analysis.spread === 'shown';
  const held = new Map(heldOf(finding).map((h) => [h.id, h]));
  // Per cent needs controls clearly away from zero.
  const percent = [...held.values()].every(
    ({ contrast: c }) => c.percent !== null && (!allTested || c.percent.low !== null),
  );
  const shape = contrastShape(finding, percent);
  const sole = soleControl(finding);
  const beneath = (id: string, counted: string | undefined) => {
    const control = held.get(id)?.control;
    const against = sole === null && control !== undefined ? `against ${nameOf(control)}` : '';
    return [counted, against].filter(Boolean).join(', ');
  };
  return {
    type: 'table',
    columns: [
      column(sole === null ? 'each against its own control' : `against ${nameOf(sole)}`),
      numbers(plural(experimentalNoun(plan))),
      numbers(meanHead(finding)),
      numbers(shape.head),
      numbers(allTested ? level(finding) : ''),
      lettersHead(finding),
    ],
    rows: [
      ...absentRows(finding, plan, nameOf, 6),
      ...analysis.summaries.map((s): TableBlock['rows'][number] => {
        const own = held.get(s.name);
        const c = own?.contrast;
        const tested = allTested && own?.outcome.verdict !== 'untested';
        return {
          title: c?.p == null || !tested ? undefined : `p ${formatP(c.p)}`,
          cells: [
            treatmentCell(plan, s.name, nameOf, beneath(s.name, s.counted)),
            { type: 'figure', value: s.n, decimals: 0 },
            figureCell(s, d),
            // Of pairs that nothing was tested between “ahead in so many of ten” says what isn't known.
            c && (tested || c.scale !== 'superiority') ? shape.cell(c) : text(' '),
            c && tested ? shape.interval(c) : text(' '),
            { type: 'letter', text: finding.letters[s.name] ?? ' ' },
          ],
        };
      }),
    ],
  };
}

/** Over the letters, where there are any: whoever shares one wasn't told apart. */
const lettersHead = (finding: Finding) =>
  column(Object.values(finding.letters).some((l) => l.trim() !== '') ? 'letters' : '');

/** Contenders without a figure, each with the reason in place of one. */
function absentRows(finding: Finding, plan: Plan, nameOf: NameOf, cells: number): TableBlock['rows'] {
  return plan.treatments.flatMap((t) => {
    const why = absenceOf(finding, t.id);
    if (why === null) return [];
    return [
      {
        cells: [
          treatmentCell(plan, t.id, nameOf),
          { type: 'figure' as const, value: 0, decimals: 0 },
          text(why),
          ...Array.from({ length: cells - 3 }, () => text(' ')),
        ],
      },
    ];
  });
}

/** Means and letters, by code or of equals: nothing is marked as the control. */
export function byCodeTable(finding: Finding, plan: Plan, nameOf: NameOf): TableBlock {
  const d = decimalsOfFinding(finding);
  return {
    type: 'table',
    columns: [
      column(finding.peers ? 'contender' : 'by code'),
      numbers(plural(experimentalNoun(plan))),
      numbers(meanHead(finding)),
      lettersHead(finding),
    ],
    rows: [
      ...absentRows(finding, plan, nameOf, 4),
      ...plan.treatments.flatMap((t): TableBlock['rows'] => {
        const s = finding.analysis.summaries.find((x) => x.name === t.id);
        if (!s) return [];
        const cells: Cell[] = [
          treatmentCell(plan, t.id, nameOf, s.counted),
          { type: 'figure', value: s.n, decimals: 0 },
          figureCell(s, d),
          { type: 'letter', text: finding.letters[t.id] ?? ' ' },
        ];
        return [{ cells }];
      }),
    ],
  };
}

/** Every pair, the sign of the first against the second. */
export function pairsTable(finding: Finding, nameOf: NameOf): TableBlock {
  const scale = finding.analysis.pairs[0]?.scale;
  const shape = contrastShape(finding, false);
  const between = scale === 'difference' ? '−' : 'against';
  return {
    type: 'table',
    columns: [
      column('pair'),
      numbers(scale === 'difference' ? 'difference' : shape.head),
      numbers(level(finding)),
      numbers('p'),
    ],
    rows: finding.analysis.pairs
      .filter((c) => c.p !== null || c.scale !== 'superiority')
      .map((c) => ({
        cells: [
          text(`${nameOf(c.a)} ${between} ${nameOf(c.b)}`),
          shape.cell(c),
          shape.interval(c),
          { type: 'p', value: c.p },
        ],
      })),
  };
}

/** Every unit's value, by treatment, with the plain mean and spread. */
export function valuesTable(finding: Finding, plan: Plan, nameOf: NameOf): TableBlock {
  const d = finding.trait.decimals;
  return {
    type: 'table',
    columns: [
      column('contender'),
      column(`values per ${perOf(finding.trait, plan.unitNoun)}`),
      numbers('mean'),
      numbers('sd'),
    ],
    rows: finding.analysis.summaries.map((s) => ({
      cells: [
        treatmentCell(plan, s.name, nameOf),
        text(
          finding.units
            .filter((u) => u.treatmentId === s.name)
            .map((u) => `${u.code} ${formatFigure(u.value, d)}`)
            .join(' · '),
        ),
        { type: 'figure', value: s.mean, decimals: decimalsOfFinding(finding) },
        { type: 'figure', value: s.sd, decimals: decimalsOfFinding(finding) },
      ],
    })),
  };
}

/** A finding in the review: sentence, picture, table, notes, small print. */
export function findingBlocks(finding: Finding, plan: Plan, nameOf: NameOf): Block[] {
  const { trait } = finding;
  const sentence = headline(finding, nameOf).text;
  const tested = finding.analysis.spread === 'shown';
  const caption = pictureCaption({ finding, unitNoun: experimentalNoun(plan), unmarked: finding.peers });
  return [
    { type: 'heading', level: 2, text: trait.name },
    // Where nothing was tested the note below says so, once.
    ...(tested ? [{ type: 'paragraph' as const, text: sentence }] : []),
    {
      type: 'figure',
      id: figureId(finding),
      alt: `${trait.name} of every ${experimentalNoun(plan)}, by contender. ${sentence}`,
      caption: tested ? `${caption} ${sentence}` : caption,
    },
    finding.peers ? byCodeTable(finding, plan, nameOf) : againstControlTable(finding, plan, nameOf),
    ...notes(finding, nameOf, experimentalNoun(plan)).map(({ tone, title, text: words }): Block => ({
      type: 'note',
      tone,
      title,
      text: words,
    })),
    {
      type: 'paragraph',
      tone: 'small',
      text: [methodText(finding, experimentalNoun(plan)), ...warningsOf(finding, plan.unitNoun)].join(' '),
    },
  ];
}
