import { describe, expect, it, vi } from 'vitest';
import type { Reading } from './instrument';
import { gramsOfLine, openSerialScale, scaleOnPort } from './serialScale';

describe('a line a scale prints', () => {
  it.each([
    ['ST,GS,+  112.4 g', 112.4, 1],
    ['  -3.25g', -3.25, 2],
    ['0,5 kg', 500, 0],
    ['Net 2.0 oz stable', 56.699, 1],
    ['1 lb', 453.592, 0],
  ])('%s', (line, grams, decimals) => {
    const read = gramsOfLine(line)!;
    expect(read.grams).toBeCloseTo(grams, 2);
    expect(read.decimals).toBe(decimals);
  });
  it.each(['', 'ERR', '112.4', 'g 5', '12 gal'])('“%s” is no weight', (line) => {
    expect(gramsOfLine(line)).toBeNull();
  });
});

describe('a scale on a port', () => {
  const port = (pieces: string[]) => ({
    open: () => Promise.resolve(),
    close: () => Promise.resolve(),
    readable: new ReadableStream<Uint8Array>({
      start(controller) {
        for (const p of pieces) controller.enqueue(new TextEncoder().encode(p));
        controller.close();
      },
    }),
  });
  it('is read line by line, however the bytes come, and rests when four agree', async () => {
    const readings: Reading[] = [];
    scaleOnPort(port(['11', '2.4 g\r\n80.0 g\r\n80', '.1 g\nnoise\n80.1 g\n80.0 g\n80.1 g\n'])).listen((r) =>
      readings.push(r),
    );
    await vi.waitFor(() => expect(readings).toHaveLength(6));
    expect(readings.map((r) => r.values.weight)).toEqual([112.4, 80, 80.1, 80.1, 80, 80.1]);
    expect(readings.map((r) => r.atRest)).toEqual([false, false, false, false, true, true]);
  });
  it('isn’t there where the browser has no ports', async () => {
    expect(await openSerialScale()).toEqual({ ok: false, error: 'This browser gives no serial ports here.' });
  });
});
