import { describe, expect, it } from 'vitest';
import { Plan } from '~core/model/plan';
import { BenchHeldError, NewerBenchError, sayStorageFault } from './errors';

/** A fault as the database library wraps it. */
const within = (inner: unknown) => Object.assign(new Error('AbortError'), { name: 'AbortError', inner });
const named = (name: string, message = '') => Object.assign(new Error(message), { name });

describe('why something wasn’t stored', () => {
  it('is a full storage, however deep it is said', () => {
    expect(sayStorageFault(named('QuotaExceededError'))).toMatch(/storage is full/);
    expect(sayStorageFault(within(named('QuotaExceededError')))).toMatch(/storage is full/);
    expect(sayStorageFault(within(named('ConstraintError', 'Key exists')))).toBe('Key exists.');
  });

  it('is what the record’s schema found, in its words and not in its code', () => {
    const { error } = Plan.shape.rounds.safeParse([
      { id: 'r-1', name: ' ', day: 3, traitIds: [] },
      { id: 'r-2', name: 'Harvest', day: -1, traitIds: [] },
    ]);
    const said = sayStorageFault(error);
    expect(said).toBe(
      'What was to be kept isn’t whole. Give the round a name. Say what is measured in this round. Not before the start.',
    );
  });

  it('is another tab or a newer build, as those say it', () => {
    expect(sayStorageFault(new BenchHeldError())).toMatch(/Another tab with an older Palazzo/);
    expect(sayStorageFault(new NewerBenchError())).toMatch(/newer Palazzo/);
  });

  it('is a database that can’t be used, or nothing the browser would say', () => {
    expect(sayStorageFault(named('DatabaseClosedError'))).toMatch(/can’t be used here/);
    expect(sayStorageFault(new Error('It broke.'))).toBe('It broke.');
    expect(sayStorageFault(undefined)).toBe('The browser gave no reason.');
  });
});
