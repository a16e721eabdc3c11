import { z } from 'zod';
import type { ReviewText } from '~core/log/trial';
import type { Plan } from '~core/model/plan';
import { type Result, ok } from '~core/model/result';
import { todayDate } from '../ui/clock';
import { type Happened, change, momentOf } from '../store/change';
import { type ChangeError, describeChangeError } from '../store/errors';
import { guarded } from './guarded';
import { sentIn } from './handedOver';
import { type MergeError, type RecordForm, SentForm, applied } from './recordForm';
import { type ActionResult, fieldErrors } from './schemaFields';

/** What a command says where it was done. */
export interface Done {
  message?: string;
  /** the record as it was saved, as its form shows it */
  now?: unknown;
  /** of the trial that has it */
  rev?: number;
}

type CommandError = MergeError | ChangeError;

/** What a command comes to; a response goes elsewhere. */
export type Answer = Result<Done, CommandError> | Response;

/** One thing a room does: what is sent for it, and how it is done. */
interface Command {
  schema: z.ZodType;
  run: (trialId: string | undefined, data: never, happened?: Happened) => Promise<Answer>;
}

/** Keeps what is sent and what is done with it together. */
export const command = <S extends z.ZodType>(
  schema: S,
  run: (trialId: string | undefined, data: z.output<S>, happened?: Happened) => Promise<Answer>,
): Command => ({ schema, run });

/**
 * What an action answers.
 * @param at the field a message about the whole stands at
 */
export function answerTo(answer: Result<Done, CommandError>, at = 'intent'): ActionResult {
  if (answer.ok) return { saved: true, ...answer.value };
  const { error } = answer;
  switch (error.tag) {
    case 'refused':
      return { errors: error.errors };
    case 'conflicts':
      return { conflicts: error.conflicts, merged: error.merged, theirs: error.theirs };
    default:
      return { errors: { [at]: describeChangeError(error) } };
  }
}

/** Says that something was done, where it wasn't refused. @param message or what makes it of what was written */
export const done = <T, E>(
  written: Result<T, E>,
  message: string | ((value: T) => string),
): Result<Done, E> =>
  written.ok ? ok({ message: typeof message === 'string' ? message : message(written.value) }) : written;

/** Saves a form of a trial's plan or review, put together with what other tabs did to it meanwhile. */
export function saves<S extends z.ZodType>(
  ...of:
    | [part: 'plan', form: RecordForm<Plan, S>, message: string | ((before: Plan, after: Plan) => string)]
    | [part: 'review', form: RecordForm<ReviewText, S>, message?: string]
): Command {
  const [part, form, message] = of;
  return command(SentForm, async (trialId, sent) => {
    let before: Plan | undefined;
    const saved = await change<MergeError>(trialId, ({ trial, library }) => {
      before = trial.row.plan;
      const next = applied(form as RecordForm<unknown, S>, sent, trial.row[part], library);
      return next.ok ? ok({ [part]: next.value }) : next;
    });
    if (!saved.ok) return saved;
    const { row, rev } = saved.value.trial;
    return ok({
      ...(message !== undefined && {
        message: typeof message === 'string' ? message : message(before!, row.plan),
      }),
      now: (form as RecordForm<unknown, S>).shown(row[part]),
      rev,
    });
  });
}

/** Another moment than now: what is written down happened then. */
const When = z
  .object({ date: z.iso.date(), time: z.string().regex(/^\d{2}:\d{2}$/) })
  .refine(({ date }) => date <= todayDate(), 'That day is still to come.');

/** What an action is told to do: by its `intent`, by the form it comes from, or by what it carries. */
function nameOf(data: unknown, names: readonly string[]): string {
  const sent = (data ?? {}) as { intent?: unknown; what?: unknown };
  return String(sent.intent ?? sent.what ?? names.find((n) => n in sent) ?? '');
}

/** A route's action: finds the command, reads what was sent for it, does it, and answers. */
export const toAction = (commands: Readonly<Record<string, Command>>) =>
  guarded(({ params, request }: { params: { trialId?: string }; request: Request }) =>
    sentIn(request).then((data) => runCommand(commands, params.trialId, data)),
  );

/** Does what was sent; the only command of a table needs no name. */
export async function runCommand(
  commands: Readonly<Record<string, Command>>,
  trialId: string | undefined,
  data: unknown,
): Promise<ActionResult | Response> {
  const names = Object.keys(commands);
  const name = names.length === 1 ? names[0]! : nameOf(data, names);
  const command = commands[name];
  if (!command) return { errors: { intent: 'There is no such thing to do here.' } };
  const parsed = command.schema.safeParse(data);
  if (!parsed.success) return { errors: fieldErrors(parsed.error) };
  const { when } = (data ?? {}) as { when?: unknown };
  const moment = When.optional().safeParse(when);
  if (!moment.success) return { errors: { when: Object.values(fieldErrors(moment.error))[0]! } };
  const { data: then } = moment;
  const answer = await command.run(trialId, parsed.data as never, then && momentOf(then.date, then.time));
  return answer instanceof Response ? answer : answerTo(answer, name);
}
