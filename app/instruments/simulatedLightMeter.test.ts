import { expect, it } from 'vitest';
import { plan } from '~core/testing/trial';
import { simulatedLightMeter } from './simulatedLightMeter';

const area = { ...plan().areas[0]!, rows: 3, columns: 7 };
const meter = () => simulatedLightMeter([area], 5, 0);
const at = (row: number, column: number) => ({ areaId: area.id, row, column });

it('reads a hot spot in the middle, a dark right end, and the same for the same seed', async () => {
  const m = meter();
  const [left, middle, right] = [await m.read(at(1, 0)), await m.read(at(1, 3)), await m.read(at(1, 6))];
  expect(middle).toBeGreaterThan(left);
  expect(left).toBeGreaterThan(right);
  expect(await meter().read(at(1, 0))).toBe(left);
});
it('knows only its own places', async () => {
  await expect(meter().read({ ...at(0, 0), areaId: 'elsewhere' as never })).rejects.toThrow('no such place');
});
