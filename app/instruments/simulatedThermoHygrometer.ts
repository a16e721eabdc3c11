import dayjs from 'dayjs';
import { type Random, seededRandom } from '~core/stats/random';
import type { Driver, Instrument } from './instrument';

/** What the air of the stand-in’s place is at an hour of the day: warm and dry under the lamps, cool and moist at night. */
function airAt(hour: number): { temperature: number; humidity: number } {
  const swing = Math.cos(((hour - 15) / 24) * 2 * Math.PI);
  return { temperature: 21.5 + 2.8 * swing, humidity: 58 - 9 * swing };
}

/** The physics of the stand-in: a sensor that takes half a minute to take on the air’s temperature. */
class ThermoHygrometerModel {
  private readonly random: Random;
  private shown = { temperature: 19, humidity: 50 };
  private recent: number[] = [];

  constructor(seed: number) {
    this.random = seededRandom(seed);
  }

  /** Lets time pass and reads. @param seconds since the last reading @param hour of the day, 0–24 */
  read(seconds: number, hour: number): { temperature: number; humidity: number; atRest: boolean } {
    const air = airAt(hour);
    // A pocket instrument is slow; here four seconds stand for half a minute.
    const share = 1 - Math.exp(-seconds / 1.2);
    this.shown = {
      temperature: this.shown.temperature + (air.temperature - this.shown.temperature) * share,
      humidity: this.shown.humidity + (air.humidity - this.shown.humidity) * share,
    };
    const temperature = this.shown.temperature + 0.03 * this.random.normal();
    this.recent = [...this.recent, temperature].slice(-5);
    return {
      temperature: Number(temperature.toFixed(1)),
      humidity: Number((this.shown.humidity + 0.2 * this.random.normal()).toFixed(0)),
      atRest: this.recent.length === 5 && Math.max(...this.recent) - Math.min(...this.recent) < 0.25,
    };
  }
}

/**
 * What a logger of this kind writes out: a reading every ten minutes up to now, as CSV.
 * @param now end of the file
 */
function loggerCsv(now: Date, days: number, seed = 5): string {
  const random = seededRandom(seed);
  const start = dayjs(now).subtract(days, 'day').startOf('hour');
  const rows = Array.from({ length: days * 144 + 1 }, (_, i) => {
    const at = start.add(i * 10, 'minute');
    const { temperature, humidity } = airAt(at.hour() + at.minute() / 60);
    return [
      at.format('YYYY-MM-DD HH:mm'),
      (temperature + 0.2 * random.normal()).toFixed(1),
      (humidity + random.normal()).toFixed(0),
    ].join(',');
  });
  return ['Time,Temperature (°C),Humidity (%)', ...rows, ''].join('\r\n');
}

const TICK_S = 0.25;

export function simulatedThermoHygrometer(seed = 31): Instrument {
  const model = new ThermoHygrometerModel(seed);
  return {
    name: 'simulated thermo-hygrometer',
    channels: [
      { id: 'temperature', name: 'air', unit: '°C', decimals: 1 },
      { id: 'humidity', name: 'humidity', unit: '%', decimals: 0 },
    ],
    step: 0.1,
    calibrations: [],
    present: () => undefined,
    listen: (onReading) => {
      const timer = setInterval(() => {
        const now = dayjs();
        const { atRest, ...values } = model.read(TICK_S, now.hour() + now.minute() / 60);
        onReading({ values, atRest });
      }, TICK_S * 1000);
      return () => clearInterval(timer);
    },
    writesOut: {
      name: 'Its last three days, as CSV',
      file: () => ['thermo-hygrometer.csv', loggerCsv(new Date(), 3)],
    },
  };
}

export const simulatedThermoHygrometerDriver: Driver = {
  id: 'simulated-thermo-hygrometer',
  name: 'Simulated thermo-hygrometer',
  measures: 'air',
  simulated: true,
  unavailable: () => null,
  connect: () => simulatedThermoHygrometer(),
};
