import { err } from '~core/model/result';
import { type Answer, command, toAction } from '../../form/command';
import { refuse } from '../../form/recordForm';
import { redirect } from 'react-router';
import { z } from 'zod';
import { optionalNumber, typedNumber } from '../../form/schemaFields';
import { listProducts, saveProduct } from '../../store/products';
import { askToLast } from '../../store/storage';
import { createTrial, listTrials, sealPlan } from '../../store/trials';
import { todayDate } from '../clock';
import { announce } from '../../ui/announce';
import { quickPlan } from './quickPlan';
import { currencyHere, unitsHere } from '../../ui/region';

const QuickForm = z.object({
  protocolId: z.string(),
  names: z.array(z.string().trim().max(140, 'Up to 140 letters.')).max(20, 'Up to 20 at once.'),
  withWater: z.boolean(),
  base: z.string().trim().max(140, 'Up to 140 letters.'),
  each: typedNumber('How many of each?').pipe(
    z.number().int('Whole ones.').min(1, 'At least one.').max(40, 'Up to 40.'),
  ),
  crop: z.string().trim().max(80),
  question: z.string().trim().max(200),
  prediction: z.string().trim().max(2000),
  solutionL: optionalNumber().pipe(z.number().positive('More than 0 L.').max(100_000).nullable()),
  next: z.enum(['seal', 'plan']),
});

/** Makes the trial of what was asked for, and seals it where that is wanted. */
async function begin(_: string | undefined, asked: z.output<typeof QuickForm>): Promise<Answer> {
  const [trials, library] = await Promise.all([listTrials(), listProducts()]);
  const made = quickPlan(asked, {
    library,
    taken: trials.map((t) => t.row.plan.code),
    today: todayDate(),
    currency: trials[0]?.row.plan.currency ?? library[0]?.packs[0]?.currency ?? currencyHere(),
    units: unitsHere(trials[0]?.row.plan),
  });
  if (!made.ok) return err({ tag: 'refused', errors: made.error as Record<string, string> });
  const { plan, added, open } = made.value;
  if (plan.code === '') return refuse('names', 'Write a name with letters in it: labels begin with them.');
  for (const product of added) await saveProduct(product);
  await createTrial(plan);
  void askToLast();
  if (open !== null) announce(open);
  if (asked.next === 'plan') return redirect(`/trial/${plan.id}/contenders`);
  const sealed = await sealPlan(plan.id);
  return redirect(`/trial/${plan.id}/${sealed.ok ? 'rounds' : 'layout'}`);
}

export const quickAction = toAction({ trial: command(QuickForm, begin) });
