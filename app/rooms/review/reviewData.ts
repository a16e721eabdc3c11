import { sealCommands } from '../seal/sealActions';
import { experimentalNoun } from '~core/plan/sharing';
import { panelFigures } from '~core/sensory/panelFigures';
import { audit } from '~core/fairness/audit';
import { signedOf } from '~core/log/record';
import { sayBrokenSeal, verifySeal } from '~core/log/verifySeal';
import { ofKind } from '~core/log/state';
import { blindLook } from '~core/report/blindLook';
import { chosenPhotos, photoShows } from '~core/report/chosenPhotos';
import { contactSheet } from '~core/report/contactSheet';
import { cardOf } from '~core/report/trialReview';
import { reviewDocument } from '~core/report/review';
import { filmingBlocks } from '~core/report/filming';
import { inFigures } from '~core/quantity/region';
import { settled } from '~core/report/settled';
import { edited } from '~core/report/edits';
import type { Plan } from '~core/model/plan';
import { countOf, formatFigure } from '~core/quantity/format';
import type { Finding } from '~core/account/finding';
import { type Verdict, makeVerdict } from '~core/verdict/verdict';
import { todayDate } from '../../ui/clock';
import { saves, toAction } from '../../form/command';
import { ownRecord, reviewRecord } from './reviewRecords';
import { allFindings, nameIn } from '../findings/findingData';
import { plainAuditInput } from '../auditOf';
import type { RoomArgs } from '../roomArgs';

export async function loadReview({ params }: RoomArgs) {
  // What is said of the methods comes from beside the screen: it is asked for as the review writes figures.
  const findings = await allFindings(params.trialId, ({ figures }) => figures ?? 'plain');
  return inFigures(findings.review.figures ?? 'plain', () => written(findings));
}

/** All the review says, as figures are written now. */
function written(made: Awaited<ReturnType<typeof allFindings>>) {
  const { plan, state, review, findings, dated, primary, blind, trial } = made;
  const nameOf = nameIn(plan);
  const check = verifySeal(trial.row.plan, state.seal, trial.row.sealedAs);
  const auditFindings = audit(plainAuditInput(trial));
  const verdict = primary && makeVerdict(plan, primary, nameOf, { state, audit: auditFindings });
  const input = {
    state,
    review,
    findings,
    dated,
    verdict,
    nameOf,
    today: todayDate(),
    seal: check,
    signed: signedOf(trial.row.plan, trial.log),
    audit: auditFindings,
  };
  const generated = settled(reviewDocument(input));
  const sheet = contactSheet(state);
  const { blocks, outOfDate } = edited(
    generated,
    review.edits ?? [],
    review.hidden ?? [],
    review.order ?? [],
  );
  return {
    plan,
    state,
    rev: trial.rev,
    review,
    findings,
    blocks,
    generated,
    social: verdict && primary ? socialOf(plan, primary, verdict, nameOf) : null,
    filming: filmingBlocks(state, primary, verdict, nameOf),
    outOfDate,
    sheet,
    look: blindLook(sheet, plan.design?.seed ?? 1),
    chosen: chosenPhotos(state, review),
    photos: ofKind(state, 'photo').map((e) => ({
      id: e.id as string,
      thumb: e.body.thumbSha256 ?? e.body.sha256,
      shows: photoShows(state, e.id),
    })),
    card: cardOf(plan, review, findings, verdict, nameOf, panelFigures(state)),
    blind,
    broken: sayBrokenSeal(check),
  };
}

/** The verdict as it goes into a picture: contenders as they came. */
const socialOf = (plan: Plan, primary: Finding, verdict: Verdict, nameOf: (id: string) => string) => ({
  question: plan.question,
  sentence: verdict.headline.text,
  lines: verdict.lines.flatMap((l) => {
    const s = primary.analysis.summaries.find((x) => x.name === l.treatment.id);
    return s
      ? [
          {
            name: nameOf(s.name),
            index: plan.treatments.findIndex((t) => t.id === s.name),
            figure:
              s.shown ?? `${formatFigure(s.estimate, primary.trait.decimals)} ${primary.trait.unit}`.trim(),
          },
        ]
      : [];
  }),
  small: `${primary.trait.name}, ${countOf(primary.units.length, experimentalNoun(plan))}`,
});

export type ReviewData = ReturnType<typeof written>;

export const reviewAction = toAction({
  reveal: sealCommands.reveal,
  introduction: saves('review', reviewRecord, 'The review is saved.'),
  own: saves('review', ownRecord),
});
