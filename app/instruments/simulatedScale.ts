import { type Random, seededRandom } from '~core/stats/random';
import type { Scale, ScaleReading } from './scale';

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

/** A bench scale that ships with the app, for trying the Weigh-in without hardware. */
export interface SimulatedScale extends Scale {
  /** what lies on the pan, g */
  place: (grams: number) => void;
}

const TICK_S = 0.2;

export function simulatedScale(stepG = 0.1, seed = 11): SimulatedScale {
  const model = new ScaleModel(stepG, seed);
  return {
    name: 'simulated bench scale',
    stepG,
    capacityG: 5000,
    place: (g) => model.place(g),
    zero: () => model.zero(),
    listen: (onReading) => {
      const timer = setInterval(() => onReading(model.read(TICK_S)), TICK_S * 1000);
      return () => clearInterval(timer);
    },
  };
}
