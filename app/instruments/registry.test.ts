import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { plan } from '~core/testing/trial';
import { type Measures, measures, readOnce } from './instrument';
import { connect, drivers } from './registry';
import { letStandIn } from './standIns';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

/** Those that are there at once; real ones are asked for by a press. */
const standIns = drivers.flatMap((d) => (d.connect ? [[d.id, d.connect] as const] : []));
describe.each(standIns)('%s', (_, connectIt) => {
  it('gives every channel it names, and stops when it is told to', async () => {
    const { areas } = plan();
    const instrument = connectIt({ areas });
    const at = { areaId: areas[0]!.id, row: 0, column: 0 };
    const read = readOnce(instrument, { values: { weight: 20, ec: 1, ph: 6 }, at });
    await vi.advanceTimersByTimeAsync(6000);
    const { values } = await read;
    for (const { id } of instrument.channels) expect(Number.isFinite(values[id])).toBe(true);
    let heard = 0;
    const stop = instrument.listen(() => (heard += 1));
    await vi.advanceTimersByTimeAsync(1000);
    expect(heard).toBeGreaterThan(0);
    stop();
    const before = heard;
    await vi.advanceTimersByTimeAsync(1000);
    expect(heard).toBe(before);
  });
});

describe('a stand-in is in the rooms', () => {
  const all = Object.keys(measures) as Measures[];
  const bench = (name: 'demo' | 'own') => {
    const kept = new Map<string, string>();
    vi.stubGlobal('sessionStorage', { getItem: () => name });
    vi.stubGlobal('localStorage', {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => kept.set(key, value),
      removeItem: (key: string) => kept.delete(key),
    });
  };
  afterEach(() => vi.unstubAllGlobals());

  it('of the demo’s bench, for each thing that is measured', () => {
    bench('demo');
    for (const m of all) expect(connect(m)).not.toBeNull();
  });

  it('of one’s own bench only where it was chosen, until it is put out again', () => {
    bench('own');
    for (const m of all) expect(connect(m)).toBeNull();
    const { id } = drivers.find((d) => d.measures === 'weight' && d.simulated)!;
    letStandIn(id, true);
    expect(all.filter((m) => connect(m) !== null)).toEqual(['weight']);
    letStandIn(id, false);
    expect(connect('weight')).toBeNull();
  });
});
