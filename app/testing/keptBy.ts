import type { z } from 'zod';
import type { Product } from '~core/model/product';
import { type RecordForm, applied } from '../form/recordForm';
import type { FieldErrors } from '../form/schemaFields';

type Saved<R, S extends z.ZodType> = [
  form: RecordForm<R, S>,
  record: R,
  values: z.input<S>,
  library?: readonly Product[],
];

const saving = <R, S extends z.ZodType>(...[form, record, values, library]: Saved<R, S>) =>
  applied(form, { values }, record, library);

/** The record as a form with these values keeps it. @throws where the form refuses them */
export function keptBy<R, S extends z.ZodType>(...saved: Saved<R, S>): R {
  const result = saving(...saved);
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  return result.value;
}

/** What a form with these values says at which field. */
export function faultsOf<R, S extends z.ZodType>(...saved: Saved<R, S>): FieldErrors {
  const result = saving(...saved);
  return !result.ok && result.error.tag === 'refused' ? result.error.errors : {};
}
