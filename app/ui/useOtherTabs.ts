import { useEffect } from 'react';
import { useRevalidator } from 'react-router';

/** Reads the screen's data again when another tab of the same bench changed a trial. */
export function useOtherTabs(): void {
  const { revalidate } = useRevalidator();
  useEffect(() => {
    const onChanged = () => void revalidate();
    window.addEventListener('palazzo-changed', onChanged);
    return () => window.removeEventListener('palazzo-changed', onChanged);
  }, [revalidate]);
}
