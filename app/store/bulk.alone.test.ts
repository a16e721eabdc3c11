import '../testing/browserGlobals';
import { createHash } from 'node:crypto';
import { expect, it } from 'vitest';
import { onBench } from '../testing/browserGlobals';
import { putBlob, putSeries } from '../testing/bulk';
import { getBlob, readSeries } from './bulk';

onBench('own');

it('a picture is kept under its SHA-256, as Node’s crypto has it', async () => {
  const bytes = Uint8Array.from({ length: 1000 }, (_, i) => i % 251);
  const hash = await putBlob('trial', bytes, 'image/png');
  expect(hash).toBe(createHash('sha256').update(bytes).digest('hex'));
  expect(await getBlob(hash)).toMatchObject({ type: 'image/png', bytes });
  expect(await getBlob('0'.repeat(64))).toBeUndefined();
});

it('a logger’s readings come back by span, across the stretches they are kept in', async () => {
  const n = 25_000;
  const times = Float64Array.from({ length: n }, (_, i) => i * 60_000);
  await putSeries('trial', 's', {
    times,
    columns: [times.map((t) => t / 60_000), times.map(() => 7)],
  });
  const part = await readSeries('s', 9_998 * 60_000, 10_001 * 60_000);
  expect([...part.columns[0]!]).toEqual([9998, 9999, 10_000, 10_001]);
  expect([...part.columns[1]!]).toEqual([7, 7, 7, 7]);
  expect((await readSeries('s', 0, Infinity)).times).toEqual(times);
  expect((await readSeries('nobody', 0, Infinity)).times).toHaveLength(0);
});
