import { otherwiseIn } from '../log/otherwise';
import { agreement, sayAgreement } from '../eye/scoreTwice';
import type { BodyOf } from '../log/entry';
import type { ResolvedEntry } from '../log/resolve';
import { type TrialState, ofKind, plannedIn } from '../log/state';
import { formatDay } from '../quantity/region';
import { compareWritten } from '../log/order';
import { localDay } from '../log/localDay';
import { type SealCheck, sayBrokenSeal } from '../log/verifySeal';
import { formatMoney } from '../quantity/money';
import { sayLetters } from '../plan/letters';
import { sayDesign } from '../account/thing';
import { experimentalNoun } from '../plan/sharing';
import { type Plan, blindingNames, roleNames, wayWords } from '../model/plan';
import { comparesPeers } from '../plan/control';
import { dayOfDate } from '../plan/days';
import { sayMatching } from '../plan/matching';
import { shortCode } from '../plan/shortCode';
import { planIndex } from '../plan/planIndex';
import {
  amountWords,
  countOf,
  formatFigure,
  formatSignificant,
  plural,
  sentenceCase,
} from '../quantity/format';
import { rehearsedOf } from '../design/rehearsalInput';
import { sayRehearsed } from '../plan/rehearsed';
import { handMoved } from '../design/handMoved';
import { type Account, accountOf } from '../account/account';
import { type RoundProgress, roundProgress } from '../schedule/rounds';
import { conditionItems } from './conditionItems';
import { mixingItems } from './mixingItems';
import { vesselBlocks } from './vesselTable';
import { type Block, column, text } from './block';

/** What was compared: contenders with their products, doses and packs. */
export function comparedBlocks({ plan }: TrialState): Block[] {
  const of = planIndex(plan);
  const alike = conditionItems(plan);
  const packs = (id: string) =>
    of
      .product(id)
      ?.packs.map(
        (k) =>
          `${amountWords(k.size, k.unit)} at ${formatMoney({ minor: k.priceMinor, currency: k.currency })}`,
      )
      .join('; ');
  return [
    { type: 'heading', level: 2, text: 'What was compared' },
    {
      type: 'table',
      columns: [column('Contender'), column('Role'), column('Products and dose'), column('Packs')],
      rows: plan.treatments.map((t) => ({
        cells: [
          { type: 'treatment', name: t.name, order: of.treatmentOrder(t.id) },
          text(roleNames[t.role]),
          text(
            t.products
              .map((u) => {
                const name = of.product(u.productId)?.name ?? '?';
                const dose =
                  u.rateText || `${amountWords(u.amount, u.unit)}${u.solutionLPerUnit ? '/L' : ''}`;
                const solution = u.solutionLPerUnit
                  ? ` in ${u.solutionText ?? `${formatSignificant(u.solutionLPerUnit, 4)} L`}`
                  : '';
                return `${name}, ${dose}${solution}${u.way ? `, ${wayWords[u.way]}` : ''}, ${u.timesPerUnit}×`;
              })
              .join('; '),
          ),
          text(t.products.map((u) => packs(u.productId)).join('; ')),
        ],
      })),
    },
    ...(alike.length > 0 ? [{ type: 'list' as const, items: alike }] : []),
  ];
}

/** When the plan was sealed, whether it still is that plan, and whether that was before the start. */
function sealItems({ plan, seal, log }: TrialState, check: SealCheck, signed: string | null): string[] {
  if (!seal) return ['The plan was not sealed.'];
  const day = dayOfDate(plan.startDate, localDay(seal));
  const late =
    day > 0
      ? ` That was ${day} ${day === 1 ? 'day' : 'days'} after the start: what was predicted may have been seen.`
      : '';
  const broken = sayBrokenSeal(check);
  return [
    `The plan was sealed on ${formatDay(localDay(seal))}; SHA-256 of the plan ${seal.planSha256}, code ${shortCode(seal.planSha256)}.${late}`,
    ...(signed === null
      ? []
      : [
          `The log as it stands for this review has ${log.length === 1 ? 'one line' : `${log.length} lines`}; plan and log together have the SHA-256 ${signed}. “palazzo verify” holds the trial’s file against both.`,
        ]),
    ...(broken === null ? [] : [broken]),
    ...(check.tag === 'namesLeftOut'
      ? ['This is a scorer’s copy: names are left out of it, so the seal can’t be checked here.']
      : []),
  ];
}

/** A round trait by trait: one that wasn't taken doesn't make the others untaken. */
function roundItem(state: TrialState, { round, date }: RoundProgress, account: Account): string {
  const { plan } = state;
  const answeredTraits = round.traitIds.flatMap((id) => {
    const trait = planIndex(plan).trait(id);
    if (!trait) return [];
    const { asked, inFull, inPart, samples } = account.answered(trait, round);
    if (asked.length === 0) return [`${trait.name.toLowerCase()}, asked of none any more`];
    const part =
      inPart.length === 0
        ? ''
        : ` in full, ${inPart.length} more in part (${samples.answered} of ${samples.asked} samples)`;
    return [`${trait.name.toLowerCase()} ${inFull.length} of ${asked.length}${part}`];
  });
  return `${round.name}: planned for ${formatDay(date)}; ${plural(plan.unitNoun)} with their ${answeredTraits.join(', ')}.`;
}

/** How it was done, one thing a line. @param signed one hash for plan and log; null: not said */
export function conductBlocks(
  state: TrialState,
  today: string,
  check: SealCheck,
  signed: string | null = null,
): Block[] {
  const { plan } = state;
  const account = accountOf(state, today);
  const { margin } = account;
  const primary = plan.primaryTraitId ? planIndex(plan).trait(plan.primaryTraitId) : undefined;
  const before =
    state.seal && dayOfDate(plan.startDate, localDay(state.seal)) <= 0
      ? 'Prediction before the start'
      : 'Prediction';
  return [
    { type: 'heading', level: 2, text: 'How it was done' },
    {
      type: 'list',
      items: [
        `${sentenceCase(plan.crop) || 'Crop not named'}; ${plan.units.length} ${plural(plan.unitNoun)} in ${plan.areas.map((a) => a.name).join(', ')}.`,
        layoutItem(state),
        `${before}: ${plan.prediction || 'none written'}`,
        margin !== null && primary
          ? `Decided by ${primary.name.toLowerCase()}; the smallest difference that matters was set at ${margin}.`
          : 'No smallest difference was set beforehand.',
        ...(plan.winning ? [`What counted as winning: ${plan.winning}`] : []),
        ...(plan.alsoAsked ? [`Also asked, exploratory: ${plan.alsoAsked}`] : []),
        ...(plan.finishingRule ? [`Finishing rule: ${plan.finishingRule}`] : []),
        ...howItems(state),
        ...mixingItems(state),
        ...roundProgress(state, today).map((r) => roundItem(state, r, account)),
        ...sealItems(state, check, signed),
      ],
    },
    ...vesselBlocks(state),
  ];
}

function layoutItem({ plan }: TrialState): string {
  const { design } = plan;
  if (!design) return 'No layout recorded.';
  // A layout by hand or in a fixed order drew nothing from a seed.
  const drawn = design.kind !== 'hand' && design.kind !== 'interleave';
  const moved = handMoved(plan).length;
  const byHand =
    moved > 0 ? `; ${moved} of ${plan.units.length} were then moved by hand, before the seal` : '';
  return `${countOf(design.replicates, experimentalNoun(plan))} of each, ${sayDesign(plan, design)}${drawn ? `, seed ${design.seed}` : ''}${byHand}.`;
}

/** How doses were matched, who scored and saw what, what was balanced, rotated and moved. */
function howItems(state: TrialState): string[] {
  const { plan, revealed, moved } = state;
  const { design, rotation, gradient } = plan;
  const feeds = plan.treatments.filter((t) => t.products.length > 0).length;
  return [
    ...(comparesPeers(plan) ? ['Equals were compared; none of them is a control.'] : []),
    ...(plan.wholeSystem
      ? ['Whole systems were compared: what did it, medium, container or feed, can’t be said.']
      : []),
    ...(feeds > 1 ? [sayMatching(plan)] : []),
    ...(plan.scorer ? [`Measured and scored by ${plan.scorer.replace(/\.$/, '')}.`] : []),
    ...rehearsedItem(state),
    ...ofKind(state, 'warmUp').map((e) => sayWarmUp(e, plan)),
    ...(plan.blinding === 'open'
      ? []
      : [
          `Blind: ${blindingNames[plan.blinding]}${revealed ? `; codes were opened on ${formatDay(localDay(revealed))}: ${sayLetters(plan)}` : '; codes are not opened'}.`,
        ]),
    ...(gradient
      ? [
          `${gradient.name} was read at ${gradient.readings.length} positions${design?.balance ? `; the layout was taken from ${design.balance.candidates} draws so that contenders’ means lie ${formatFigure(design.balance.spreadPercent, 1)} % apart at most` : ''}.`,
        ]
      : []),
    ...(rotation ? [`Units changed positions every ${rotation.everyDays} days.`] : []),
    ...(!rotation && moved.size > 0
      ? [
          `${moved.size} of ${plan.units.length} ${plural(plan.unitNoun)} were moved by hand during the trial.`,
        ]
      : []),
    ...(plan.cropsWithin.length > 0
      ? [`Crops in each ${plan.unitNoun}: ${plan.cropsWithin.join(', ')}.`]
      : []),
  ];
}

/** The rehearsal that was kept before the seal, of the plan as it was sealed. */
function rehearsedItem(state: TrialState): string[] {
  const seal = ofKind(state, 'seal').find((e) => e.id === state.seal?.entryId);
  const kept = ofKind(state, 'rehearsal').findLast((e) => seal && compareWritten(e, seal) < 0);
  if (!kept || kept.body.of !== rehearsedOf(plannedIn(state))) return [];
  return [`Rehearsed on paper before it began, in ${sayRehearsed(kept.body)}`];
}

/** How steady a scorer was on pictures before scoring. */
function sayWarmUp({ by, body }: ResolvedEntry<BodyOf<'warmUp'>>, plan: Plan): string {
  const trait = planIndex(plan).trait(body.traitId)?.name.toLowerCase() ?? 'a trait';
  return `Warm-up of ${by || 'the scorer'} on the scale of ${trait}, pictures of which some came again: ${sayAgreement(agreement(body.pairs, body.steps))}`;
}

/** What didn’t go to plan, from the log. */
export function eventBlocks(state: TrialState): Block[] {
  const of = planIndex(state.plan);
  const items = otherwiseIn(state).map(({ day, text: said, units }) => {
    const codes = units.map((id) => of.unit(id)?.code ?? '?').join(', ');
    return `${day === null ? '' : `${formatDay(day)}: `}${said}${codes && ` (${codes})`}.`;
  });
  return [
    { type: 'heading', level: 2, text: 'What didn’t go to plan' },
    items.length > 0 ? { type: 'list', items } : { type: 'paragraph', text: 'Nothing was recorded.' },
  ];
}
