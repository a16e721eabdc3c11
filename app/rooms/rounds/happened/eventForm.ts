import dayjs from 'dayjs';
import { z } from 'zod';
import { happeningNames, happenings } from '~core/model/happening';
import { TreatmentId, type UnitId } from '~core/model/ids';
import { minutesTaken, typedNumber } from '../../../form/schemaFields';
import { shortDate } from '../../../ui/clock';
import { isDay } from '../../../ui/day/whole';

const whole = 'A whole number from 2 to 100.';
const when = {
  date: z.string(),
  time: z.string().regex(/^(\d{2}:\d{2})?$/, 'Hours and minutes, or neither.'),
};
const said = (asked: string) => z.string().trim().min(1, asked);
const words = z.string().trim();

/** What is typed of a thing that happened, by its kind. */
const Typed = z.discriminatedUnion('kind', [
  z.object({
    kind: z.enum(happeningNames),
    text: said('Write down in a few words what happened.'),
    ...when,
  }),
  z.object({ kind: z.enum(['death', 'replacement', 'mixedUp']), text: words, ...when }),
  z.object({
    kind: z.literal('extraUnit'),
    text: words,
    treatmentId: z.string().min(1, 'Of which contender?').pipe(TreatmentId),
    ...when,
  }),
  z.object({
    kind: z.literal('split'),
    text: words,
    into: typedNumber(whole).pipe(z.number().int(whole).min(2, whole).max(100, whole)),
    ...when,
  }),
  z.object({
    kind: z.literal('work'),
    text: said('What was done?').max(200, 'At most 200 letters: what was done, in a few words.'),
    minutes: minutesTaken(),
    ...when,
  }),
]);
export type EventKind = z.output<typeof Typed>['kind'];

export const eventKinds: [EventKind, string][] = [
  ...happeningNames.map((k): [EventKind, string] => [k, happenings[k].name]),
  ['death', 'It died'],
  ['replacement', 'Replaced from the spares'],
  ['mixedUp', 'Labels lost: each is one of these'],
  ['extraUnit', 'One unit more than planned'],
  ['split', 'Split at transplanting: each goes on in several vessels'],
  ['work', 'Work done, in minutes'],
];

/** As it is typed: the fields of all kinds. */
export type EventTyped = { kind: EventKind } & Record<
  'text' | 'treatmentId' | 'into' | 'minutes' | 'date' | 'time',
  string
>;

/** How many units it has to have happened to, and what to say of fewer. */
const unitsAsked: Partial<Record<EventKind, [least: number, asked: string]>> = {
  replacement: [1, 'Press what was replaced on the plan.'],
  death: [1, 'Press what died on the plan.'],
  split: [1, 'Press what was split on the plan.'],
  mixedUp: [2, 'Press all that can be each other: two or more.'],
};

/**
 * What is sent for a thing that happened to these units.
 * @param startDate it can't have been long before @param today nor after
 */
export const eventOf = (unitIds: readonly UnitId[], startDate: string, today: string) =>
  (Typed as unknown as z.ZodType<z.output<typeof Typed>, EventTyped>)
    .superRefine(({ kind, date }, ctx) => {
      const say = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message });
      const [least, asked] = unitsAsked[kind] ?? [0, ''];
      if (unitIds.length < least) say('units', asked);
      if (!isDay(date)) say('date', 'A whole day.');
      else if (date > today) say('date', 'That day is still to come.');
      else if (date < dayjs(startDate).subtract(30, 'day').format('YYYY-MM-DD'))
        say('date', `The trial began on ${shortDate(startDate)}.`);
    })
    .transform((event) => ({
      ...sentFor(event, unitIds),
      ...((event.date !== today || event.time !== '') && {
        when: { date: event.date, time: event.time || '12:00' },
      }),
    }));

function sentFor(e: z.output<typeof Typed>, unitIds: readonly UnitId[]): object {
  switch (e.kind) {
    case 'replacement':
      return { bodies: unitIds.map((unitId) => ({ kind: e.kind, unitId, sample: null, reason: e.text })) };
    case 'death':
      return { bodies: unitIds.map((unitId) => ({ kind: e.kind, unitId, sample: null, cause: e.text })) };
    case 'extraUnit':
      return { extraUnit: { treatmentId: e.treatmentId, reason: e.text } };
    case 'split':
      return { bodies: unitIds.map((unitId) => ({ kind: e.kind, unitId, into: e.into, reason: e.text })) };
    case 'work':
      return { body: { kind: e.kind, task: e.text, minutes: e.minutes, unitIds } };
    case 'mixedUp':
      return { body: { kind: e.kind, unitIds, reason: e.text } };
    default:
      return { body: { kind: 'deviation', unitIds, what: e.kind, text: e.text } };
  }
}
