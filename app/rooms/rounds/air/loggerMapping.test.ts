import { afterAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { keepMapping, mapped, mappingFor, usesOf } from './loggerMapping';

const columns = [
  { name: 'T', quantity: 'temperature' as const, unit: null, values: Float64Array.of(20) },
  { name: 'Sensor 2', quantity: null, unit: '%', values: Float64Array.of(60) },
  { name: 'Battery', quantity: null, unit: 'V', values: Float64Array.of(3) },
];

describe('how a logger’s columns are read', () => {
  const held = new Map<string, string>();
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => held.get(key) ?? null,
    setItem: (key: string, text: string) => held.set(key, text),
  });
  beforeEach(() => held.clear());
  afterAll(() => vi.unstubAllGlobals());
  it('the first time as the headings tell', () => {
    expect(usesOf(columns, undefined)).toEqual({ T: 'temperature', 'Sensor 2': 'asItIs', Battery: 'asItIs' });
  });
  it('the next time as it was said, for files with the same headings alone', () => {
    const names = columns.map((c) => c.name);
    const said = { T: 'temperature', 'Sensor 2': 'humidity', Battery: 'leave' } as const;
    keepMapping(names, { columns: said, place: 'a1', order: 'dmy' });
    expect(mappingFor(names)).toEqual({ columns: said, place: 'a1', order: 'dmy' });
    expect(mappingFor(['T', 'Other'])).toBeUndefined();
    const kept = mapped(columns, usesOf(columns, mappingFor(names)));
    expect(kept.map((c) => [c.name, c.quantity, c.unit])).toEqual([
      ['T', 'temperature', '°C'],
      ['Sensor 2', 'humidity', '%'],
    ]);
  });
  it('what stands there from elsewhere and makes no sense is passed over', () => {
    localStorage.setItem('palazzo-logger-mappings', '{"T":{"columns":{"T":"sound"}}}');
    expect(mappingFor(['T'])).toBeUndefined();
    localStorage.setItem('palazzo-logger-mappings', '{');
    expect(mappingFor(['T'])).toBeUndefined();
  });
});
