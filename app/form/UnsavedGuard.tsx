import { useLayoutEffect } from 'react';
import { useFormContext } from 'react-hook-form';
import { holdPage } from './unsaved';

/**
 * Asks before what was typed is left behind; inside its form.
 * @param also whether something beside the form isn't kept
 */
export function UnsavedGuard({ busy, also = false }: { busy: boolean; also?: boolean }) {
  const { isDirty } = useFormContext().formState;
  return <LeaveGuard unsaved={(isDirty && !busy) || also} />;
}

/** Asks before what isn't kept yet is left behind. @param what would be lost, as a sentence begins with it */
export function LeaveGuard({ unsaved, what = 'What you typed here' }: { unsaved: boolean; what?: string }) {
  // In the same frame as the page says “saved”: nobody is asked about what is kept.
  useLayoutEffect(() => (unsaved ? holdPage(what) : undefined), [unsaved, what]);
  return null;
}
