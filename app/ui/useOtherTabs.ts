import { useEffect } from 'react';
import { useRevalidator } from 'react-router';
import { followBench } from '../store/follow';

/** Reads the screen's data again when another tab of the same bench changed a trial. */
export function useOtherTabs(): void {
  const { revalidate } = useRevalidator();
  useEffect(() => followBench(() => void revalidate()), [revalidate]);
}
