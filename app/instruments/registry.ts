import type { Driver, Instrument, Measures } from './instrument';
import { serialMeterDriver } from './serialMeter';
import { serialScaleDriver } from './serialScale';
import { simulatedCameraDriver, simulatedReaderDriver } from './simulatedCamera';
import { simulatedLightMeterDriver } from './simulatedLightMeter';
import { simulatedScaleDriver } from './simulatedScale';
import { simulatedSolutionMeterDriver } from './simulatedSolutionMeter';
import { simulatedThermoHygrometerDriver } from './simulatedThermoHygrometer';
import { standsIn } from './standIns';

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

/** The stand-in that the rooms may use for what is to be measured; null where none was let in. */
export function connect(
  measures: Measures,
  place: Parameters<NonNullable<Driver['connect']>>[0] = { areas: [] },
): Instrument | null {
  const driver = drivers.find((d) => d.measures === measures && d.connect && standsIn(d.id));
  return driver?.connect?.(place) ?? null;
}
