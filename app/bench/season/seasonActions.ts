import { redirect } from 'react-router';
import { z } from 'zod';
import { ok } from '~core/model/result';
import { protocolOf } from '~core/schedule/protocols';
import { listNames } from '~core/quantity/format';
import { NOTHING } from '~core/standings/overTrials';
import { type Answer, command, toAction } from '../../form/command';
import { refuse } from '../../form/recordForm';
import { listProducts, bringProducts } from '../../store/products';
import { keepSeasonWishes } from '../../store/seasonWishes';
import { createTrial, listPlans } from '../../store/trials';
import { announce } from '../../ui/announce';
import { currencyHere, unitsHere } from '../../ui/region';
import { beginTrial } from '../newTrial/beginTrial';
import { dosedAsBefore } from './dosedAsBefore';
import { likeOf } from './seasonData';
import { SeasonForm } from './seasonForm';

/** A proposal as it is sent back to be made. */
const Made = z.object({
  arms: z.array(z.string().max(200)).min(2).max(12),
  each: z.number().int().min(1).max(40),
  startDate: z.string(),
  crop: z.string(),
  solution: z.string(),
});

/** Makes the trial of a proposal, run as the last one of its crop was. */
async function make(_: string | undefined, asked: z.output<typeof Made>): Promise<Answer> {
  const [plans, library] = await Promise.all([listPlans(), listProducts()]);
  const like = likeOf(plans, asked.crop);
  // What stood in a trial is known by it, though it left the library since.
  const named = new Set(library.map((p) => p.name));
  const known = [
    ...library,
    ...plans.flatMap((p) => p.products).filter((p) => !named.has(p.name) && named.add(p.name)),
  ];
  // A trial of additives needs its base said: it is planned as a plain one.
  const protocolId = protocolOf(like?.protocolId ?? '')?.onBase ? '' : (like?.protocolId ?? '');
  const begun = beginTrial(
    {
      ...{ protocolId, names: asked.arms.filter((n) => n !== NOTHING) },
      ...{ withWater: asked.arms.includes(NOTHING), base: '', rates: [100], each: asked.each },
      ...{
        share: null,
        inEach: 1,
        crop: asked.crop,
        unitNoun: like?.unitNoun ?? '',
        question: '',
        prediction: '',
      },
      solution: asked.solution,
      differencePercent: like?.smallestDifference?.kind === 'percent' ? like.smallestDifference.value : null,
      areaCm2: like?.treatments[0]?.conditions.areaPerUnitCm2 ?? null,
      ...{
        code: '',
        startDate: asked.startDate,
        currency: like?.currency ?? currencyHere(),
        next: 'plan' as const,
      },
    },
    { library: known, taken: plans.map((p) => p.code as string), units: unitsHere(plans[0]) },
  );
  if (!begun.ok) return refuse('make', Object.values(begun.error).join(' '));
  const { added } = begun.value;
  const plan = dosedAsBefore(begun.value.plan, plans, library);
  if (plan.code === '') return refuse('make', 'Name the crop: labels begin with three letters of it.');
  await createTrial(await bringProducts(plan, added));
  const undosed = plan.treatments.filter((t) => t.role === 'test' && t.products.length === 0);
  announce(
    undosed.length > 0
      ? `Planned, and in the calendar. How much of ${listNames(undosed.map((t) => t.name))} each gets is still to be said.`
      : 'Planned, and in the calendar. Doses, places and the prediction are yours to look at.',
  );
  return redirect(`/trial/${plan.id}/contenders`);
}

/** What was typed, kept as it was typed once it can be read. */
const Typed = z.unknown().transform((typed, ctx) => {
  const read = SeasonForm.safeParse(typed);
  if (!read.success)
    for (const { message, path } of read.error.issues) ctx.addIssue({ code: 'custom', message, path });
  return typed as object;
});

export const seasonAction = toAction({
  wishes: command(Typed, async (_, typed) => {
    await keepSeasonWishes(typed);
    return ok({});
  }),
  make: command(Made, make),
});
