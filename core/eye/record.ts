import { z } from 'zod';
import { type Proportion, wilson } from '../stats/proportion';
import { levelAfter } from './staircase';

export const games = ['call', 'fault', 'dose', 'score', 'claim'] as const;
export type Game = (typeof games)[number];

export const gameNames: Record<Game, string> = {
  call: 'Call it',
  fault: 'Find the fault',
  dose: 'Dose it',
  score: 'Score it twice',
  claim: 'Judge the claim',
};

/** One case that was answered. The seed and the level make it again. */
export const EyeAnswer = z.object({
  id: z.string().max(60),
  at: z.iso.datetime({ offset: true }),
  /** the calendar day where it was answered */
  day: z.iso.date(),
  by: z.string().max(80),
  game: z.enum(games),
  seed: z.number().int().min(0),
  level: z.number().min(0).max(1),
  right: z.boolean(),
  /** of a call: whether something truly differed, whether eye and test named anyone, and whether it was whoever is best */
  call: z
    .object({
      differs: z.boolean(),
      eye: z.enum(['none', 'best', 'other']),
      test: z.enum(['none', 'best', 'other']),
    })
    .optional(),
  /** of a plan with faults: how many there were, found, and marked that were none */
  faults: z
    .object({ there: z.number().int().min(0), hit: z.number().int().min(0), wrong: z.number().int().min(0) })
    .optional(),
});
export type EyeAnswer = z.infer<typeof EyeAnswer>;

/** k of n with its interval, beside what a fair test gets on the same. */
export interface Beside {
  what: string;
  eye: Proportion;
  test: Proportion;
}

const ALPHA = 0.05;
const share = (all: readonly EyeAnswer[], is: (a: EyeAnswer) => boolean) =>
  wilson(all.filter(is).length, all.length, ALPHA);

/** What the calls so far show: winners seen where there are none, differences seen that are there. */
export function callRecord(answers: readonly EyeAnswer[]): Beside[] {
  const calls = answers.filter((a) => a.call);
  const none = calls.filter((a) => !a.call!.differs);
  const some = calls.filter((a) => a.call!.differs);
  return [
    {
      what: 'sees a winner where there is none',
      eye: share(none, (a) => a.call!.eye !== 'none'),
      test: share(none, (a) => a.call!.test !== 'none'),
    },
    {
      what: 'names the better one where there is one',
      eye: share(some, (a) => a.call!.eye === 'best'),
      test: share(some, (a) => a.call!.test === 'best'),
    },
  ];
}

/** Right of all, of one game. */
export const rightOf = (answers: readonly EyeAnswer[]): Proportion => share(answers, (a) => a.right);

/** The level a game goes on at. @param answers of all games, the oldest first */
export const levelOf = (answers: readonly EyeAnswer[], game: Game): number =>
  levelAfter(answers.filter((a) => a.game === game));

/** By week, the newest last: how many were answered and how many were right. @returns weeks by their Monday, YYYY-MM-DD */
export function byWeek(answers: readonly EyeAnswer[]): { week: string; right: Proportion }[] {
  const weeks = new Map<string, EyeAnswer[]>();
  for (const a of answers) {
    const day = new Date(`${a.day}T12:00:00Z`);
    day.setUTCDate(day.getUTCDate() - ((day.getUTCDay() + 6) % 7));
    const week = day.toISOString().slice(0, 10);
    weeks.set(week, [...(weeks.get(week) ?? []), a]);
  }
  return [...weeks]
    .sort(([a], [b]) => a.localeCompare(b))
    .map(([week, own]) => ({ week, right: rightOf(own) }));
}
