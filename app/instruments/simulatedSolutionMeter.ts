import { type Random, seededRandom } from '~core/stats/random';
import type { Driver, Instrument } from './instrument';

/** What a meter for nutrient solutions says at a moment. */
interface MeterReading {
  /** mS/cm at 25 °C */
  ec: number;
  ph: number;
  /** °C */
  temperature: number;
  /** the last readings agree: it has come to rest */
  settled: boolean;
}

/** Standard solutions it is set against: 1.413 mS/cm (0.01 mol/L KCl at 25 °C) and pH 7. */
const standards = { ec: '1.413 mS/cm', ph: '7' } as const;

type Truth = Pick<MeterReading, 'ec' | 'ph' | 'temperature'>;

/**
 * The physics of the stand-in: electrodes that are off until they are set, drift afterwards, and take their
 * time. Time is given from outside, so it can be tested.
 */
export class SolutionMeterModel {
  private readonly random: Random;
  private truth: Truth = { ec: 0, ph: 7, temperature: 20 };
  private shown: Truth = { ec: 0, ph: 7, temperature: 20 };
  /** the strength electrode's slope, and the pH electrode's offset */
  private gain: number;
  private offset: number;
  private recent: Truth[] = [];

  constructor(seed: number) {
    this.random = seededRandom(seed);
    // Out of the drawer: a tenth off in strength, a third of a unit in pH.
    this.gain = 1 + 0.1 * (this.random.normal() > 0 ? 1 : -1);
    this.offset = 0.33 * (this.random.normal() > 0 ? 1 : -1);
  }

  /** Puts the electrodes into a solution. */
  dip(truth: Truth): void {
    this.truth = truth;
    this.recent = [];
  }

  calibrate(quantity: 'ec' | 'ph'): void {
    if (quantity === 'ec') this.gain = 1 + 0.004 * this.random.normal();
    else this.offset = 0.01 * this.random.normal();
  }

  /** Lets time pass and reads. @param seconds since the last reading */
  read(seconds: number): MeterReading {
    const near = (from: number, to: number, timeConstant: number) =>
      from + (to - from) * (1 - Math.exp(-seconds / timeConstant));
    // Strength comes to rest in seconds, pH in a quarter of a minute, temperature in between.
    this.shown = {
      ec: near(this.shown.ec, this.truth.ec, 0.8),
      ph: near(this.shown.ph, this.truth.ph, 1.6),
      temperature: near(this.shown.temperature, this.truth.temperature, 1.2),
    };
    // In a day the slope wanders by two per cent, the offset by a tenth of a unit.
    const days = seconds / 86_400;
    this.gain += 0.02 * Math.sqrt(days) * this.random.normal();
    this.offset += 0.1 * Math.sqrt(days) * this.random.normal();
    const noisy = (sd: number) => sd * this.random.normal();
    const raw = {
      ec: this.shown.ec * this.gain * (1 + noisy(0.001)),
      ph: this.shown.ph + this.offset + noisy(0.004),
      temperature: this.shown.temperature + noisy(0.03),
    };
    this.recent = [...this.recent, raw].slice(-5);
    const spread = (of: (t: Truth) => number) =>
      Math.max(...this.recent.map(of)) - Math.min(...this.recent.map(of));
    return {
      ec: Number(Math.max(0, raw.ec).toFixed(2)),
      ph: Number(Math.min(14, Math.max(0, raw.ph)).toFixed(2)),
      temperature: Number(raw.temperature.toFixed(1)),
      settled: this.recent.length === 5 && spread((t) => t.ec) < 0.02 && spread((t) => t.ph) < 0.04,
    };
  }
}

const TICK_S = 0.25;

/** A pocket meter that ships with the app, for trying the Mixing room without hardware. */
export function simulatedSolutionMeter(seed = 23): Instrument {
  const model = new SolutionMeterModel(seed);
  const set: Record<'ec' | 'ph', Date | null> = { ec: null, ph: null };
  return {
    name: 'simulated pocket meter',
    channels: [
      { id: 'ec', name: 'EC', unit: 'mS/cm', decimals: 2 },
      { id: 'ph', name: 'pH', unit: '', decimals: 2 },
      { id: 'temperature', name: 'water', unit: '°C', decimals: 1 },
    ],
    step: 0.01,
    calibrations: (['ec', 'ph'] as const).map((channel) => ({
      channel,
      standard: standards[channel],
      at: () => set[channel],
      set: () => {
        model.calibrate(channel);
        set[channel] = new Date();
      },
    })),
    present: ({ values }) =>
      model.dip({
        ec: values?.ec ?? 0,
        ph: values?.ph ?? 7,
        temperature: values?.temperature ?? 20.5,
      }),
    listen: (onReading) => {
      const timer = setInterval(() => {
        const { settled, ...values } = model.read(TICK_S);
        onReading({ values: { ...values }, atRest: settled });
      }, TICK_S * 1000);
      return () => clearInterval(timer);
    },
  };
}

/** One meter for the whole app: a calibration lasts from card to card, and wears off. */
let meter: Instrument | null = null;

export const simulatedSolutionMeterDriver: Driver = {
  id: 'simulated-solution-meter',
  name: 'Simulated pocket meter',
  measures: 'solution',
  simulated: true,
  unavailable: () => null,
  connect: () => (meter ??= simulatedSolutionMeter()),
};
