import { describe, expect, it } from 'vitest';
import { analysis, plan, product, use } from '../testing/trial';
import { stockForecast } from './forecast';

const feed = product({ analysis: analysis() });
const dose = use({ amount: 10, solutionLPerUnit: 0.5, everyDays: 7, fromDay: 0, timesPerUnit: 4 });
const p = { ...plan(), products: [feed] };
const withDose = (uses = [dose]) => ({
  ...p,
  treatments: p.treatments.map((t) => (t.name === 'A' ? { ...t, products: uses } : t)),
});
const at = (left: number, from = 0, trial = withDose()) =>
  stockForecast(trial, { product: feed, pack: feed.packs[0]!, left }, trial.units, from);

describe('how long a pack lasts', () => {
  // three trays of half a litre and a tenth to spare: 1.65 L at 10 mL, 16.5 mL a feed
  it('a feed takes what the batch takes, spare included', () => {
    expect(at(1)!.perFeed).toBeCloseTo(0.0165, 12);
    expect(at(1)!.outOnDay).toBeNull();
  });
  it('runs out on the day that asks for more than there is', () => {
    expect(at(0.05)!.outOnDay).toBe(21);
    expect(at(0.05, 7)!.outOnDay).toBeNull();
    expect(at(0.01)!.outOnDay).toBe(0);
    // exactly enough is enough
    expect(at(4 * 0.0165)!.outOnDay).toBeNull();
  });
  it('feed that is in the log today isn’t taken twice', () => {
    const trial = withDose();
    const after = (mixed: string[]) =>
      stockForecast(
        trial,
        { product: feed, pack: feed.packs[0]!, left: 0.05 },
        trial.units,
        0,
        new Set(mixed as never[]),
      )!.outOnDay;
    // 0.05 L last three feeds of 0.0165: days 0, 7 and 14, or 7, 14 and 21 where today's is mixed
    expect(after([])).toBe(21);
    expect(after(['A'])).toBeNull();
    expect(after(['Water'])).toBe(21);
  });
  it('doses without days count as one feed; another product’s pack isn’t touched', () => {
    expect(at(1, 0, withDose([use({ solutionLPerUnit: 0.5 })]))!.perFeed).toBeCloseTo(0.0165, 12);
    expect(at(1, 0, withDose([]))).toBeNull();
  });
});
