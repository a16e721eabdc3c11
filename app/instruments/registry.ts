import type { Driver, Instrument, Measures } from './instrument';
import { simulatedLightMeterDriver } from './simulatedLightMeter';
import { simulatedScaleDriver } from './simulatedScale';
import { simulatedSolutionMeterDriver } from './simulatedSolutionMeter';

/** Every instrument that can be connected. Real drivers come where browsers have them. */
export const drivers: readonly Driver[] = [
  simulatedScaleDriver,
  simulatedLightMeterDriver,
  simulatedSolutionMeterDriver,
];

/** The instrument at hand for what is to be measured; null when none can be used here. */
export function connect(
  measures: Measures,
  place: Parameters<Driver['connect']>[0] = { areas: [] },
): Instrument | null {
  const driver = drivers.find((d) => d.measures === measures && d.unavailable() === null);
  return driver ? driver.connect(place) : null;
}
