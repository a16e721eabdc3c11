import { THE_RECORD, paragraphs, pieceBlocks } from './piece';
import type { AuditFinding } from '../fairness/audit';
import { responseOf } from '../log/response';
import type { TrialState } from '../log/state';
import type { ReviewText } from '../log/trial';
import type { SealCheck } from '../log/verifySeal';
import { kindOf } from '../model/traitKinds';
import { sayObtained, undisclosed } from '../plan/disclosure';
import { planIndex } from '../plan/planIndex';
import type { Finding } from '../account/finding';
import type { Verdict } from '../verdict/verdict';
import type { NameOf } from '../model/nameOf';
import { besideFinding } from './besideFinding';
import type { Block } from './block';
import { comparedBlocks, conductBlocks, eventBlocks } from './conductBlocks';
import { chosenPhotoBlocks } from './chosenPhotos';
import { photoBlocks } from './contactSheet';
import { findingBlocks } from './findingBlocks';
import { awards } from '../say/awards';
import { panelFigures } from '../sensory/panelFigures';
import { makeCard } from '../scorecard/card';
import { judgeClaims } from '../verdict/claims';
import { bestValueElsewhere, sayElsewhere } from '../verdict/priceSets';
import { sayPerPiece } from '../say/costPerPiece';
import { costsOf, sayCosts } from '../say/costWords';
import { awardBlocks, cardBlocks, claimBlocks, fullCostBlocks, fullCostTable } from './judgementBlocks';
import { panelBlocks } from './panelBlocks';
import { packBlocks } from './packTable';
import { verdictBlocks } from './verdictBlocks';

export interface ReviewInput {
  state: TrialState;
  review: ReviewText;
  /** primary trait first */
  findings: readonly Finding[];
  /** findings at single rounds, for claims that say by when */
  dated?: readonly Finding[];
  verdict: Verdict | null;
  nameOf: NameOf;
  today: string;
  seal: SealCheck;
  /** one hash for plan and log, as they go into the trial's file; left out of what isn't given away */
  signed?: string;
  /** what the fairness audit finds; none is taken for a clean plan */
  audit?: readonly AuditFinding[];
}

/** The whole review as blocks: the piece, its disclosure, and the record behind it. */
export const reviewDocument = (input: ReviewInput): Block[] => [
  ...pieceBlocks(input),
  ...disclosureBlocks(input.state, input.review),
  {
    type: 'paragraph',
    tone: 'small',
    text: 'Labels, safety data sheets and local rules come before anything said here.',
  },
  { type: 'heading', level: 1, text: THE_RECORD },
  {
    type: 'paragraph',
    tone: 'small',
    text: 'For whoever wants to check: every figure, method, table and line that the piece rests on.',
  },
  ...recordBlocks(input),
];

/** The record: verdict, figures, what was compared, how, what went wrong, what is open. */
function recordBlocks(input: ReviewInput): Block[] {
  const { state, review, findings, verdict, nameOf, today, audit = [] } = input;
  const { plan } = state;
  return [
    ...(verdict && findings[0] ? verdictBlocks(verdict, findings[0], plan, nameOf) : []),
    ...(verdict && findings[0]
      ? awardBlocks(awards(plan, findings[0], verdict, nameOf).filter((a) => a.id !== 'bestValue'))
      : []),
    ...cardBlocks(
      verdict && review.headings && review.headings.length > 0
        ? makeCard({
            plan,
            headings: review.headings,
            findings,
            lines: verdict.lines,
            nameOf,
            panels: panelFigures(state),
          })
        : null,
      plan.treatments.map((t, order) => ({ id: t.id, name: nameOf(t.id), order })),
    ),
    ...wholeCost(input),
    ...(verdict ? packBlocks(plan, nameOf) : []),
    ...claimBlocks(judgeClaims(plan, review.claims ?? [], findings, nameOf, input.dated)),
    ...findings.flatMap((f) => [
      ...findingBlocks(f, plan, nameOf),
      ...besideFinding(state, f, nameOf, today),
    ]),
    ...panelBlocks(state, nameOf),
    ...photosIn(state, review),
    ...wordsBlocks(state),
    ...comparedBlocks(state),
    ...conductBlocks(state, today, input.seal, input.signed ?? null),
    ...fairnessBlocks(audit),
    ...eventBlocks(state),
    ...(verdict && verdict.cannotTell.length > 0
      ? [
          { type: 'heading' as const, level: 2 as const, text: 'What this trial can’t tell' },
          { type: 'list' as const, items: verdict.cannotTell.map((c) => c.text) },
        ]
      : []),
  ];
}

/** The contact sheet, and the photos the reviewer chose. */
function photosIn(state: TrialState, review: ReviewText): Block[] {
  const [sheet, chosen] = [photoBlocks(state), chosenPhotoBlocks(state, review)];
  return chosen.length === 0
    ? sheet
    : [
        ...(sheet.length > 0 ? sheet : [{ type: 'heading' as const, level: 2 as const, text: 'Photos' }]),
        ...chosen,
      ];
}

/** All that a unit took, where more than products is counted. */
function wholeCost({ state, review, findings, verdict, nameOf }: ReviewInput): Block[] {
  const [primary] = findings;
  if (!verdict || !primary || !review.costs) return [];
  const settings = review.costs;
  const costs = costsOf(state, verdict, settings);
  const sentences = [
    ...sayCosts(costs, settings, verdict, primary, nameOf, state.plan),
    ...sayPerPiece(state, costs, nameOf),
    ...sayElsewhere(bestValueElsewhere(state, primary, verdict, settings.priceSets ?? [], nameOf)),
  ];
  return fullCostBlocks(costs, sentences, () => fullCostTable(costs, verdict, primary, state.plan, nameOf));
}

/** Traits taken in words: what was written, unit by unit. */
function wordsBlocks(state: TrialState): Block[] {
  const { plan } = state;
  const of = planIndex(plan);
  return plan.traits
    .filter((t) => kindOf(t).takenBy === 'words')
    .flatMap((trait): Block[] => {
      const items = plan.units.flatMap((u) =>
        responseOf(state, u.id, trait).visits.flatMap((v) =>
          v.samples.flatMap(({ observed: o }) =>
            o.type === 'words'
              ? [
                  `${u.code}, ${of.treatment(u.treatmentId)?.name ?? '?'}${v.roundId ? `, ${of.round(v.roundId)?.name ?? ''}` : ''}: ${o.text}`,
                ]
              : [],
          ),
        ),
      );
      return items.length === 0
        ? []
        : [
            { type: 'heading', level: 2, text: trait.name },
            { type: 'list', items },
          ];
    });
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

/** How products came to the reviewer: what isn't said in their own words is said here. */
function disclosureBlocks({ plan }: TrialState, review: ReviewText): Block[] {
  const unsaid = undisclosed(plan.products, review.disclosure).map(sayObtained);
  const allBought = plan.products.length > 0 && plan.products.every((p) => p.obtained === 'bought');
  return [
    { type: 'heading', level: 2, text: 'Disclosure' },
    ...(unsaid.length > 0
      ? [{ type: 'list' as const, items: unsaid }]
      : allBought
        ? [{ type: 'paragraph' as const, text: 'All products were bought at the prices given.' }]
        : []),
    ...paragraphs(review.disclosure),
  ];
}
