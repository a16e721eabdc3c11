/** What a meter for nutrient solutions says at a moment. */
export interface MeterReading {
  /** mS/cm at 25 °C */
  ec: number;
  ph: number;
  /** °C */
  temperature: number;
  /** the last readings agree: it has come to rest */
  settled: boolean;
}

/** Standard solutions it is set against: 1.413 mS/cm (0.01 mol/L KCl at 25 °C) and pH 7. */
export const standards = { ec: 1.413, ph: 7 } as const;

/** Any meter of strength and pH. A real driver and the simulated stand-in look the same from outside. */
export interface SolutionMeter {
  name: string;
  /** when each electrode was last set against its standard; null: never */
  calibratedAt: () => Record<'ec' | 'ph', Date | null>;
  /** Sets an electrode, standing in its standard, to what the standard is. */
  calibrate: (quantity: 'ec' | 'ph') => void;
  /** Starts giving readings; the returned function stops them. */
  listen: (onReading: (reading: MeterReading) => void) => () => void;
}
