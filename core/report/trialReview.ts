import { tilesOf } from '../plan/tiles';
import { audit } from '../fairness/audit';
import { auditInput } from '../fairness/auditInput';
import { deriveState } from '../log/state';
import type { ReviewText, Trial } from '../log/trial';
import { shownOf } from '../account/shown';
import type { Plan } from '../model/plan';
import { signedOf } from '../log/record';
import { verifySeal } from '../log/verifySeal';
import { experimentalNoun, measuredPer } from '../plan/sharing';
import { planIndex } from '../plan/planIndex';
import type { Finding } from '../account/finding';
import { findingOf } from '../account/findingInput';
import { claimedRounds } from '../verdict/claims';
import { panelFigures } from '../sensory/panelFigures';
import { makeCard } from '../scorecard/card';
import type { PanelFigures } from '../scorecard/cardSource';
import { type Verdict, makeVerdict } from '../verdict/verdict';
import { type BlindLook, blindLook } from './blindLook';
import type { Block } from './block';
import type { Lane } from '../picture/marks';
import { type ChosenPhoto, chosenPhotos } from './chosenPhotos';
import { type SheetRow, contactSheet } from './contactSheet';
import { edited } from './edits';
import { settled } from './settled';
import { inFigures } from '../quantity/region';
import { type ReviewInput, reviewDocument } from './review';
import { type PageCard, pageCard } from './weighYourself';

/** A trial's review without a screen: its blocks, and the findings its figures are drawn from. */
export interface TrialReview {
  title: string;
  blocks: Block[];
  findings: Finding[];
  /** contenders in the plan's order */
  lanes: Lane[];
  /** the tile of each of them */
  tiles: readonly number[];
  /** what a value stands for in a picture */
  per: string;
  /** what had its treatment on its own */
  unitNoun: string;
  /** the scorecard's points, where one was made */
  card: PageCard | null;
  /** photos by code, for a page; null where there are none side by side */
  look: BlindLook | null;
  /** photos the reviewer put into it */
  photos: ChosenPhoto[];
  /** contenders side by side, a row for each day */
  sheet: SheetRow[];
}

/**
 * The review of a whole trial.
 * @param today YYYY-MM-DD
 * @returns null while its codes are closed
 */
export const trialReview = (trial: Trial, today: string): TrialReview | null =>
  inFigures(trial.review.figures ?? 'plain', () => reviewNow(trial, today));

function reviewNow(trial: Trial, today: string): TrialReview | null {
  const { state, blind } = shownOf(deriveState(trial.plan, trial.log), trial.key);
  const { plan } = state;
  if (blind) return null;
  const nameOf = (id: string) => planIndex(plan).treatment(id)?.name ?? id;
  const order = [...plan.traits].sort(
    (a, b) => Number(b.id === plan.primaryTraitId) - Number(a.id === plan.primaryTraitId),
  );
  const made = order.map((t) => findingOf(state, t, { today }));
  const findings = made.flatMap((f) => (f.ok ? [f.value] : []));
  const primary = made[0]?.ok && plan.primaryTraitId ? made[0].value : null;
  const auditFindings = audit(auditInput(trial, state));
  const dated = claimedRounds(plan, trial.review.claims ?? []).flatMap(({ trait, roundId }) => {
    const f = findingOf(state, trait, { roundId, today });
    return f.ok ? [f.value] : [];
  });
  const sheet = contactSheet(state);
  const verdict = primary && makeVerdict(plan, primary, nameOf, { state, audit: auditFindings });
  return {
    title: plan.question,
    card: cardOf(plan, trial.review, findings, verdict, nameOf, panelFigures(state)),
    look: blindLook(sheet, plan.design?.seed ?? 1),
    photos: chosenPhotos(state, trial.review),
    sheet,
    findings,
    blocks: ownWords(trial.review, {
      state,
      review: trial.review,
      findings,
      dated,
      verdict,
      nameOf,
      today,
      seal: verifySeal(trial.plan, state.seal, trial.sealedAs),
      signed: signedOf(trial.plan, trial.log),
      audit: auditFindings,
    }),
    lanes: plan.treatments.map((t, index) => ({ id: t.id, name: t.name, index })),
    tiles: tilesOf(plan),
    per: measuredPer(plan),
    unitNoun: experimentalNoun(plan),
  };
}

/** The review with the reviewer's own sentences, without the sections that were left out. */
const ownWords = (review: ReviewText, input: ReviewInput): Block[] =>
  edited(settled(reviewDocument(input)), review.edits ?? [], review.hidden ?? [], review.order ?? []).blocks;

/** The scorecard's points for the page; null where there is no scorecard. */
export function cardOf(
  plan: Plan,
  review: ReviewText,
  findings: readonly Finding[],
  verdict: Verdict | null,
  nameOf: (id: string) => string,
  panels: readonly PanelFigures[],
): PageCard | null {
  if (!verdict || !review.headings?.length) return null;
  return pageCard(
    makeCard({ plan, headings: review.headings, findings, lines: verdict.lines, nameOf, panels }),
    nameOf,
  );
}
