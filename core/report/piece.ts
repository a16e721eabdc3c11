import { formatMoney } from '../quantity/money';
import { accountOf } from '../account/account';
import { localDay } from '../log/localDay';
import { otherwiseIn } from '../log/otherwise';
import type { TrialState } from '../log/state';
import { sayDesign } from '../account/thing';
import { blindingNames } from '../model/plan';
import { comparesPeers } from '../plan/control';
import { dayOfDate } from '../plan/days';
import { undisclosed } from '../plan/disclosure';
import { sayMatching } from '../plan/matching';
import { shortCode } from '../plan/shortCode';
import { planIndex } from '../plan/planIndex';
import { countOf, countWord, listNames, sentenceCase } from '../quantity/format';
import { formatDay } from '../quantity/region';
import { panelFigures } from '../sensory/panelFigures';
import { sayWhoTakes } from '../say/onePage';
import { notes, warningsOf } from '../say/words';
import type { Block } from './block';
import { chosenPhotoBlocks } from './chosenPhotos';
import { photoBlocks } from './contactSheet';
import { figureId } from './findingBlocks';
import { pictureCaption } from './pictureCaption';
import type { ReviewInput } from './review';

/** What stands behind the piece, for whoever wants to check. */
export const THE_RECORD = 'The record';

/** Notes and weak points that a reader still reads. */
const MOST_NOTES = 3;
const MOST_WEAK = 5;
const TOO_FEW = 'Too few units to judge';

const heading = (text: string): Block => ({ type: 'heading', level: 2, text });
const list = (title: string, items: readonly string[]): Block[] =>
  items.length === 0 ? [] : [heading(title), { type: 'list', items: [...items] }];

export const paragraphs = (text: string): Block[] =>
  text
    .split(/\n\s*\n/)
    .map((t) => t.trim())
    .filter((t) => t !== '')
    .map((t) => ({ type: 'paragraph', text: t }));

/**
 * The piece: what a reader reads, one screen and a half to three. What was asked, who won or that nobody did, by how much,
 * the picture, what it costs, who should take what, how it was done, what was weak. All of it is said again, with its
 * figures, in the record behind it.
 */
export function pieceBlocks(input: ReviewInput): Block[] {
  const { state, review, findings, verdict, nameOf, today } = input;
  const { plan } = state;
  const [primary] = findings;
  const byline = [
    review.author && `By ${review.author}`,
    `Trial ${plan.code}, started ${formatDay(plan.startDate)}`,
    `written ${formatDay(today)}`,
    howObtained(input),
  ];
  const { noun, margin } = accountOf(state, today);
  // What the lead says already isn't said again.
  const lead = verdict?.headline.text ?? '';
  const toldNotes =
    verdict && primary ? notes(primary, nameOf, noun).filter((n) => !lead.includes(n.text)) : [];
  return [
    { type: 'heading', level: 1, text: plan.question },
    { type: 'paragraph', tone: 'small', text: byline.filter(Boolean).join(' · ') },
    ...(verdict ? [{ type: 'paragraph' as const, tone: 'lead' as const, text: verdict.headline.text }] : []),
    ...paragraphs(review.introduction),
    ...toldNotes.slice(0, MOST_NOTES).map((n): Block => ({
      type: 'paragraph',
      text: lead.toLowerCase().includes(n.title.toLowerCase()) ? n.text : `${n.title} ${n.text}`,
    })),
    ...(verdict && primary
      ? [
          {
            type: 'figure' as const,
            id: figureId(primary),
            alt: `${primary.trait.name} of every ${noun}, by contender. ${verdict.headline.text}`,
            caption: pictureCaption({ finding: primary, unitNoun: noun, unmarked: primary.peers }),
          },
        ]
      : []),
    ...photos(input),
    ...list('Who should take what', whoTakes(input)),
    ...list('What it costs', costs(input)),
    heading('How it was done, in short'),
    { type: 'paragraph', text: howDone(state, margin).join(' ') },
    ...list('What was weak', weak(input)),
    ...(review.conclusion ? [heading('Conclusion'), ...paragraphs(review.conclusion)] : []),
  ];
}

/** How products came to the reviewer, in a few words. @example 'all bought' */
function howObtained({ state: { plan }, review }: ReviewInput): string {
  if (plan.products.length === 0) return '';
  const other = undisclosed(plan.products, review.disclosure);
  const free = plan.products.filter((p) => p.obtained !== 'bought');
  if (free.length === 0) return 'all products bought';
  return other.length > 0 || free.length > 0 ? `not bought: ${listNames(free.map((p) => p.name))}` : '';
}

/** Pictures the reviewer chose, else contenders side by side. */
function photos({ state, review }: ReviewInput): Block[] {
  const chosen = chosenPhotoBlocks(state, review);
  const figure = (b: Block) => b.type === 'figure';
  return (chosen.length > 0 ? chosen : photoBlocks(state)).filter(figure).slice(0, chosen.length > 0 ? 2 : 1);
}

function whoTakes({ state, review, findings, verdict, nameOf }: ReviewInput): string[] {
  if (!verdict) return [];
  const card = { plan: state.plan, findings, lines: verdict.lines, nameOf, panels: panelFigures(state) };
  const best = verdict.bestValue;
  return [
    ...sayWhoTakes(card, review.headings ?? []),
    `${best.treatmentId === null ? 'For the money' : 'Best value'}: ${best.text}`,
  ];
}

/** What a unit of each costs in products, and by what. */
function costs({ state: { plan }, verdict, nameOf }: ReviewInput): string[] {
  if (!verdict || plan.products.length === 0) return [];
  const priced = verdict.lines.flatMap((l) =>
    l.cost.ok ? [`${nameOf(l.treatment.id)} ${formatMoney(l.cost.value.perUnit)}`] : [],
  );
  const open = verdict.lines.filter((l) => !l.cost.ok).map((l) => nameOf(l.treatment.id));
  return [
    ...(priced.length > 0 ? [`Products for a ${plan.unitNoun}: ${listNames(priced)}.`] : []),
    ...(open.length > 0 ? [`${listNames(open)}: not priced.`] : []),
    ...(verdict.costBasis ? [verdict.costBasis.text] : []),
  ];
}

/** How it was done, in five sentences at most. */
function howDone(state: TrialState, margin: string | null): string[] {
  const { plan, seal, revealed } = state;
  const { design } = plan;
  const days = [...new Set(plan.rounds.map((r) => r.day))].sort((a, b) => a - b).map(String);
  const primary = plan.primaryTraitId ? planIndex(plan).trait(plan.primaryTraitId) : undefined;
  const feeds = plan.treatments.filter((t) => t.products.length > 0).length;
  const early = seal && dayOfDate(plan.startDate, localDay(seal)) <= 0;
  return [
    `${sentenceCase(countOf(plan.units.length, plan.unitNoun))}${plan.crop && ` of ${plan.crop}`} in ${countWord(plan.treatments.length)} treatments${design ? `, ${sayDesign(plan, design)}` : ''}.`,
    comparesPeers(plan)
      ? 'Equals were compared; none of them is a control.'
      : plan.wholeSystem
        ? 'Whole systems were compared.'
        : feeds > 1
          ? sayMatching(plan)
          : '',
    days.length === 0
      ? ''
      : `Measured on day${days.length === 1 ? '' : 's'} ${listNames(days)}${primary ? `; ${primary.name.toLowerCase()} decides${margin === null ? '' : `, and ${margin} is what matters`}` : ''}.`,
    plan.blinding === 'open'
      ? plan.scorer
        ? `Measured and scored by ${plan.scorer.replace(/\.$/, '')}, names in sight.`
        : ''
      : `Blind: ${blindingNames[plan.blinding]}${revealed ? `; codes were opened on ${formatDay(localDay(revealed))}` : ''}.`,
    seal
      ? `Planned and sealed ${early ? 'before the start' : `on ${formatDay(localDay(seal))}, after the start`}: code ${shortCode(seal.planSha256)}.`
      : 'The plan was not sealed.',
  ].filter((s) => s !== '');
}

/** What a critical reader would hold against it, gravest first. */
function weak({ state, findings, audit = [] }: ReviewInput): string[] {
  const [primary] = findings;
  const open = audit.filter((f) => f.accepted === null && f.severity !== 'note');
  const told = otherwiseIn(state).length;
  // The plan’s fault and the finding’s are one.
  const few = open.some((f) => f.ruleId === 'few-degrees');
  const out = [
    ...open.map((f) => `${f.title}: ${f.found}`),
    ...(primary
      ? warningsOf(primary, state.plan.unitNoun).filter((w) => !(few && w.startsWith(TOO_FEW)))
      : []),
    ...(told > 0
      ? [
          `${sentenceCase(countWord(told))} ${told === 1 ? 'thing' : 'things'} went otherwise than planned; the record tells ${told === 1 ? 'it' : 'each'}.`,
        ]
      : []),
  ];
  const rest = out.length - MOST_WEAK;
  const crops = state.plan.cropsWithin.length;
  return [
    ...out.slice(0, MOST_WEAK),
    ...(rest > 0 ? [`${sentenceCase(countWord(rest))} more in the record.`] : []),
    `${crops > 1 ? `${sentenceCase(countWord(crops))} crops` : 'One crop'} in one place, once: a repeat would tell whether it holds.`,
  ];
}

/** Where the record begins among the blocks of a review; their number where there is none. */
export function recordFrom(blocks: readonly Block[]): number {
  const at = blocks.findIndex((b, i) => i > 0 && b.type === 'heading' && b.level === 1);
  return at < 0 ? blocks.length : at;
}
