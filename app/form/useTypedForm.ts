import { useState } from 'react';
import {
  type DefaultValues,
  type FieldValues,
  type Path,
  type UseFormReturn,
  useForm,
} from 'react-hook-form';
import type { z } from 'zod';
import { type FieldErrors, fieldErrors } from './schemaFields';

/** Puts each fault at its field; the first has the focus. */
export function markFaults<T extends FieldValues>(
  { setError, setFocus }: Pick<UseFormReturn<T>, 'setError' | 'setFocus'>,
  faults: FieldErrors,
): void {
  const [first] = Object.keys(faults);
  for (const [path, message] of Object.entries(faults))
    setError(path as Path<T>, { type: 'server', message });
  try {
    if (first !== undefined) setFocus(first as Path<T>);
  } catch {
    // the message may stand on a group that can't take the focus
  }
}

/**
 * A form of something new: read by its schema where it is typed, and kept by `keep`; it begins anew then. What isn't kept
 * stays typed.
 *
 * @param keep says whether it is kept
 * @param next what the form begins anew with
 */
export function useTypedForm<T extends FieldValues, O>(
  schema: z.ZodType<O, T>,
  defaults: T,
  keep: (read: O, typed: T) => boolean | Promise<boolean>,
  next: (typed: T) => T = () => defaults,
) {
  const form = useForm<T>({ defaultValues: defaults as DefaultValues<T> });
  const [busy, setBusy] = useState(false);
  const submit = form.handleSubmit(async (typed) => {
    const read = schema.safeParse(typed);
    if (!read.success) return markFaults(form, fieldErrors(read.error));
    setBusy(true);
    try {
      if (await keep(read.data, typed)) form.reset(next(typed));
    } finally {
      setBusy(false);
    }
  });
  return {
    form,
    busy,
    onSubmit: (event?: React.SyntheticEvent) => {
      event?.preventDefault();
      if (busy) return;
      // Messages of before would keep the form from being read again.
      form.clearErrors();
      void submit();
    },
  };
}
