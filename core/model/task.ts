import { z } from 'zod';

/** The day all units end, which is the plan's last round. */
export const END_EVENT = 'the end';

/** Something to be done on a day of the trial, or so many days after something happened. */
export const PlannedTask = z.object({
  /** stays the same when the words change */
  key: z.string().min(1).max(60),
  what: z.string().trim().min(1, 'Say what is to be done.').max(160),
  /** why it is done, and on that day */
  why: z.string().trim().max(300),
  /** what to have at hand, with commas between */
  atHand: z.string().trim().max(300),
  /** what can hurt someone, or the trial; empty: nothing */
  caution: z.string().trim().max(300),
  minutes: z.number().min(0).max(1440),
  /** what it follows: null: the start of the trial; else an event, or “the end” */
  after: z.string().trim().min(1).max(60).nullable(),
  /** days after that; below 0: before it */
  day: z.number('Give the day as a number.').int('Whole days.').min(-60).max(2000),
  /** again every so many days; null: once */
  everyDays: z.number().int().min(1, 'At least every day.').max(365).nullable(),
  /** last day it is done again, days after the same; null: to the end of the trial */
  untilDay: z.number().int().min(0).max(2000).nullable(),
  /** time of day, HH:MM; null: any */
  at: z
    .string()
    .regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'A time such as 07:30.')
    .nullable(),
});
export type PlannedTask = z.infer<typeof PlannedTask>;
