import { z } from 'zod';
import { gradesOf } from '~core/log/picks';
import { Grade } from '~core/model/grade';
import { TraitId } from '~core/model/ids';
import { Plan, Round, SmallestDifference, Trait, asks, kindOf, pers } from '~core/model/plan';
import { withCrop } from '~core/plan/beginning';
import { withWinning } from '~core/plan/winning';
import { unitAt } from '~core/quantity/units';
import { protocolOf } from '~core/schedule/protocols';
import { finishingRuleFor } from '~core/schedule/protocols/protocol';
import { recordForm } from '../../form/recordForm';
import {
  nameList,
  optionalNumber,
  orNull,
  orUnsaid,
  ticked,
  typedNumber,
  unsaidNumber,
  usually,
} from '../../form/schemaFields';
import { writtenScale } from './writtenScale';

/** A trait as a row of the form. */
export const TraitForm = z
  .object({
    ...Trait.shape,
    bandLow: optionalNumber(),
    bandHigh: optionalNumber(),
    decimals: typedNumber('How many?').pipe(Trait.shape.decimals),
    plausibleLow: optionalNumber(),
    plausibleHigh: optionalNumber(),
    samplesPerUnit: typedNumber('How many?').pipe(Trait.shape.samplesPerUnit),
    per: usually(Trait.shape.per, 'unit', z.enum(['unit', ...pers])),
    wholeUnit: ticked(),
    evenDead: ticked(),
    deadIsZero: ticked(),
    halfSteps: ticked(),
    withinBlocks: ticked(),
    role: ticked('height'),
    countsAs: orUnsaid(Trait.shape.countsAs.unwrap()),
    constantPercent: unsaidNumber(Trait.shape.constantPercent),
    outOf: optionalNumber().pipe(Trait.shape.outOf),
    scale: writtenScale,
  })
  .superRefine((t, ctx) => {
    const say = (path: keyof Trait, message: string) =>
      ctx.addIssue({ code: 'custom', path: [path], message });
    const { fields, fixedUnit } = kindOf(t);
    if (fields.includes('outOf') && t.outOf === null) say('outOf', 'Out of how many?');
    if (fields.includes('scale')) {
      const values = t.scale.map((s) => s.value);
      if (new Set(values).size !== values.length || values.some((v) => v > 100))
        say('scale', 'Each step needs a figure of its own, 0 to 100.');
      if (values.length > 20) say('scale', 'Up to 20 steps.');
    }
    if (t.direction === 'band' && !(t.bandLow !== null && t.bandHigh !== null && t.bandLow < t.bandHigh))
      say('bandLow', 'Give a lower and a higher end.');
    if (fixedUnit !== null && t.unit !== fixedUnit) say('unit', `Such traits are kept in ${fixedUnit}.`);
    if (t.plausibleLow !== null && t.plausibleHigh !== null && t.plausibleLow >= t.plausibleHigh)
      say('plausibleLow', 'The least must be below the most.');
  });

/** Whether a trait’s unit is a length. */
export const isLength = (unit: string): boolean => unitAt(unit, ['length'])?.text === unit && unit !== '';

/** The smallest difference that matters; none where no figure is typed. */
const smallestDifference = z.codec(
  z.object({
    kind: SmallestDifference.shape.kind,
    value: optionalNumber().pipe(z.number().positive('More than 0.').nullable()),
  }),
  SmallestDifference.nullable(),
  {
    decode: ({ kind, value }) => (value === null ? null : { kind, value }),
    encode: (difference) => difference ?? { kind: 'percent' as const, value: null },
  },
);

const { question, crop, unitNoun, code, startDate, currency, prediction, finishingRule } = Plan.shape;
const { alsoAsked, winning, scorer, cvPercent } = Plan.shape;

/** The Question room's form. Names and figures as typed; traits and rounds as lists. */
const QuestionForm = z
  .object({
    ...{ question, crop, unitNoun, startDate, currency, prediction, finishingRule },
    ...{ alsoAsked, winning, scorer },
    code: z.string().trim().toUpperCase().pipe(code),
    asks: usually(Plan.shape.asks, 'best', z.enum(asks)),
    cropsWithin: nameList(20, 'Up to 20 crops.'),
    cvPercent: optionalNumber().pipe(cvPercent),
    primaryTraitId: orNull(TraitId),
    smallestDifference,
    traits: z.array(TraitForm),
    grades: z.array(Grade).max(20, 'Up to 20 grades.'),
    rounds: z.array(
      z.object({
        ...Round.shape,
        day: typedNumber('On which day?').pipe(Round.shape.day),
        traitIds: z.array(TraitId),
      }),
    ),
  })
  .superRefine((f, ctx) => {
    const twice = (list: 'grades' | 'traits', message: string) => {
      const names = f[list].map((x) => x.name.toLowerCase());
      names.forEach((n, i) => {
        if (names.indexOf(n) !== i) ctx.addIssue({ code: 'custom', path: [list, i, 'name'], message });
      });
    };
    twice('grades', 'Another grade has this name.');
    twice('traits', 'Another trait has this name.');
    // A round keeps the ticks of traits that were removed, in case they come back; alone they measure nothing.
    const there = new Set<string>(f.traits.map((t) => t.id));
    f.rounds.forEach((r, i) => {
      if (!r.traitIds.some((id) => there.has(id)))
        ctx.addIssue({ code: 'custom', path: ['rounds', i, 'traitIds'], message: 'Tick what is measured.' });
    });
  });
export type QuestionFormInput = z.input<typeof QuestionForm>;

/** When it ends: a protocol's words follow the day of the last round, one's own stay. */
function endOf(plan: Plan, finishingRule: string, rounds: Plan['rounds']): string {
  const protocol = protocolOf(plan.protocolId);
  const own = !protocol || finishingRule !== finishingRuleFor(protocol, plan.rounds);
  return own ? finishingRule : finishingRuleFor(protocol, rounds);
}

/** A trait with what its kind asks, and nothing else. */
function traitOf(t: z.output<typeof TraitForm>, severalCrops: boolean): Trait {
  const { fields, observes } = kindOf(t);
  const asked = <T>(field: (typeof fields)[number], value: T) => (fields.includes(field) ? value : undefined);
  const halfSteps = asked('halves', t.halfSteps);
  return {
    ...t,
    // The first place is the best.
    direction: observes === 'rank' ? 'lower' : t.direction,
    deadIsZero: t.evenDead ? undefined : asked('plausible', t.deadIsZero),
    halfSteps,
    decimals: halfSteps ? Math.max(1, t.decimals) : t.decimals,
    withinBlocks: asked('withinBlocks', t.withinBlocks),
    role: isLength(t.unit) ? t.role : undefined,
    countsAs: asked('countsAs', t.countsAs),
    constantPercent: asked('constant', t.constantPercent),
    per: asked('per', t.per),
    wholeUnit: severalCrops ? t.wholeUnit : undefined,
    outOf: asked('outOf', t.outOf) ?? null,
    scale: asked('scale', t.scale) ?? [],
  };
}

/** The plan as the Question room shows and changes it; measurements and units aren't touched. */
export const questionRecord = recordForm({
  name: 'question',
  schema: QuestionForm,
  of: (plan: Plan) => ({
    ...plan,
    grades: plan.traits.some((t) => kindOf(t).takenBy === 'picks') ? [...gradesOf(plan)] : [],
  }),
  apply: (plan, f) => {
    const picked = f.traits.some((t) => kindOf(t).takenBy === 'picks');
    const known = new Set<string>(f.traits.map((t) => t.id));
    return withWinning(plan, {
      ...withCrop(plan, f.crop),
      ...f,
      grades: picked && f.grades.length > 0 ? f.grades : undefined,
      finishingRule: endOf(plan, f.finishingRule, f.rounds),
      traits: f.traits.map((t) => traitOf(t, f.cropsWithin.length > 0)),
      rounds: f.rounds.map((r) => ({ ...r, traitIds: r.traitIds.filter((id) => known.has(id)) })),
      primaryTraitId: f.primaryTraitId !== null && known.has(f.primaryTraitId) ? f.primaryTraitId : null,
      units:
        plan.code === f.code
          ? plan.units
          : plan.units.map((u) => ({ ...u, code: u.code.replace(plan.code, f.code) })),
    });
  },
});
