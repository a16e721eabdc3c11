// Saturation vapour pressure: FAO Irrigation and Drainage Paper 56, table 2.3 (15 °C 1.705, 24.5 °C 3.075 kPa).
// Daily light integral: PPFD × hours × 0.0036 (200 for 16 h is 11.52). The rest is arithmetic done by hand.
import { strToU8 } from 'fflate';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { saturationVapourPressure, vapourPressureDeficit } from './air';
import { decodeText } from './decodeText';
import { dailyLightIntegral, extentOf, gapsOf, hoursHeld, hoursOutside, median, readingsOf } from './held';
import { describeLoggerError, openLogger, readLogger } from './loggerFile';
import { dateOrder, parseClock, parseMoment, wallDay, wallText } from './moment';
import { isTimeHeading, quantityOf } from './quantities';

const HOUR = 3_600_000;
const read = (text: string, options = {}) => {
  const table = readLogger(text, options);
  if (!table.ok) throw new Error(describeLoggerError(table.error));
  return table.value;
};
const fault = (text: string, options = {}) => {
  const table = readLogger(text, options);
  return table.ok ? null : table.error;
};

describe('air', () => {
  it.each([
    [15, 1.705],
    [24.5, 3.075],
    [1, 0.657],
    [40, 7.376],
  ])('at %s °C holds up to %s kPa of vapour', (t, kPa) => {
    expect(saturationVapourPressure(t)).toBeCloseTo(kPa, 2);
  });
  it('lacks half of it at 50 %', () => {
    expect(vapourPressureDeficit(15, 50)).toBeCloseTo(1.705 / 2, 3);
  });
});

describe('moments', () => {
  it.each([
    ['2026-03-01 06:30', 'dmy', '2026-03-01T06:30:00'],
    ['2026-03-01T06:30:15Z', 'dmy', '2026-03-01T06:30:15'],
    ['2026-03-01T06:30:15.250+01:00', 'dmy', '2026-03-01T06:30:15.250'],
    ['2026/3/1', 'mdy', '2026-03-01T00:00:00'],
    ['3/4/2026 14:30', 'dmy', '2026-04-03T14:30:00'],
    ['3/4/2026 14:30', 'mdy', '2026-03-04T14:30:00'],
    ['03/04/26 02:30:00 PM', 'mdy', '2026-03-04T14:30:00'],
    ['03/04/26 12:05 am', 'mdy', '2026-03-04T00:05:00'],
    ['1.3.2026, 06:30', 'dmy', '2026-03-01T06:30:00'],
    ['1 Mar 2026 06:30', 'dmy', '2026-03-01T06:30:00'],
    ['Mar 1, 2026 06:30', 'dmy', '2026-03-01T06:30:00'],
    ['1. März 2026', 'dmy', '2026-03-01T00:00:00'],
    ['1772346600', 'dmy', '2026-03-01T06:30:00'],
    ['1772346600000', 'dmy', '2026-03-01T06:30:00'],
  ] as const)('%s (%s) is %s', (text, order, wall) => {
    expect(wallText(parseMoment(text, order)!)).toBe(wall);
  });
  it.each([
    '',
    '18.5',
    '12',
    '31/4/2026',
    '2026-13-01',
    '2026-03-01 25:10',
    'end of file',
    '1/2',
    '13/13/2026',
  ])('“%s” is none', (text) => {
    expect([parseMoment(text, 'dmy'), parseMoment(text, 'mdy')]).toEqual([null, null]);
  });
  it('a date’s order is told by a figure above 12, by points, or by nobody', () => {
    expect(dateOrder(['03/04/2026', '13/04/2026'])).toBe('dmy');
    expect(dateOrder(['03/04/2026', '04/13/2026'])).toBe('mdy');
    expect(dateOrder(['03.04.2026'])).toBe('dmy');
    expect(dateOrder(['2026-03-04'])).toBe('ymd');
    expect(dateOrder(['03/04/2026', '04/03/2026'])).toBe('ambiguous');
    expect(dateOrder(['13/04/2026', '04/13/2026'])).toBe('ambiguous');
  });
  it('days are local days', () => {
    expect(wallDay(Date.UTC(2026, 2, 1, 23, 59))).toBe('2026-03-01');
    expect(wallDay(Date.UTC(2026, 2, 2))).toBe('2026-03-02');
    expect(parseClock('2:30 pm')).toBe(14.5 * HOUR);
    expect(parseClock('61:00')).toBeNull();
  });
});

describe('headings', () => {
  it.each([
    ['temp', 'temperature', '°C'],
    ['Temp_C', 'temperature', '°C'],
    ['Temperature (°F)', 'temperature', '°F'],
    ['Lufttemperatur [°C]', 'temperature', '°C'],
    ['Température °C', 'temperature', '°C'],
    ['RH%', 'humidity', '%'],
    ['Luftfeuchte [%]', 'humidity', '%'],
    ['humedad relativa', 'humidity', '%'],
    ['PPFD (µmol/m²/s)', 'ppfd', 'µmol m⁻² s⁻¹'],
    ['PAR', 'ppfd', 'µmol m⁻² s⁻¹'],
    ['Light (umol m-2 s-1)', 'ppfd', 'µmol m⁻² s⁻¹'],
    ['Licht (lux)', 'lux', 'lx'],
    ['EC (µS/cm)', 'ec', 'µS/cm'],
    ['Leitfähigkeit', 'ec', 'mS/cm'],
    ['pH', 'ph', null],
    ['Water level, cm', 'level', 'cm'],
    ['battery (V)', null, 'v'],
  ])('%s is %s in %s', (header, quantity, unit) => {
    expect(quantityOf(header)).toEqual({ quantity, unit });
  });
  it.each(['Datum/Uhrzeit', 'Date Time', 'timestamp', 'fecha', 'Time (UTC)'])('%s names a time', (h) => {
    expect(isTimeHeading(h)).toBe(true);
  });
  it('a temperature doesn’t', () => expect(isTimeHeading('temp')).toBe(false));
});

describe('encodings', () => {
  const text = 'Zeit;Temp (°C)\n1.3.2026 06:00;18,5\n';
  const wide = (bigEndian: boolean, mark: boolean) => {
    const units = [...(mark ? '\uFEFF' : ''), ...text].map((c) => c.charCodeAt(0));
    return Uint8Array.from(units.flatMap((u) => (bigEndian ? [u >> 8, u & 255] : [u & 255, u >> 8])));
  };
  it.each([
    ['UTF-8', strToU8(text)],
    ['UTF-8 with a mark', strToU8(`\uFEFF${text}`)],
    ['UTF-16 little-endian', wide(false, true)],
    ['UTF-16 big-endian', wide(true, true)],
    ['UTF-16 without a mark', wide(false, false)],
    ['Latin-1', Uint8Array.from([...text].map((c) => c.charCodeAt(0)))],
  ])('%s is read', (_, bytes) => {
    expect(decodeText(bytes)).toBe(text);
  });
  it('long UTF-16 loses nothing', () => {
    const long = 'a1é'.repeat(20_001);
    const bytes = Uint8Array.from([...long].flatMap((c) => [c.charCodeAt(0), 0]));
    expect(decodeText(Uint8Array.of(0xff, 0xfe, ...bytes))).toBe(long);
  });
});

describe('a logger’s file', () => {
  it('is read with semicolons and decimal commas, below what stands above the heading', () => {
    const t = read(
      'Logger 7;;\nSerial: 123;;\n\nZeit;Temp (°C);Feuchte (%)\n1.3.2026 06:00;18,5;60\n1.3.2026 07:00;19;61,5\n',
    );
    expect(t.columns.map((c) => [c.name, c.quantity, [...c.values]])).toEqual([
      ['Temp (°C)', 'temperature', [18.5, 19]],
      ['Feuchte (%)', 'humidity', [60, 61.5]],
    ]);
    expect([...t.times].map(wallText)).toEqual(['2026-03-01T06:00:00', '2026-03-01T07:00:00']);
    expect(t.skipped).toEqual([]);
  });
  it('lists faulty rows as a spreadsheet counts them; their other cells count', () => {
    const t = read(
      [
        'time,temp,rh,note',
        '2026-03-01 02:00,18,60,a',
        '2026-03-01 01:00,err,61,b',
        '',
        'time,temp,rh,note',
        '2026-03-01 03:00,,NA,c',
        'soon,20,62,d',
        ',20,62,d',
        'End of file,,,',
      ].join('\n'),
    );
    expect(t.skipped).toEqual([
      { row: 3, why: '“err” in “temp” isn’t a number' },
      { row: 5, why: 'the heading again' },
      { row: 7, why: '“soon” in “time” isn’t a time' },
      { row: 8, why: 'no time in “time”' },
      { row: 9, why: '“End of file” in “time” isn’t a time' },
    ]);
    // sorted by time; the text column isn't one
    expect(t.columns.map((c) => c.name)).toEqual(['temp', 'rh']);
    expect([...t.times].map((ms) => new Date(ms).getUTCHours())).toEqual([1, 2, 3]);
    expect([...t.columns[1]!.values]).toEqual([61, 60, NaN]);
    expect([...t.columns[0]!.values]).toEqual([NaN, 18, NaN]);
  });
  it('joins date and clock in two columns, and takes the column it is told', () => {
    const t = read('Date\tTime\tTemp\n2026-03-01\t06:30\t18\n2026-03-01\t06:40\t19\n');
    expect(wallText(t.times[0]!)).toBe('2026-03-01T06:30:00');
    const two = 'start,seen,temp\n2026-03-01,2026-03-02,18\n';
    expect(wallText(read(two).times[0]!)).toBe('2026-03-01T00:00:00');
    expect(wallText(read(two, { timeColumn: 'seen' }).times[0]!)).toBe('2026-03-02T00:00:00');
  });
  it('asks where nobody can tell the day from the month', () => {
    const text = 'time,temp\n03/04/2026 10:00,18\n05/04/2026 11:00,19\n';
    expect(fault(text)).toEqual({ tag: 'ambiguous', row: 2, column: 'time', example: '03/04/2026 10:00' });
    expect(wallDay(read(text, { order: 'mdy' }).times[0]!)).toBe('2026-03-04');
    expect(wallDay(read(text, { order: 'dmy' }).times[0]!)).toBe('2026-04-03');
    // 4 April is 4 April
    expect(read('time,temp\n04/04/2026 10:00,18\n').times).toHaveLength(1);
    expect(wallDay(read('time,temp\n03/04/2026,18\n13/04/2026,19\n').times[0]!)).toBe('2026-04-03');
  });
  it.each([
    ['', 'empty'],
    ['just words', 'noHeading'],
    ['a,b\n1,2\n', 'noHeading'],
    ['time,word\n2026-03-01,x\n', 'noNumbers'],
    ['2026-03-01,18\n2026-03-02,19\n', 'noHeading'],
  ])('%j says what is wrong with it', (text, tag) => {
    expect(fault(text)).toMatchObject({ tag });
  });
  it('says which columns there are when one is missing', () => {
    const e = fault('time,temp\n2026-03-01,18\n', { timeColumn: 'when' });
    expect(describeLoggerError(e!)).toBe('There is no column “when”; the columns are time, temp.');
  });
  it('is the same whether read at once or in steps', () => {
    const text = `time,temp\n${Array.from({ length: 100 }, (_, i) => `2026-03-01 0${i % 10}:${10 + (i % 50)},${i}`).join('\n')}`;
    const reading = openLogger(text);
    if (!reading.ok) throw new Error();
    let steps = 0;
    while (!reading.value.step(7)) steps += 1;
    expect(steps).toBe(14);
    expect(reading.value.done()).toBe(reading.value.total);
    const whole = read(text);
    expect(reading.value.result()).toEqual({ ok: true, value: whole });
  });
});

describe('time that readings stand for', () => {
  it('is half of the gap to either side; a gap over three steps belongs to nobody', () => {
    expect([...hoursHeld([0, HOUR, 2 * HOUR, 3 * HOUR, 13 * HOUR, 14 * HOUR])]).toEqual([
      0.5, 1, 1, 0.5, 0.5, 0.5,
    ]);
    expect([...hoursHeld([5])]).toEqual([0]);
    // exactly three steps still belong to their ends
    expect([...hoursHeld([0, HOUR, 2 * HOUR, 5 * HOUR])]).toEqual([0.5, 1, 2, 1.5]);
  });
  it('adds up to the span where there is no gap', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 60 }), fc.integer({ min: 1, max: 90 }), (n, minutes) => {
        const times = Array.from({ length: n }, (_, i) => i * minutes * 60_000);
        expect(hoursHeld(times).reduce((a, b) => a + b, 0)).toBeCloseTo(((n - 1) * minutes) / 60, 9);
      }),
    );
  });
  it('outside a band counts below and above', () => {
    const times = Float64Array.from({ length: 5 }, (_, i) => i * HOUR);
    const values = Float64Array.of(19, 20, 25, 26, 30);
    expect(hoursOutside({ times, values }, 20, 25)).toBe(0.5 + 1 + 0.5);
    expect(hoursOutside({ times, values }, null, 25)).toBe(1.5);
    expect(hoursOutside({ times, values }, 20, null)).toBe(0.5);
  });
  it('16 h of 200 µmol m⁻² s⁻¹ are 11.52 mol', () => {
    const times = Float64Array.from({ length: 24 * 60 }, (_, i) => Date.UTC(2026, 2, 1) + i * 60_000);
    const values = Float64Array.from(times, (ms) => (new Date(ms).getUTCHours() < 16 ? 200 : 0));
    const [day] = dailyLightIntegral({ times, values });
    expect(day).toMatchObject({ day: '2026-03-01' });
    // the first minute of the file has nothing before it: half a minute less
    expect(day!.mol).toBeCloseTo(11.52 - 200 * 0.0036 * (0.5 / 60), 9);
  });
  it('readings without a number are left out of a column', () => {
    const times = Float64Array.of(0, 1, 2);
    expect(readingsOf(times, Float64Array.of(1, NaN, 3))).toEqual({
      times: Float64Array.of(0, 2),
      values: Float64Array.of(1, 3),
    });
    expect(extentOf(Float64Array.of(NaN, 2, 4))).toEqual({ n: 2, min: 2, mean: 3, max: 4 });
    expect(extentOf(Float64Array.of(NaN))).toBeNull();
    expect([median([3, 1, 2]), median([4, 1, 2, 3])]).toEqual([2, 2.5]);
  });
});

it('a stretch nobody read is a gap, named with its hours; steady steps are none', () => {
  const at = (...hours: number[]) => hours.map((h) => h * 3_600_000);
  expect(gapsOf(at(0, 1, 2, 35, 36)).map((g) => g.hours)).toEqual([33]);
  expect(gapsOf(at(0, 1, 2, 3))).toEqual([]);
  expect(gapsOf(at(0, 1))).toEqual([]);
});
