import { z } from 'zod';
import { dateOfDay } from '~core/plan/days';
import type { Slot } from '~core/season/propose';
import { optionalNumber, typedNumber } from '../../form/schemaFields';
import { isDay } from '../../ui/day/whole';

export const goals = {
  best: 'which is best',
  rank: 'how all of them stand',
  pair: 'whether one is worth it against another',
  crop: 'whether one holds on another crop',
} as const;

const whole = (most: number) =>
  z.number().int('Whole ones.').min(1, 'At least one.').max(most, `Up to ${most}.`);

/** What is asked, and what there is to find it out with. */
export const SeasonForm = z
  .object({
    goal: z.enum(['best', 'rank', 'pair', 'crop']),
    products: z.array(z.string().max(200)).max(12, 'Up to twelve at once.'),
    withNothing: z.boolean(),
    a: z.string(),
    b: z.string(),
    crop: z.string().trim().max(80),
    areas: z
      .array(
        z.object({
          name: z.string().trim().min(1, 'What is it called?').max(60),
          places: typedNumber('How many fit?').pipe(whole(400)),
        }),
      )
      .min(1, 'Somewhere they have to stand.')
      .max(12, 'Up to twelve.'),
    startDate: z.string().refine(isDay, 'A day.'),
    weeks: typedNumber('How many weeks?').pipe(whole(104)),
    trialWeeks: typedNumber('How many weeks?').pipe(whole(60)),
    hands: optionalNumber().pipe(whole(2000).nullable()),
    arms: typedNumber('How many?').pipe(
      z.number().int('Whole ones.').min(2, 'Two at least.').max(12, 'Up to twelve.'),
    ),
    budget: optionalNumber().pipe(z.number().min(0, 'Nothing or more.').nullable()),
    solution: z.string().trim().max(40),
  })
  .superRefine((f, ctx) => {
    const say = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message });
    const all = f.products.length + Number(f.withNothing);
    if (f.goal === 'crop') {
      if (f.a === '') say('a', 'Which one?');
      if (f.crop === '') say('crop', 'On which crop?');
    } else if (f.goal === 'pair') {
      if (f.a === '' || f.b === '' || f.a === f.b) say('b', 'Two that differ.');
    } else if (f.products.length < 2) say('products', 'Two products at least.');
    else if (all < 2) say('products', 'Two at least are compared.');
    if (f.trialWeeks > f.weeks) say('trialWeeks', 'Longer than the season: no trial would end in it.');
  });
export type SeasonWishes = z.output<typeof SeasonForm>;
export type SeasonTyped = z.input<typeof SeasonForm>;

/** Between two trials in one area: cleaning and sowing anew (practice). */
const BETWEEN_DAYS = 7;

/** Every stretch of an area that a trial fits into, within the season. */
export function slotsOf(
  w: Pick<SeasonWishes, 'areas' | 'startDate' | 'weeks' | 'trialWeeks' | 'hands'>,
): Slot[] {
  const length = 7 * w.trialWeeks;
  const shared = w.hands === null ? Infinity : Math.floor(w.hands / w.areas.length);
  return w.areas.flatMap((area) => {
    const slots: Slot[] = [];
    for (let day = 0; day + length <= 7 * w.weeks; day += length + BETWEEN_DAYS)
      slots.push({
        area: area.name,
        places: Math.min(area.places, shared),
        startDate: dateOfDay(w.startDate, day),
        endDate: dateOfDay(w.startDate, day + length),
      });
    return slots;
  });
}
