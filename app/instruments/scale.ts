/** What a scale says at a moment. */
export interface ScaleReading {
  /** grams, rounded to the scale's step */
  grams: number;
  /** the last readings agree within a step */
  steady: boolean;
}

/** Any weighing instrument. A real driver and the simulated stand-in look the same from outside. */
export interface Scale {
  name: string;
  /** smallest step shown, g */
  stepG: number;
  /** most it can carry, g */
  capacityG: number;
  /** Starts giving readings; the returned function stops them. */
  listen: (onReading: (reading: ScaleReading) => void) => () => void;
  /** Makes what lies on the pan now the new zero. */
  zero: () => void;
}
