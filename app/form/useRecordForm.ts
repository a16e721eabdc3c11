import { useCallback, useEffect, useRef, useState } from 'react';
import { type DefaultValues, type FieldValues, type Path, useForm } from 'react-hook-form';
import { useFetcher } from 'react-router';
import { type Json, sameJson } from '~core/model/merge';
import { useNotice } from '../ui/Notices';
import type { ActionResult } from './schemaFields';

interface Options {
  /** said after saving, where the action says nothing */
  saved?: string;
  /**
   * The form shows a record that another tab may change meanwhile: what it began with is sent along, and the
   * action puts both sides together.
   */
  merges?: boolean;
}

/** What a value of a form is called in a message. */
const shown = (value: unknown): string =>
  value === undefined || value === ''
    ? 'nothing'
    : typeof value === 'object'
      ? 'something else'
      : `“${String(value)}”`;

/**
 * A form whose values go to the route's action as JSON and whose errors come back to the fields. What was
 * typed stays, whatever the action says, and whatever other tabs do to the record meanwhile.
 *
 * @param defaults the record as the form shows it; the same object as long as the record is the same
 */
export function useRecordForm<T extends FieldValues>(
  defaults: T,
  { saved = 'Saved.', merges = false }: Options = {},
) {
  const form = useForm<T>({ defaultValues: defaults as DefaultValues<T>, shouldFocusError: true });
  const fetcher = useFetcher<ActionResult>();
  const notice = useNotice();
  const answered = useRef<unknown>(null);
  const base = useRef<T>(defaults);
  const [stale, setStale] = useState(false);
  const { setError, reset, getValues, setFocus } = form;
  const { isDirty } = form.formState;

  // The record changed under the form: an untouched form follows; what was typed stays, and is put together on saving.
  useEffect(() => {
    if (!merges || sameJson(defaults as Json, base.current as Json)) return;
    if (isDirty) {
      setStale(true);
      return;
    }
    base.current = defaults;
    setStale(false);
    reset(defaults);
  }, [defaults, merges, isDirty, reset]);

  const focusFirst = useCallback(
    (path: string | undefined) => {
      if (path === undefined) return;
      try {
        setFocus(path as Path<T>);
      } catch {
        // the message may stand on a group that can't take the focus
      }
    },
    [setFocus],
  );

  useEffect(() => {
    const answer = fetcher.data;
    if (!answer || fetcher.state !== 'idle' || answered.current === answer) return;
    answered.current = answer;
    if ('conflicts' in answer) {
      reset(answer.merged as T, { keepDefaultValues: true });
      // Saving again is then a choice made knowingly.
      base.current = answer.theirs as T;
      for (const { path, theirs } of answer.conflicts) {
        setError(path as Path<T>, {
          type: 'server',
          message: `Another tab has made this ${shown(theirs)}. Save again to keep yours, or type theirs.`,
        });
      }
      focusFirst(answer.conflicts[0]?.path);
      notice({ text: 'Another tab changed the same. Nothing is lost: see the marked fields.' });
    } else if ('errors' in answer) {
      const fields = Object.entries(answer.errors);
      for (const [path, message] of fields) setError(path as Path<T>, { type: 'server', message });
      focusFirst(fields[0]?.[0]);
      notice({
        text: fields.length === 1 ? 'One field needs a look.' : `${fields.length} fields need a look.`,
      });
    } else {
      base.current = (answer.now as T | undefined) ?? getValues();
      reset(base.current);
      setStale(false);
      notice({ text: answer.message ?? saved });
    }
  }, [fetcher.data, fetcher.state, setError, reset, getValues, notice, saved, focusFirst]);

  const submit = form.handleSubmit((values) => {
    const sent = merges ? { base: base.current, values } : values;
    void fetcher.submit(sent as never, { method: 'post', encType: 'application/json' });
  });
  return {
    form,
    busy: fetcher.state !== 'idle',
    /** another tab changed the record since this form was opened, and something is typed here */
    stale,
    onSubmit: (event: React.FormEvent) => {
      // Messages from the last answer would keep the form from being sent again.
      form.clearErrors();
      void submit(event);
    },
  };
}
