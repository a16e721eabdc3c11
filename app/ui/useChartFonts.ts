import { useEffect, useState } from 'react';
import { chartFonts } from './findingChart';

/** Whether the fonts that charts are drawn with are here: a canvas isn't drawn again when they come. */
export function useChartFonts(): boolean {
  const [ready, setReady] = useState(false);
  useEffect(() => {
    void chartFonts().then(() => setReady(true));
  }, []);
  return ready;
}
