import type { Driver, Instrument, Measures } from './instrument';
import { serialMeterDriver } from './serialMeter';
import { serialScaleDriver } from './serialScale';
import { simulatedCameraDriver, simulatedReaderDriver } from './simulatedCamera';
import { simulatedLightMeterDriver } from './simulatedLightMeter';
import { simulatedScaleDriver } from './simulatedScale';
import { simulatedSolutionMeterDriver } from './simulatedSolutionMeter';
import { simulatedThermoHygrometerDriver } from './simulatedThermoHygrometer';

/** Every instrument that can be connected: stand-ins that ship with the app, and real ones where browsers have them. */
export const drivers: readonly Driver[] = [
  simulatedScaleDriver,
  simulatedLightMeterDriver,
  simulatedSolutionMeterDriver,
  simulatedThermoHygrometerDriver,
  simulatedCameraDriver,
  simulatedReaderDriver,
  serialScaleDriver,
  serialMeterDriver,
];

/** The instrument at hand for what is to be measured; null when none can be used here. */
export function connect(
  measures: Measures,
  place: Parameters<NonNullable<Driver['connect']>>[0] = { areas: [] },
): Instrument | null {
  const driver = drivers.find((d) => d.measures === measures && d.connect && d.unavailable() === null);
  return driver?.connect?.(place) ?? null;
}
