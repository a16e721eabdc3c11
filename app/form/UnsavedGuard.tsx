import { useLayoutEffect } from 'react';
import { useFormContext } from 'react-hook-form';
import { holdPage } from './unsaved';

/**
 * Asks before what was typed is left behind; inside its form.
 * @param busy it is being kept: who goes on then goes when it is kept, and is asked where it is refused
 * @param also whether something beside the form isn't kept
 */
export function UnsavedGuard({ busy, also = false }: { busy: boolean; also?: boolean }) {
  const { isDirty } = useFormContext().formState;
  return <LeaveGuard unsaved={isDirty || also} isOnItsWay={busy && !also} />;
}

interface LeaveGuardProps {
  unsaved: boolean;
  /** as a sentence begins with it */
  what?: string;
  /** it is being kept, and may yet be refused */
  isOnItsWay?: boolean;
}

/** Asks before what isn't kept yet is left behind. */
export function LeaveGuard({ unsaved, what = 'What you typed here', isOnItsWay = false }: LeaveGuardProps) {
  // In the same frame as the page says “saved”: nobody is asked about what is kept.
  useLayoutEffect(() => (unsaved ? holdPage(what, isOnItsWay) : undefined), [unsaved, what, isOnItsWay]);
  return null;
}
