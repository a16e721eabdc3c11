import { useEffect, useState } from 'react';
import { mono, sans } from './theme';

/** The fonts a canvas draws with must be there first. */
const chartFonts = () =>
  Promise.all([document.fonts.load(`14px ${sans}`), document.fonts.load(`13px ${mono}`)]);

/** Whether the fonts that charts are drawn with are here: a canvas isn't drawn again when they come. */
export function useChartFonts(): boolean {
  const [ready, setReady] = useState(false);
  useEffect(() => {
    void chartFonts().then(() => setReady(true));
  }, []);
  return ready;
}
