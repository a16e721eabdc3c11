import type { Instrument, Measures } from './instrument';

/** Instruments on a cable, which stay connected from room to room. */
const opened = new Map<Measures, Instrument>();

/** The one on a cable that was opened for this, as long as it is connected. */
export const atHand = (measures: Measures): Instrument | undefined => opened.get(measures);

/** Keeps an instrument that was opened at hand for every room, until it is let go of or its cable is out. */
export function keepAtHand(measures: Measures, instrument: Instrument): Instrument {
  const before = opened.get(measures);
  opened.set(measures, instrument);
  // One at a time: a cable that nobody listens to any more is free for other programs.
  if (before !== instrument) void before?.close?.();
  void instrument.over?.then(() => {
    if (opened.get(measures) === instrument) opened.delete(measures);
  });
  return instrument;
}
