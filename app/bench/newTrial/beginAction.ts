import { redirect } from 'react-router';
import { z } from 'zod';
import { Plan, areaKinds } from '~core/model/plan';
import { err, ok } from '~core/model/result';
import { type Answer, command, toAction } from '../../form/command';
import { refuse } from '../../form/recordForm';
import { numberIn } from '~core/quantity/number';
import { optionalNumber, optionalSize, orNull, typedList, typedNumber } from '../../form/schemaFields';
import { checkSolution } from '../../rooms/contenders/dose';
import { listProducts, bringProducts } from '../../store/products';
import { askToLast } from '../../store/storage';
import { createTrial, listPlans, sealPlan } from '../../store/trials';
import { announce } from '../../ui/announce';
import { unitsHere } from '../../ui/region';
import { beginTrial, ratesIn } from './beginTrial';

const shape = Plan.shape;
/** Left empty, or as the plan takes it. */
const orEmpty = (schema: z.ZodType) => (text: string, ctx: z.RefinementCtx) => {
  const read = schema.safeParse(text);
  if (text !== '' && !read.success) ctx.addIssue({ code: 'custom', message: read.error.issues[0]!.message });
};

const BeginForm = z.object({
  protocolId: z.string(),
  names: z.array(z.string().trim().max(140, 'Up to 140 letters.')).max(20, 'Up to 20 at once.'),
  withWater: z.boolean(),
  base: z.string().trim().max(140, 'Up to 140 letters.'),
  /** shares of the label's rate, per cent */
  rates: typedList<number>((text) => {
    const rates = ratesIn(text);
    return rates ? ok(rates) : err('Per cent of the label’s rate, with commas between: 50, 100, 150.');
  }, ', '),
  share: orNull(z.enum(areaKinds)),
  inEach: typedNumber('How many?').pipe(
    z.number().int('Whole ones.').min(1, 'At least one.').max(40, 'Up to 40.'),
  ),
  each: typedNumber('How many of each?').pipe(
    z.number().int('Whole ones.').min(1, 'At least one.').max(40, 'Up to 40.'),
  ),
  crop: shape.crop,
  unitNoun: z.string().trim().superRefine(orEmpty(shape.unitNoun)),
  question: z.string().trim().superRefine(orEmpty(shape.question)),
  prediction: shape.prediction,
  solution: z.string().trim().superRefine(checkSolution),
  differencePercent: optionalNumber().pipe(z.number().positive('More than 0 %.').max(1000).nullable()),
  areaCm2: z
    .string()
    .trim()
    .superRefine((text, ctx) => {
      if (numberIn(text) !== null)
        ctx.addIssue({ code: 'custom', message: `${text} of what? Write ${text} m² or ${text} sq ft.` });
    })
    .pipe(optionalSize('area')),
  code: z.string().trim().toUpperCase().superRefine(orEmpty(shape.code)),
  startDate: shape.startDate,
  currency: z.string().trim().toUpperCase().pipe(shape.currency),
  next: z.enum(['seal', 'plan']),
});

/** Makes the trial of what was asked for, and seals it where that is wanted. */
async function begin(_: string | undefined, asked: z.output<typeof BeginForm>): Promise<Answer> {
  const [plans, library] = await Promise.all([listPlans(), listProducts()]);
  const takenCodes = plans.map((p) => p.code as string);
  if (takenCodes.includes(asked.code))
    return refuse('code', 'Another trial uses this code; labels would be mixed up.');
  const made = beginTrial(asked, { library, taken: takenCodes, units: unitsHere(plans[0]) });
  if (!made.ok) return err({ tag: 'refused', errors: made.error as Record<string, string> });
  const { plan, added, open } = made.value;
  if (plan.code === '') return refuse('code', 'Three letters: every label begins with them.');
  await createTrial(await bringProducts(plan, added));
  // From here on there is something to lose.
  void askToLast();
  if (open !== null) announce(open);
  if (asked.next === 'plan')
    return redirect(`/trial/${plan.id}/${plan.treatments.length > 0 ? 'contenders' : 'question'}`);
  const sealed = await sealPlan(plan.id);
  return redirect(`/trial/${plan.id}/${sealed.ok ? 'rounds' : 'layout'}`);
}

export const beginAction = toAction({ trial: command(BeginForm, begin) });
