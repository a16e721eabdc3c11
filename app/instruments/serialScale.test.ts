import { afterEach, describe, expect, it, vi } from 'vitest';
import { atHand, keepAtHand } from './atHand';
import type { Driver, Reading } from './instrument';
import { figuresOfLine, meterOnPort } from './serialMeter';
import { gramsOfLine, scaleOnPort, serialScaleDriver } from './serialScale';

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

describe('a line a meter prints', () => {
  it.each([
    ['EC 1.42 mS/cm; pH 6.12; 21.4 °C', { ec: 1.42, ph: 6.12, temperature: 21.4 }],
    ['1413 µS/cm', { ec: 1.413 }],
    ['pH: 7,01', { ph: 7.01 }],
    ['6.9 pH 70 F', { ph: 6.9, temperature: 21.11 }],
    // the scale of 500: 710 ppm are 1.42 mS/cm
    ['710 ppm', { ec: 1.42 }],
  ])('%s', (line, wanted) => {
    const read = figuresOfLine(line);
    expect(Object.keys(read).sort()).toEqual(Object.keys(wanted).sort());
    for (const [id, value] of Object.entries(wanted)) expect(read[id]!.value).toBeCloseTo(value, 2);
  });
  it.each(['', 'ERR', '112.4 g', 'low battery'])('“%s” says nothing', (line) => {
    expect(figuresOfLine(line)).toEqual({});
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
  it('a meter rests when every figure it prints does', async () => {
    const line = (ec: string) => `${ec} mS/cm pH 6.10\n`;
    const readings: Reading[] = [];
    meterOnPort(port(['1.30', '1.40', '1.41', '1.40', '1.41', '1.40'].map(line))).listen((r) =>
      readings.push(r),
    );
    await vi.waitFor(() => expect(readings).toHaveLength(6));
    expect(readings.map((r) => r.atRest)).toEqual([false, false, false, false, true, true]);
    expect(readings.at(-1)!.values).toEqual({ ec: 1.4, ph: 6.1 });
  });
  it('isn’t there where the browser has no ports', async () => {
    const said = 'This browser gives no serial ports here.';
    expect(serialScaleDriver.unavailable()).toBe(said);
    expect(await serialScaleDriver.open!()).toEqual({ ok: false, error: said });
  });

  describe('opened', () => {
    /** As a real port: opened once at a time, with a stream of its own each time. */
    const asReal = () => {
      const pulled: ReadableStreamDefaultController<Uint8Array>[] = [];
      const real = {
        readable: null as ReadableStream<Uint8Array> | null,
        open: () => {
          if (real.readable) return Promise.reject(new Error('open already'));
          real.readable = new ReadableStream({ start: (c) => void pulled.push(c) });
          return Promise.resolve();
        },
        close: () => {
          if (real.readable?.locked) return Promise.reject(new Error('being read'));
          real.readable = null;
          return Promise.resolve();
        },
      };
      vi.stubGlobal('navigator', { serial: { requestPort: () => Promise.resolve(real) } });
      return { real, pulled };
    };
    afterEach(() => vi.unstubAllGlobals());
    const opened = async (d: Driver) => {
      const result = await d.open!();
      if (!result.ok) throw new Error(result.error);
      return result.value;
    };

    it('lets go of the port when it is put away', async () => {
      const { real } = asReal();
      const scale = await opened(serialScaleDriver);
      expect(real.readable).not.toBeNull();
      await scale.close!();
      expect(real.readable).toBeNull();
      await scale.over;
    });
    it('again in another room takes the port over from who had it', async () => {
      const { real, pulled } = asReal();
      const first = await opened(serialScaleDriver);
      const second = await opened(serialScaleDriver);
      await first.over;
      const readings: Reading[] = [];
      second.listen((r) => readings.push(r));
      pulled[1]!.enqueue(new TextEncoder().encode('5.0 g\n'));
      await vi.waitFor(() => expect(readings.map((r) => r.values.weight)).toEqual([5]));
      await second.close!();
      expect(real.readable).toBeNull();
    });
    it('gives way to another one of its kind, and its port is free', async () => {
      const first = asReal();
      const one = keepAtHand('weight', await opened(serialScaleDriver));
      asReal();
      const other = keepAtHand('weight', await opened(serialScaleDriver));
      await one.over;
      expect(first.real.readable).toBeNull();
      expect(atHand('weight')).toBe(other);
      await other.close!();
      await vi.waitFor(() => expect(atHand('weight')).toBeUndefined());
    });
    it('stays at hand from room to room, until its cable is out', async () => {
      const { real, pulled } = asReal();
      const scale = keepAtHand('weight', await opened(serialScaleDriver));
      expect(atHand('weight')).toBe(scale);
      expect(atHand('solution')).toBeUndefined();
      pulled[0]!.error(new Error('The device has been lost.'));
      await scale.over;
      await vi.waitFor(() => expect(atHand('weight')).toBeUndefined());
      expect(real.readable).toBeNull();
    });
  });
});
