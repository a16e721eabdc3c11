import { useEffect, useRef } from 'react';
import { type DefaultValues, type FieldValues, type Path, useForm } from 'react-hook-form';
import { useFetcher } from 'react-router';
import { useNotice } from '../ui/Notices';
import type { ActionResult } from './schemaFields';

/**
 * A form whose values go to the route's action as JSON and whose errors come back to the fields. What was
 * typed stays, whatever the action says.
 */
export function useRecordForm<T extends FieldValues>(defaults: T, saved = 'Saved.') {
  const form = useForm<T>({ defaultValues: defaults as DefaultValues<T>, shouldFocusError: true });
  const fetcher = useFetcher<ActionResult>();
  const notice = useNotice();
  const answered = useRef<unknown>(null);
  const { setError, reset, getValues, setFocus } = form;

  useEffect(() => {
    const answer = fetcher.data;
    if (!answer || fetcher.state !== 'idle' || answered.current === answer) return;
    answered.current = answer;
    if ('errors' in answer) {
      const fields = Object.entries(answer.errors);
      for (const [path, message] of fields) setError(path as Path<T>, { type: 'server', message });
      if (fields[0]) {
        try {
          setFocus(fields[0][0] as Path<T>);
        } catch {
          // the message may stand on a group that can't take the focus
        }
      }
      notice({
        text: fields.length === 1 ? 'One field needs a look.' : `${fields.length} fields need a look.`,
      });
    } else {
      reset(getValues());
      notice({ text: answer.message ?? saved });
    }
  }, [fetcher.data, fetcher.state, setError, reset, getValues, notice, saved, setFocus]);

  const submit = form.handleSubmit((values) => {
    void fetcher.submit(values as never, { method: 'post', encType: 'application/json' });
  });
  return {
    form,
    busy: fetcher.state !== 'idle',
    onSubmit: (event: React.FormEvent) => {
      // Messages from the last answer would keep the form from being sent again.
      form.clearErrors();
      void submit(event);
    },
  };
}
