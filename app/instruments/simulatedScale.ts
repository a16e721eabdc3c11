import { type Random, seededRandom } from '~core/stats/random';
import type { Driver, Instrument } from './instrument';

interface ScaleReading {
  /** grams, rounded to the scale's step */
  grams: number;
  /** the last readings agree within a step */
  steady: boolean;
}

/** The physics of the stand-in: settling, noise and slow drift. Time is given from outside, so it can be tested. */
export class ScaleModel {
  readonly stepG: number;
  private readonly random: Random;
  private loadG = 0;
  private shownG = 0;
  private driftG = 0;
  private zeroG = 0;
  private recent: number[] = [];

  constructor(stepG: number, seed: number) {
    this.stepG = stepG;
    this.random = seededRandom(seed);
  }

  /** Puts so many grams on the pan in place of what lay there. */
  place(grams: number): void {
    this.loadG = grams;
    this.recent = [];
  }

  zero(): void {
    this.zeroG = this.loadG + this.driftG;
    this.recent = [];
  }

  /** Lets time pass and reads. @param seconds since the last reading */
  read(seconds: number): ScaleReading {
    // settles with a time constant of 0.4 s; drifts about half a step in ten minutes
    this.shownG += (this.loadG - this.shownG) * (1 - Math.exp(-seconds / 0.4));
    this.driftG += this.random.normal() * this.stepG * 0.02 * Math.sqrt(seconds);
    const raw = this.shownG + this.driftG - this.zeroG + this.random.normal() * this.stepG * 0.15;
    const digits = Math.max(0, -Math.floor(Math.log10(this.stepG)));
    const grams = Number((Math.round(raw / this.stepG) * this.stepG).toFixed(digits)) + 0;
    this.recent = [...this.recent, raw].slice(-6);
    const spread = Math.max(...this.recent) - Math.min(...this.recent);
    return { grams, steady: this.recent.length === 6 && spread <= this.stepG };
  }
}

const TICK_S = 0.2;

/** A bench scale that ships with the app, for trying the Weigh-in without hardware. */
export function simulatedScale(stepG = 0.1, seed = 11): Instrument {
  const model = new ScaleModel(stepG, seed);
  return {
    name: 'simulated bench scale',
    channels: [{ id: 'weight', name: 'weight', unit: 'g', decimals: 1 }],
    step: stepG,
    calibrations: [],
    present: ({ values }) => model.place(values?.weight ?? 0),
    listen: (onReading) => {
      const timer = setInterval(() => {
        const { grams, steady } = model.read(TICK_S);
        onReading({ values: { weight: grams }, atRest: steady });
      }, TICK_S * 1000);
      return () => clearInterval(timer);
    },
  };
}

export const simulatedScaleDriver: Driver = {
  id: 'simulated-scale',
  name: 'Simulated scale',
  measures: 'weight',
  simulated: true,
  unavailable: () => null,
  connect: () => simulatedScale(),
};
