import { seededRandom } from '~core/stats/random';
import type { Area, Position } from '~core/model/plan';
import type { LightMeter } from './lightMeter';

/**
 * A simulated meter under simulated lamps: brightest over the middle of each place, a darker right end and
 * front, a few per cent of noise. It ships with the app; no real meter is driven.
 *
 * @param secondsPerReading how long the sensor takes to settle
 */
export function simulatedLightMeter(areas: readonly Area[], seed = 5, secondsPerReading = 0.02): LightMeter {
  const random = seededRandom(seed);
  return {
    name: 'simulated light meter',
    unit: 'µmol m⁻² s⁻¹',
    read: async ({ areaId, row, column }: Position) => {
      await new Promise((done) => setTimeout(done, secondsPerReading * 1000));
      const area = areas.find((a) => a.id === areaId);
      if (!area) throw new Error('There is no such place.');
      const x = area.columns > 1 ? column / (area.columns - 1) - 0.5 : 0;
      const y = area.rows > 1 ? row / (area.rows - 1) - 0.5 : 0;
      const level = areas.indexOf(area);
      const hotSpot = 1 - 0.9 * (x * x + 0.5 * y * y);
      const falling = 1 - 0.14 * x - 0.05 * y - 0.06 * level;
      return Math.round(215 * hotSpot * falling * (1 + 0.015 * random.normal()));
    },
  };
}
