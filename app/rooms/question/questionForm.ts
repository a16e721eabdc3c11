import { unitAt } from '~core/quantity/units';
import { recordForm } from '../../form/recordForm';
import { z } from 'zod';
import { RoundId as RoundIdSchema, type TraitId, TraitId as TraitIdSchema } from '~core/model/ids';
import { gradesOf } from '~core/log/picks';
import { Grade } from '~core/model/grade';
import { Plan, Trait, asks, kindOf, pers, summaries } from '~core/model/plan';
import { withCrop } from '~core/plan/beginning';
import { protocolOf } from '~core/schedule/protocols';
import { withWinning } from '~core/plan/winning';
import { finishingRuleFor } from '~core/schedule/protocols/protocol';
import { fieldText, optionalNumber, typedNumber } from '../../form/schemaFields';
import { parseScale, scaleToText } from './writtenScale';

const shape = Plan.shape;

const TraitForm = z
  .object({
    id: TraitIdSchema,
    name: z.string().trim().min(1, 'Give the trait a name.').max(80),
    unit: z.string().trim().max(20),
    kind: Trait.shape.kind,
    direction: z.enum(['higher', 'lower', 'band']),
    bandLow: optionalNumber(),
    bandHigh: optionalNumber(),
    decimals: typedNumber('How many?').pipe(z.number().int('Whole number.').min(0).max(4, 'Up to 4.')),
    plausibleLow: optionalNumber(),
    plausibleHigh: optionalNumber(),
    samplesPerUnit: typedNumber('How many?').pipe(
      z.number().int('Whole number.').min(1, 'At least 1.').max(200),
    ),
    summary: z.enum(summaries),
    per: z.enum(['unit', ...pers]),
    wholeUnit: z.boolean(),
    evenDead: z.boolean(),
    deadIsZero: z.boolean(),
    halfSteps: z.boolean(),
    withinBlocks: z.boolean(),
    isHeight: z.boolean(),
    countsAs: z.string().trim().max(300),
    constantPercent: optionalNumber().pipe(
      z.number().positive('More than 0 %.').max(20, 'Up to 20 %.').nullable(),
    ),
    outOf: optionalNumber().pipe(
      z.number().int('Whole number.').min(1, 'At least 1.').max(10_000).nullable(),
    ),
    scaleText: z.string().max(5000),
  })
  .superRefine((t, ctx) => {
    const { fields, fixedUnit } = kindOf(t);
    if (fields.includes('outOf') && t.outOf === null) {
      ctx.addIssue({ code: 'custom', path: ['outOf'], message: 'Out of how many?' });
    }
    if (fields.includes('scale')) {
      const steps = parseScale(t.scaleText);
      const values = steps.map((s) => s.value);
      if (new Set(values).size !== values.length || values.some((v) => v > 100)) {
        ctx.addIssue({
          code: 'custom',
          path: ['scaleText'],
          message: 'Each step needs a figure of its own, 0 to 100.',
        });
      }
      if (steps.length > 20)
        ctx.addIssue({ code: 'custom', path: ['scaleText'], message: 'Up to 20 steps.' });
    }
    if (t.direction === 'band' && !(t.bandLow !== null && t.bandHigh !== null && t.bandLow < t.bandHigh)) {
      ctx.addIssue({ code: 'custom', path: ['bandLow'], message: 'Give a lower and a higher end.' });
    }
    if (fixedUnit !== null && t.unit !== fixedUnit) {
      ctx.addIssue({ code: 'custom', path: ['unit'], message: `Such traits are kept in ${fixedUnit}.` });
    }
    if (t.plausibleLow !== null && t.plausibleHigh !== null && t.plausibleLow >= t.plausibleHigh) {
      ctx.addIssue({ code: 'custom', path: ['plausibleLow'], message: 'The least must be below the most.' });
    }
  });

/** Whether a trait’s unit is a length. */
export const isLength = (unit: string): boolean => unitAt(unit, ['length'])?.text === unit && unit !== '';

/** Names typed between commas. */
const nameList = z
  .string()
  .max(600)
  .transform((text) => [...new Set(text.split(',').map((s) => s.trim()))].filter(Boolean))
  .pipe(z.array(z.string().max(60, 'Up to 60 letters each.')).max(20, 'Up to 20 crops.'));

/** The Question room's form. Names and figures as typed; traits and rounds as lists. */
export const QuestionForm = z
  .object({
    question: shape.question,
    crop: shape.crop,
    unitNoun: shape.unitNoun,
    code: z.string().trim().toUpperCase().pipe(shape.code),
    startDate: shape.startDate,
    currency: shape.currency,
    prediction: shape.prediction,
    finishingRule: shape.finishingRule,
    alsoAsked: shape.alsoAsked,
    asks: z.enum(asks),
    winning: shape.winning,
    scorer: shape.scorer,
    cropsWithin: nameList,
    cvPercent: optionalNumber().pipe(shape.cvPercent),
    primaryTraitId: z.string(),
    differenceKind: z.enum(['absolute', 'percent']),
    differenceValue: optionalNumber().pipe(z.number().positive('More than 0.').nullable()),
    traits: z.array(TraitForm),
    grades: z.array(Grade).max(20, 'Up to 20 grades.'),
    rounds: z.array(
      z.object({
        id: RoundIdSchema,
        name: z.string().trim().min(1, 'Give the round a name.').max(80),
        day: typedNumber('On which day?').pipe(
          z.number().int('Whole days.').min(0, 'Not before the start.').max(2000),
        ),
        traitIds: z.array(TraitIdSchema),
      }),
    ),
  })
  .superRefine((f, ctx) => {
    const grades = f.grades.map((g) => g.name.toLowerCase());
    grades.forEach((n, i) => {
      if (grades.indexOf(n) !== i)
        ctx.addIssue({
          code: 'custom',
          path: ['grades', i, 'name'],
          message: 'Another grade has this name.',
        });
    });
    // A round keeps the ticks of traits that were removed, in case they come back; alone they measure nothing.
    const there = new Set<string>(f.traits.map((t) => t.id));
    f.rounds.forEach((r, i) => {
      if (!r.traitIds.some((id) => there.has(id)))
        ctx.addIssue({ code: 'custom', path: ['rounds', i, 'traitIds'], message: 'Tick what is measured.' });
    });
    const names = f.traits.map((t) => t.name.toLowerCase());
    names.forEach((n, i) => {
      if (names.indexOf(n) !== i)
        ctx.addIssue({
          code: 'custom',
          path: ['traits', i, 'name'],
          message: 'Another trait has this name.',
        });
    });
  });
export type QuestionFormInput = z.input<typeof QuestionForm>;

/** When it ends: a protocol's words follow the day of the last round, one's own stay. */
function endOf(plan: Plan, finishingRule: string, rounds: Plan['rounds']): string {
  const protocol = protocolOf(plan.protocolId);
  const own = !protocol || finishingRule !== finishingRuleFor(protocol, plan.rounds);
  return own ? finishingRule : finishingRuleFor(protocol, rounds);
}

/** The plan with what the form says; measurements and units aren't touched. */
export function applyQuestion(plan: Plan, f: z.output<typeof QuestionForm>): Plan {
  const { primaryTraitId, differenceKind, differenceValue, traits, grades, asks: asked, ...rest } = f;
  const { grades: _, asks: __, ...before } = plan;
  const picked = traits.some((t) => kindOf(t).takenBy === 'picks');
  const known = new Set<string>(traits.map((t) => t.id));
  const codeChanged = plan.code !== f.code;
  return withWinning(plan, {
    ...withCrop(before, f.crop),
    ...rest,
    ...(asked !== 'best' && { asks: asked }),
    ...(picked && grades.length > 0 && { grades }),
    finishingRule: endOf(plan, f.finishingRule, f.rounds),
    traits: traits.map(
      ({
        scaleText,
        per,
        wholeUnit,
        evenDead,
        deadIsZero,
        halfSteps,
        withinBlocks,
        isHeight,
        countsAs,
        constantPercent,
        ...t
      }) =>
        Trait.parse({
          ...t,
          // The first place is the best.
          ...(kindOf(t).observes === 'rank' && { direction: 'lower' }),
          ...(deadIsZero && !evenDead && kindOf(t).fields.includes('plausible') && { deadIsZero }),
          ...(halfSteps &&
            kindOf(t).fields.includes('halves') && {
              halfSteps,
              decimals: Math.max(1, t.decimals),
            }),
          ...(withinBlocks && kindOf(t).fields.includes('withinBlocks') && { withinBlocks }),
          ...(isHeight && isLength(t.unit) && { role: 'height' }),
          ...(countsAs !== '' && kindOf(t).fields.includes('countsAs') && { countsAs }),
          ...(constantPercent !== null && kindOf(t).fields.includes('constant') && { constantPercent }),
          ...(per !== 'unit' && kindOf(t).fields.includes('per') ? { per } : {}),
          ...(wholeUnit && f.cropsWithin.length > 0 && { wholeUnit }),
          ...(evenDead && { evenDead }),
          outOf: kindOf(t).fields.includes('outOf') ? t.outOf : null,
          scale: kindOf(t).fields.includes('scale') ? parseScale(scaleText) : [],
        }),
    ),
    rounds: f.rounds.map((r) => ({ ...r, traitIds: r.traitIds.filter((id) => known.has(id)) })),
    primaryTraitId: known.has(primaryTraitId) ? (primaryTraitId as TraitId) : null,
    smallestDifference: differenceValue === null ? null : { kind: differenceKind, value: differenceValue },
    units: codeChanged
      ? plan.units.map((u) => ({ ...u, code: u.code.replace(plan.code, f.code) }))
      : plan.units,
  });
}

export function toQuestionForm(plan: Plan): QuestionFormInput {
  return {
    question: plan.question,
    crop: plan.crop,
    unitNoun: plan.unitNoun,
    code: plan.code,
    startDate: plan.startDate,
    currency: plan.currency,
    prediction: plan.prediction,
    finishingRule: plan.finishingRule,
    alsoAsked: plan.alsoAsked,
    asks: plan.asks ?? 'best',
    winning: plan.winning,
    scorer: plan.scorer,
    cropsWithin: plan.cropsWithin.join(', '),
    cvPercent: fieldText(plan.cvPercent),
    primaryTraitId: plan.primaryTraitId ?? '',
    grades: plan.traits.some((t) => kindOf(t).takenBy === 'picks') ? [...gradesOf(plan)] : [],
    differenceKind: plan.smallestDifference?.kind ?? 'percent',
    differenceValue: fieldText(plan.smallestDifference?.value),
    traits: plan.traits.map(({ scale, role, ...t }) => ({
      ...t,
      per: t.per ?? 'unit',
      wholeUnit: t.wholeUnit ?? false,
      evenDead: t.evenDead ?? false,
      deadIsZero: t.deadIsZero ?? false,
      halfSteps: t.halfSteps ?? false,
      withinBlocks: t.withinBlocks ?? false,
      isHeight: role === 'height',
      countsAs: t.countsAs ?? '',
      constantPercent: fieldText(t.constantPercent),
      outOf: fieldText(t.outOf),
      scaleText: scaleToText(scale),
      bandLow: fieldText(t.bandLow),
      bandHigh: fieldText(t.bandHigh),
      decimals: String(t.decimals),
      plausibleLow: fieldText(t.plausibleLow),
      plausibleHigh: fieldText(t.plausibleHigh),
      samplesPerUnit: String(t.samplesPerUnit),
    })),
    rounds: plan.rounds.map((r) => ({ ...r, day: String(r.day), traitIds: [...r.traitIds] })),
  };
}

/** The plan as the Question room shows and changes it. */
export const questionRecord = recordForm({
  name: 'question',
  shown: toQuestionForm,
  schema: QuestionForm,
  apply: applyQuestion,
});
