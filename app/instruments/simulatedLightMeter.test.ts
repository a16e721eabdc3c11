import { expect, it } from 'vitest';
import { plan } from '~core/testing/trial';
import { readOnce } from './instrument';
import { simulatedLightMeter } from './simulatedLightMeter';

const area = { ...plan().areas[0]!, rows: 3, columns: 7 };
const meter = () => simulatedLightMeter([area], 5, 0);
const light = async (m: ReturnType<typeof meter>, row: number, column: number) =>
  (await readOnce(m, { at: { areaId: area.id, row, column } })).values.light!;

it('reads a hot spot in the middle, a dark right end, and the same for the same seed', async () => {
  const m = meter();
  const [left, middle, right] = [await light(m, 1, 0), await light(m, 1, 3), await light(m, 1, 6)];
  expect(middle).toBeGreaterThan(left);
  expect(left).toBeGreaterThan(right);
  expect(await light(meter(), 1, 0)).toBe(left);
});
it('sees nothing outside its own areas', async () => {
  const elsewhere = { areaId: 'elsewhere' as never, row: 0, column: 0 };
  expect((await readOnce(meter(), { at: elsewhere })).values.light).toBe(0);
});
