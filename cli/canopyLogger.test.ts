// `canopy` and `logger` as docs promise them; the pictures and files are made here.
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import jpeg from 'jpeg-js';
import { PNG } from 'pngjs';
import { describe, expect, it } from 'vitest';
import { main } from './main';

const dir = mkdtempSync(join(tmpdir(), 'palazzo-cli-'));
const file = (name: string, content: string | Uint8Array) => {
  writeFileSync(join(dir, name), content);
  return join(dir, name);
};
const json = (...args: string[]) => {
  const run = main([...args, '--json']);
  expect(run.stderr).toBe('');
  return JSON.parse(run.stdout);
};

/** 40 × 30 pixels, the first 30 columns of 40 green. */
function picture() {
  const data = Buffer.alloc(40 * 30 * 4, 255);
  for (let i = 0; i < 40 * 30; i++) {
    (i % 40 < 30 ? [60, 140, 50] : [120, 100, 80]).forEach((c, k) => (data[i * 4 + k] = c));
  }
  return { width: 40, height: 30, data };
}

describe('palazzo canopy', () => {
  it('measures a PNG', () => {
    const { width, height, data } = picture();
    const png = new PNG({ width, height });
    png.data = data;
    const path = file('a.png', PNG.sync.write(png));
    const out = json('canopy', path);
    expect(out).toMatchObject({ width: 40, height: 30, coverPercent: 75 });
    expect(out.threshold).toBeGreaterThan(0);
    // hue 113.3, saturation 90/140, brightness 140/255
    expect(out.darkGreenColourIndex).toBeCloseTo(
      (113.3333 / 60 - 1 + (1 - 90 / 140) + (1 - 140 / 255)) / 3,
      4,
    );
    expect(main(['canopy', path]).stdout).toContain('75.00 %');
  });
  it('and a JPEG, within a per cent', () => {
    const path = file('a.jpg', jpeg.encode(picture(), 95).data);
    expect(Math.abs(json('canopy', path).coverPercent - 75)).toBeLessThan(1.5);
  });
  it.each([
    ['nothing.png', null, /can't be read/],
    ['text.png', 'hello', /neither a PNG nor a JPEG/],
    ['cut.png', Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 0, 0), /damaged/],
  ])('%s ends with status 2', (name, content, why) => {
    const run = main(['canopy', content === null ? join(dir, name) : file(name, content)]);
    expect(run).toMatchObject({ status: 2, stdout: '' });
    expect(run.stderr).toMatch(why);
  });
});

describe('palazzo logger', () => {
  const hourly = (row: (i: number) => string, n = 24) =>
    Array.from({ length: n }, (_, i) => `2026-03-01 ${String(i).padStart(2, '0')}:00,${row(i)}`).join('\n');

  it('prints exactly the promised JSON', () => {
    const text = `time,temp,rh,PPFD\n${hourly((i) => `${i === 3 ? 'err' : 15},50,${i < 16 ? 200 : 0}`)}`;
    const out = json('logger', file('a.csv', text), '--low', '16', '--column', 'temp');
    expect(Object.keys(out)).toEqual([
      'rows',
      'skipped',
      'from',
      'to',
      'columns',
      'vpdKPa',
      'dailyLightIntegral',
      'hoursOutside',
    ]);
    expect(out).toMatchObject({
      rows: 24,
      skipped: [{ row: 5, why: '“err” in “temp” isn’t a number' }],
      from: '2026-03-01T00:00:00',
      to: '2026-03-01T23:00:00',
      columns: [
        { name: 'temp', unit: '°C', min: 15, mean: 15, max: 15 },
        { name: 'rh', unit: '%', min: 50, mean: 50, max: 50 },
        { name: 'PPFD', unit: 'µmol m⁻² s⁻¹', min: 0, mean: (200 * 16) / 24, max: 200 },
      ],
      hoursOutside: 23,
    });
    // FAO 56, table 2.3: 1.705 kPa at 15 °C, half of it at 50 %
    expect(out.vpdKPa.mean).toBeCloseTo(1.705 / 2, 3);
    expect(out.dailyLightIntegral).toEqual([
      { day: '2026-03-01', mol: expect.closeTo(200 * 15.5 * 0.0036, 9) },
    ]);
  });
  it('leaves out what there is no column for', () => {
    const out = json('logger', file('b.csv', `time,level\n${hourly(String)}`));
    expect(out).toMatchObject({ vpdKPa: null, dailyLightIntegral: null, hoursOutside: null });
    expect(out.columns[0]).toMatchObject({ name: 'level', unit: null, mean: 11.5 });
  });
  it('reckons °F as °C for the deficit', () => {
    const out = json('logger', file('f.csv', `time,Temp (°F),RH\n${hourly(() => '59,50')}`));
    expect(out.columns[0]).toMatchObject({ unit: '°F', mean: 59 });
    expect(out.vpdKPa.mean).toBeCloseTo(1.705 / 2, 3);
  });
  it('asks for the order of dates, and takes it', () => {
    const path = file('d.csv', 'time,temp\n03/04/2026 10:00,18\n03/04/2026 11:00,18\n');
    expect(main(['logger', path])).toMatchObject({
      status: 2,
      stderr: expect.stringMatching(/Row 2, column “time”.*--dates day-first or --dates month-first/),
    });
    expect(json('logger', path, '--dates', 'month-first').from).toBe('2026-03-04T10:00:00');
  });
  it.each([
    [['--low', '5', '--high', '4'], /--low is above --high/],
    [['--low', '5', '--column', 'x'], /no numeric column “x”/],
    [['--low', '5'], /Say which column/],
    [['--column', 'temp'], /goes with --low or --high/],
    [['--dates', 'never'], /day-first or month-first/],
    [['--time', 'when'], /no column “when”/],
  ])('%j ends with status 2', (args, why) => {
    const path = file('e.csv', 'time,temp,rh\n2026-03-01,18,60\n2026-03-02,19,61\n');
    expect(main(['logger', path, ...args])).toMatchObject({ status: 2, stderr: expect.stringMatching(why) });
  });
});
