import { useContext, useEffect, useEffectEvent, useLayoutEffect, useState } from 'react';
import { Happened } from './happened';
import { type DefaultValues, type FieldValues, type Path, useForm } from 'react-hook-form';
import { useFetcher, useLocation } from 'react-router';
import { noteTyped, putBack, rescued } from './rescued';
import { type Json, sameJson } from '~core/model/merge';
import { useNotice } from '../ui/Notices';
import { NOT_STORED } from './guarded';
import { type Clash, fieldAt, sayPath, sayValue, withoutItem } from './clashes';
import type { ActionResult, FieldConflict, FieldErrors } from './schemaFields';
import { markFaults } from './useTypedForm';

interface Options {
  /** said after saving, where the action says nothing */
  saved?: string;
  /**
   * The form shows a record that another tab may change meanwhile: what it began with is sent along under this name (of
   * its `RecordForm`), and the action puts both sides together.
   */
  merges?: string;
  /** begins anew after saving, instead of showing what was saved */
  clears?: boolean;
  /** saved by itself when nobody has typed for a moment, without a notice */
  asTyped?: boolean;
}

/** What the fields began with, and what they show; what was sent, where an answer to it brought them. */
interface Held<T> {
  base: T;
  shown: T;
  sent?: T;
}

/** How long a pause in typing saves what is typed. */
const PAUSE_MS = 600;

/**
 * A form whose values go to the route's action as JSON and whose errors come back to the fields. What was
 * typed stays, whatever the action says, and whatever other tabs do to the record meanwhile.
 *
 * @param defaults the record as the form shows it; the same object as long as the record is the same
 */
export function useRecordForm<T extends FieldValues>(
  defaults: T,
  { saved = 'Saved.', merges, clears = false, asTyped = false }: Options = {},
) {
  const form = useForm<T>({ defaultValues: defaults as DefaultValues<T>, shouldFocusError: true });
  const fetcher = useFetcher<ActionResult>();
  const notice = useNotice();
  const { pathname } = useLocation();
  const happened = useContext(Happened);
  const own = merges ?? 'form';
  // What was typed before the room broke down stands there again.
  const [held, setHeld] = useState<Held<T>>(() => ({
    base: defaults,
    shown: (rescued(pathname, own) as T | undefined) ?? defaults,
  }));
  const [sent, setSent] = useState<T>();
  const [heard, setHeard] = useState<ActionResult>();
  /** what both tabs changed, until somebody says which stands */
  const [open, setOpen] = useState<readonly FieldConflict[]>([]);
  const { setError, reset, getValues, setFocus, setValue } = form;
  const { isDirty } = form.formState;
  const changedUnder = merges !== undefined && !sameJson(defaults as Json, held.base as Json);
  const answer = fetcher.state === 'idle' ? fetcher.data : undefined;

  if (answer && answer !== heard) {
    setHeard(answer);
    if ('conflicts' in answer) {
      setHeld({ base: answer.theirs as T, shown: answer.merged as T });
      setOpen(answer.conflicts);
    } else if (!('errors' in answer)) {
      setOpen([]);
      const base = (answer.now as T | undefined) ?? (clears ? defaults : (sent ?? defaults));
      setHeld({ base, shown: base, sent });
    }
  } else if (changedUnder && !isDirty && fetcher.state === 'idle') {
    // The record changed under the form: an untouched form follows; what was typed stays, and is put together on saving.
    setHeld({ base: defaults, shown: defaults });
  }

  // In the same frame as the answer: nobody who waits to go on is asked about what is kept.
  useLayoutEffect(() => {
    const typed = getValues();
    const { sent } = held;
    const typedMeanwhile = sent !== undefined && !sameJson(typed as Json, sent as Json);
    reset(held.base);
    if (held.shown !== held.base) reset(held.shown, { keepDefaultValues: true });
    else if (typedMeanwhile) {
      for (const name of Object.keys(typed)) {
        if (sameJson(typed[name] as Json, sent[name] as Json)) continue;
        setValue(name as Path<T>, typed[name] as never, { shouldDirty: true });
      }
    }
  }, [held, reset, getValues, setValue]);

  useEffect(() => {
    if (!heard) return;
    const mark = (faults: FieldErrors) => markFaults({ setError, setFocus }, faults);
    if ('conflicts' in heard) {
      mark(
        // Of a thing that is there or not, the first of its fields is marked.
        Object.fromEntries(
          heard.conflicts.map(({ path, theirs }) => [
            fieldAt(path)?.getAttribute('name') ?? path,
            theirs === undefined
              ? 'Another tab took this away.'
              : `Another tab has made this ${sayValue(theirs)}.`,
          ]),
        ),
      );
      notice({ text: 'Another tab changed the same. Nothing is lost: say above which stands.' });
    } else if ('errors' in heard) {
      const fields = Object.entries(heard.errors);
      mark(heard.errors);
      notice({
        text:
          heard.errors[NOT_STORED] ??
          // What belongs to no field of the form is said itself.
          fields.find(([path]) => !fieldAt(path))?.[1] ??
          (fields.length === 1 ? 'One field needs a look.' : `${fields.length} fields need a look.`),
      });
    } else if (!asTyped) {
      notice({ text: heard.message ?? saved });
    }
  }, [heard, setError, setFocus, notice, saved, asTyped]);

  const submit = form.handleSubmit((values) => {
    setSent(values);
    const body =
      merges === undefined
        ? { ...values, ...(happened && { when: happened }) }
        : { what: merges, base: held.base, values };
    void fetcher.submit(body as never, { method: 'post', encType: 'application/json' });
  });
  const idle = fetcher.state === 'idle';
  const save = useEffectEvent(() => {
    if (isDirty && idle && open.length === 0) void submit();
  });
  const { subscribe } = form;
  useEffect(() => {
    // What both changed is asked about first: saved by itself, one would be put over the other.
    if (!asTyped || !isDirty || !idle || open.length > 0) return;
    let timer = setTimeout(save, PAUSE_MS);
    const unsubscribe = subscribe({
      formState: { values: true },
      callback: () => {
        clearTimeout(timer);
        timer = setTimeout(save, PAUSE_MS);
      },
    });
    return () => {
      clearTimeout(timer);
      unsubscribe();
    };
  }, [asTyped, isDirty, idle, subscribe, open]);

  useEffect(() => {
    if (!isDirty) {
      noteTyped(pathname, own, undefined);
      return undefined;
    }
    return subscribe({
      formState: { values: true },
      callback: ({ values }) => noteTyped(pathname, own, values),
    });
  }, [isDirty, subscribe, pathname, own]);
  useEffect(() => putBack(pathname), [pathname]);

  const settle = (conflict: FieldConflict, as: 'mine' | 'theirs') => {
    const value = conflict[as];
    const others = open.filter((c) => c !== conflict);
    form.clearErrors();
    if (value === undefined) {
      const { list, index, conflicts } = withoutItem(conflict.path, others);
      const items = getValues(list as Path<T>) as unknown[];
      setValue(list as Path<T>, items.filter((_, i) => i !== index) as never, { shouldDirty: true });
      setOpen(conflicts);
      return;
    }
    setValue(conflict.path as Path<T>, value as never, { shouldDirty: true });
    setOpen(others);
  };
  const conflicts = open.map((c): Clash => ({
    path: c.path,
    what: sayPath(c.path, getValues()),
    mine: sayValue(c.mine),
    theirs: sayValue(c.theirs),
    settle: (as) => settle(c, as),
  }));

  return {
    form,
    conflicts,
    /** something typed isn't saved yet */
    unsaved: isDirty || !idle,
    busy: fetcher.state !== 'idle',
    /** another tab changed the record since this form was opened, and something is typed here */
    stale: changedUnder && isDirty,
    onSubmit: (event: React.FormEvent) => {
      // Messages from the last answer would keep the form from being sent again.
      form.clearErrors();
      void submit(event);
    },
  };
}
