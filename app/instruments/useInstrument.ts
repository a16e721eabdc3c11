import { useEffect, useState } from 'react';
import { atHand, keepAtHand } from './atHand';
import type { Driver, Instrument, Measures } from './instrument';
import { connect, drivers } from './registry';

/** The instrument at hand for what is measured, and the real ones that can be opened in its place. */
export function useInstrument(measures: Measures): {
  instrument: Instrument | null;
  /** those this browser can open when asked */
  others: readonly Driver[];
  /** asks which one, and takes it */
  open: (driver: Driver) => Promise<void>;
  /** why the last one couldn't be opened; empty when it could */
  fault: string;
} {
  const [instrument, setInstrument] = useState(() => atHand(measures) ?? connect(measures));
  const [fault, setFault] = useState('');
  useEffect(() => {
    let here = true;
    void instrument?.over?.then(() => {
      // Another one may have taken its place.
      if (here && !atHand(measures))
        setFault(`The ${instrument.name} says nothing more: is the cable out? Open it again.`);
    });
    return () => {
      here = false;
    };
  }, [instrument, measures]);
  const others = drivers.filter((d) => d.measures === measures && d.open && d.unavailable() === null);
  return {
    instrument,
    others,
    fault,
    open: async (driver) => {
      const opened = await driver.open?.();
      if (!opened) return;
      if (opened.ok) setInstrument(keepAtHand(measures, opened.value));
      setFault(opened.ok ? '' : opened.error);
    },
  };
}
