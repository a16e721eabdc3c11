import { formatMoney } from '../cost/money';
import { describeCostError } from '../cost/treatmentCost';
import type { TrialState } from '../log/state';
import type { AuditFinding } from '../fairness/audit';
import { blindingNames, designNames, matchingName, roleNames } from '../model/plan';
import { mixingItems } from './mixingRecord';
import type { ReviewText } from '../model/trial';
import { formatFigure, formatSigned, plural } from '../quantity/format';
import { roundProgress } from '../schedule/rounds';
import type { Finding } from '../verdict/finding';
import type { Verdict } from '../verdict/verdict';
import { type NameOf, headline, measureLabel, methodText, notes } from '../verdict/words';
import type { Block } from './document';

/** The id of the figure that shows a trait's finding. */
export const figureId = (finding: Finding): string => `finding-${finding.trait.id}`;

const paragraphs = (text: string): Block[] =>
  text
    .split(/\n\s*\n/)
    .map((t) => t.trim())
    .filter((t) => t !== '')
    .map((t) => ({ type: 'paragraph', text: t }));

/**
 * How products came to the reviewer, for everything that wasn't bought and isn't named in what was written.
 * Basis: FTC Guides, 16 CFR Part 255.
 */
export function disclosureLines(state: TrialState, written = ''): string[] {
  return state.plan.products
    .filter((p) => p.obtained !== 'bought' && !written.toLowerCase().includes(p.name.toLowerCase()))
    .map((p) =>
      p.obtained === 'own product'
        ? `${p.name} is the reviewer’s own product.`
        : `${p.name} was sent free of charge${p.maker ? ` by ${p.maker}` : ''}.`,
    );
}

export interface ReviewInput {
  state: TrialState;
  review: ReviewText;
  /** primary trait first */
  findings: readonly Finding[];
  verdict: Verdict | null;
  nameOf: NameOf;
  today: string;
  /** what the fairness audit finds; none is taken for a clean plan */
  audit?: readonly AuditFinding[];
}

/** The whole review as blocks: verdict, figures, what was compared, how, what went wrong, what is open. */
export function reviewDocument(input: ReviewInput): Block[] {
  const { state, review, findings, verdict, nameOf, today, audit = [] } = input;
  const { plan } = state;
  const blocks: Block[] = [{ type: 'heading', level: 1, text: plan.question }];
  const say = (...b: Block[]) => blocks.push(...b);
  say({
    type: 'paragraph',
    tone: 'small',
    text: [
      review.author && `By ${review.author}`,
      `Trial ${plan.code}, started ${plan.startDate}`,
      `written ${today}`,
    ]
      .filter(Boolean)
      .join(' · '),
  });
  if (verdict) say({ type: 'paragraph', tone: 'lead', text: verdict.headline });
  say(...paragraphs(review.introduction));
  if (verdict) say(...verdictBlocks(verdict, findings[0]!, nameOf));
  for (const finding of findings) say(...findingBlocks(finding, nameOf, plan.unitNoun));
  say(...howBlocks(state, today), ...fairnessBlocks(audit), ...eventBlocks(state));
  if (verdict && verdict.cannotTell.length > 0) {
    say(
      { type: 'heading', level: 2, text: 'What this trial can’t tell' },
      { type: 'list', items: verdict.cannotTell },
    );
  }
  if (review.conclusion)
    say({ type: 'heading', level: 2, text: 'Conclusion' }, ...paragraphs(review.conclusion));
  const disclosed = disclosureLines(state, review.disclosure);
  const allBought = plan.products.every((p) => p.obtained === 'bought');
  say({ type: 'heading', level: 2, text: 'Disclosure' });
  if (disclosed.length > 0) say({ type: 'list', items: disclosed });
  else if (allBought) say({ type: 'paragraph', text: 'All products were bought at the prices given.' });
  say(...paragraphs(review.disclosure));
  say({
    type: 'paragraph',
    tone: 'small',
    text: 'Labels, safety data sheets and local rules come before anything said here.',
  });
  return blocks;
}

function verdictBlocks(verdict: Verdict, finding: Finding, nameOf: NameOf): Block[] {
  const { trait } = finding;
  const per = trait.unit || 'unit';
  return [
    { type: 'heading', level: 2, text: 'Verdict' },
    {
      type: 'table',
      head: ['Place', 'Contender', measureLabel(finding), 'Cost per unit', `Per ${per}`, `Per extra ${per}`],
      numeric: [false, false, true, true, true, true],
      rows: verdict.lines.map((l) => [
        l.rank?.rank == null ? '–' : `${l.rank.rank}${l.rank.tied ? ' =' : ''}`,
        nameOf(l.treatment.id),
        l.mean === null ? '–' : formatFigure(l.mean, trait.decimals),
        l.cost.ok ? formatMoney(l.cost.value.perUnit) : describeCostError(l.cost.error),
        l.perResult ? formatMoney(l.perResult) : '–',
        // Without an upper end the gain itself isn't shown: no price is put on it.
        l.perExtra?.worst ? formatMoney(l.perExtra.perExtra) : '–',
      ]),
    },
    { type: 'paragraph', text: `Best value: ${verdict.bestValue.text}` },
  ];
}

function findingBlocks(finding: Finding, nameOf: NameOf, unitNoun: string): Block[] {
  const { trait, comparison } = finding;
  const d = trait.decimals;
  const control = nameOf(comparison.control);
  const level = Math.round((1 - comparison.alpha) * 100);
  return [
    { type: 'heading', level: 2, text: trait.name },
    { type: 'paragraph', text: headline(finding, nameOf) },
    {
      type: 'figure',
      id: figureId(finding),
      alt: `${trait.name} of every ${unitNoun}, by contender, with means and ${level} % intervals`,
      caption: `Each tile is a ${unitNoun}; the line is the mean and its ${level} % interval. ${headline(finding, nameOf)}`,
    },
    {
      type: 'table',
      head: [
        'Contender',
        `${plural(unitNoun)}`,
        trait.direction === 'band'
          ? `Mean ${trait.unit} outside`
          : `Mean${trait.unit ? `, ${trait.unit}` : ''}`,
        `Against ${control}`,
        `${level} %`,
        'Letter',
      ],
      numeric: [false, true, true, true, true, false],
      rows: comparison.treatments.map((t) => {
        const v = comparison.versusControl.find((x) => x.name === t.name);
        return [
          nameOf(t.name),
          String(t.n),
          formatFigure(t.adjustedMean, d),
          v ? formatSigned(v.difference, d) : '–',
          v?.low != null ? `${formatSigned(v.low, d)} to ${formatSigned(v.high!, d)}` : '–',
          comparison.letters[t.name] ?? '–',
        ];
      }),
    },
    ...notes(finding, nameOf, unitNoun).map((n): Block => ({
      type: 'paragraph',
      text: `${n.title} ${n.text}`,
    })),
    {
      type: 'paragraph',
      tone: 'small',
      text: [methodText(finding, unitNoun), ...finding.warnings].join(' '),
    },
  ];
}

function howBlocks(state: TrialState, today: string): Block[] {
  const { plan, seal } = state;
  const packs = (id: string) => {
    const product = plan.products.find((p) => p.id === id);
    return product?.packs
      .map((k) => `${k.size} ${k.unit} at ${formatMoney({ minor: k.priceMinor, currency: k.currency })}`)
      .join('; ');
  };
  const d = plan.smallestDifference;
  const primary = plan.traits.find((t) => t.id === plan.primaryTraitId);
  return [
    { type: 'heading', level: 2, text: 'What was compared' },
    {
      type: 'table',
      head: ['Contender', 'Role', 'Products and dose', 'Packs'],
      numeric: [false, false, false, false],
      rows: plan.treatments.map((t) => [
        t.name,
        roleNames[t.role],
        t.products
          .map((u) => {
            const name = plan.products.find((p) => p.id === u.productId)?.name ?? '?';
            const dose = `${u.amount} ${u.unit}${u.solutionLPerUnit ? `/L in ${u.solutionLPerUnit} L` : ''}`;
            return `${name}, ${dose}, ${u.timesPerUnit}×`;
          })
          .join('; ') || '–',
        t.products.map((u) => packs(u.productId)).join('; ') || '–',
      ]),
    },
    { type: 'heading', level: 2, text: 'How it was done' },
    {
      type: 'list',
      items: [
        `${plan.crop || 'Crop not named'}; ${plan.units.length} ${plural(plan.unitNoun)} in ${plan.areas.map((a) => a.name).join(', ')}.`,
        plan.design
          ? `${plan.design.replicates} ${plural(plan.unitNoun)} of each, ${designNames[plan.design.kind]}${plan.design.kind === 'hand' ? '' : `, seed ${plan.design.seed}`}.`
          : 'No layout recorded.',
        `Prediction before the start: ${plan.prediction || 'none written'}`,
        d && primary
          ? `Decided by ${primary.name.toLowerCase()}; the smallest difference that matters was set at ${d.value}${d.kind === 'percent' ? ' % of the control' : ` ${primary.unit}`}.`
          : 'No smallest difference was set beforehand.',
        ...(plan.winning ? [`What counted as winning: ${plan.winning}`] : []),
        ...(plan.alsoAsked ? [`Also asked, exploratory: ${plan.alsoAsked}`] : []),
        ...(plan.finishingRule ? [`Finishing rule: ${plan.finishingRule}`] : []),
        ...conductItems(state),
        ...mixingItems(state),
        ...roundProgress(state, today).map(
          (r) =>
            `${r.round.name}: planned for ${r.date}, ${r.unitsDone} of ${r.unitsWanted} ${plural(plan.unitNoun)} measured.`,
        ),
        seal
          ? `The plan was sealed on ${seal.at.slice(0, 10)}; SHA-256 of the plan ${seal.planSha256}.`
          : 'The plan was not sealed.',
      ],
    },
  ];
}

/** How doses were matched, who scored and saw what, what was balanced and rotated. */
function conductItems({ plan, revealedAt }: TrialState): string[] {
  const { design, rotation, gradient } = plan;
  const feeds = plan.treatments.filter((t) => t.products.length > 0).length;
  return [
    ...(plan.wholeSystem
      ? ['Whole systems were compared: what did it, medium, container or feed, can’t be said.']
      : []),
    ...(feeds > 1 ? [`Doses were matched on: ${matchingName(plan)}.`] : []),
    ...(plan.scorer ? [`Measured and scored by ${plan.scorer}.`] : []),
    ...(plan.blinding === 'open'
      ? []
      : [
          `Blind: ${blindingNames[plan.blinding]}${revealedAt ? `; codes were opened on ${revealedAt.slice(0, 10)}` : '; codes are not opened'}.`,
        ]),
    ...(gradient
      ? [
          `${gradient.name} was read at ${gradient.readings.length} places${design?.balance ? `; the layout was taken from ${design.balance.candidates} draws so that contenders’ means lie ${formatFigure(design.balance.spreadPercent, 1)} % apart at most` : ''}.`,
        ]
      : []),
    ...(rotation ? [`Units changed places every ${rotation.everyDays} days.`] : []),
    ...(plan.cropsWithin.length > 0
      ? [`Crops in each ${plan.unitNoun}: ${plan.cropsWithin.join(', ')}.`]
      : []),
  ];
}

/** What the fairness audit found and wasn't cured: accepted with its reason, or left open. */
function fairnessBlocks(audit: readonly AuditFinding[]): Block[] {
  if (audit.length === 0) return [];
  return [
    { type: 'heading', level: 2, text: 'What could be objected' },
    {
      type: 'list',
      items: audit.map((f) =>
        f.accepted === null ? `${f.title}: ${f.found}` : `${f.title}: ${f.found} Accepted: ${f.accepted}`,
      ),
    },
  ];
}

function eventBlocks(state: TrialState): Block[] {
  const code = (id: string) => state.plan.units.find((u) => u.id === id)?.code ?? '?';
  const items = [
    ...state.deviations.map(
      (d) =>
        `${d.at.slice(0, 10)}: ${d.text}${d.unitIds.length ? ` (${d.unitIds.map(code).join(', ')})` : ''}`,
    ),
    ...[...state.deaths].map(
      ([id, d]) => `${d.at.slice(0, 10)}: ${code(id)} died${d.cause ? `: ${d.cause}` : ''}`,
    ),
    ...state.exclusions.map((x) => `${code(x.unitId)} left out: ${x.reason}`),
  ];
  const corrected = state.observations.filter((o) => o.earlier.length > 0).length;
  if (corrected > 0)
    items.push(
      `${corrected} value${corrected > 1 ? 's' : ''} corrected after entry; the log keeps the old ones.`,
    );
  return [
    { type: 'heading', level: 2, text: 'What didn’t go to plan' },
    items.length > 0 ? { type: 'list', items } : { type: 'paragraph', text: 'Nothing was recorded.' },
  ];
}
