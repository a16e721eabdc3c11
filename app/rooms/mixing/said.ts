import { err } from '~core/model/result';
import type { ActionResult } from '../../form/schemaFields';
import { type ChangeError, describeChangeError } from '../../store/errors';

/** A refusal at a field, as a `Result` carries it out of a change. */
export interface Said {
  tag: 'said';
  at: string;
  text: string;
}
export const said = (at: string, text: string) => err<Said>({ tag: 'said', at, text });

/** What a form hears of a change that wasn't made. */
export const answer = (error: Said | ChangeError): ActionResult => ({
  errors: error.tag === 'said' ? { [error.at]: error.text } : { intent: describeChangeError(error) },
});
