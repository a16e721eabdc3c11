import { seededRandom } from '~core/stats/random';
import type { Area, Position } from '~core/model/plan';
import type { Driver, Instrument } from './instrument';

/**
 * A simulated meter under simulated lamps: brightest over the middle of each area, a darker right end and
 * front, a few per cent of noise. It ships with the app; no real meter is driven.
 *
 * @param settleMs how long the sensor takes to settle
 */
export function simulatedLightMeter(areas: readonly Area[], seed = 5, settleMs = 20): Instrument {
  const random = seededRandom(seed);
  let at: Position | null = null;
  const lightAt = ({ areaId, row, column }: Position): number => {
    const area = areas.find((a) => a.id === areaId);
    if (!area) return 0;
    const x = area.columns > 1 ? column / (area.columns - 1) - 0.5 : 0;
    const y = area.rows > 1 ? row / (area.rows - 1) - 0.5 : 0;
    const level = areas.indexOf(area);
    const hotSpot = 1 - 0.9 * (x * x + 0.5 * y * y);
    const falling = 1 - 0.14 * x - 0.05 * y - 0.06 * level;
    return Math.round(215 * hotSpot * falling * (1 + 0.015 * random.normal()));
  };
  return {
    name: 'simulated light meter',
    channels: [{ id: 'light', name: 'light', unit: 'µmol m⁻² s⁻¹', decimals: 0 }],
    step: 1,
    calibrations: [],
    present: ({ at: position }) => {
      at = position ?? null;
    },
    listen: (onReading) => {
      const timer = setInterval(() => {
        if (at) onReading({ values: { light: lightAt(at) }, atRest: true });
      }, settleMs);
      return () => clearInterval(timer);
    },
  };
}

export const simulatedLightMeterDriver: Driver = {
  id: 'simulated-light-meter',
  name: 'Simulated light meter',
  measures: 'light',
  simulated: true,
  unavailable: () => null,
  connect: ({ areas }) => simulatedLightMeter(areas),
};
