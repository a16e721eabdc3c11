// Devices hours apart, clocks that are wrong, and the nights the clock changes: a day is the day where it was logged. The
// platform's own calendar (Intl) is the oracle. Run once more in three zones by `npm test`.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { offsetAt } from '../formats/iCalendar';
import { dateOfDay, dayOfDate } from '../plan/days';
import { roundProgress } from '../schedule/rounds';
import { entry, plan, unitId } from '../testing/trial';
import type { Entry } from './entry';
import { localDay } from './localDay';
import { deriveState } from './state';

const zones = [
  'Pacific/Auckland',
  'Europe/Berlin',
  'America/Los_Angeles',
  'Asia/Kolkata',
  'Pacific/Kiritimati',
];
const moment = fc.integer({ min: Date.UTC(2026, 0, 2), max: Date.UTC(2026, 11, 30) });
/** around the two nights on which Berlin's clock changes, to the second */
const nearChange = fc
  .tuple(
    fc.constantFrom(Date.UTC(2026, 2, 29, 1), Date.UTC(2026, 9, 25, 1)),
    fc.integer({ min: -90_000, max: 90_000 }),
  )
  .map(([at, s]) => at + s * 1000);
const wall = (zone: string, ms: number) =>
  new Intl.DateTimeFormat('en-CA', {
    timeZone: zone,
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
  }).format(ms);

describe('days in every zone', () => {
  it('a line’s day is what the calendar on the wall said', () => {
    fc.assert(
      fc.property(fc.constantFrom(...zones), fc.oneof(moment, nearChange), (zone, ms) => {
        const at = new Date(ms).toISOString();
        expect(localDay({ at, offsetMin: offsetAt(zone, ms) })).toBe(wall(zone, ms));
      }),
    );
  });
  it('a day of the trial and its date are each other’s, over every change of the clock', () => {
    fc.assert(
      fc.property(fc.integer({ min: -400, max: 800 }), moment, (day, ms) => {
        const start = new Date(ms).toISOString().slice(0, 10);
        const date = dateOfDay(start, day);
        expect(dayOfDate(start, date)).toBe(day);
        expect(Date.parse(`${date}T00:00:00Z`) - Date.parse(`${start}T00:00:00Z`)).toBe(day * 86_400_000);
      }),
    );
  });
});

describe('two devices hours apart, and one whose clock is wrong', () => {
  const p = { ...plan({ treatments: ['Water', 'A'], replicates: 2 }), startDate: '2026-03-01' };
  const line = (ms: number, zone: string, n: number): Entry => ({
    ...entry({ kind: 'measurement', unitId: unitId('A', 0), traitId: p.traits[0]!.id, roundId: null, sample: null, value: n } as never, `l${n}`), // prettier-ignore
    ...{
      at: new Date(ms).toISOString(),
      recordedAt: new Date(ms).toISOString(),
      offsetMin: offsetAt(zone, ms),
    },
    ...{ counter: n, device: zone },
  });
  it('merged in any order every value has the day where it was taken, and the last written stands last', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.oneof(moment, nearChange), fc.constantFrom(...zones)), {
          minLength: 1,
          maxLength: 8,
        }),
        fc.infiniteStream(fc.nat()),
        (takes, draw) => {
          const lines = takes.map(([ms, zone], i) => line(ms, zone, i + 1));
          const order = [...lines].sort(() => (draw.next().value % 2 === 0 ? 1 : -1));
          const [one, other] = [deriveState(p, lines), deriveState(p, order)];
          expect(JSON.stringify(other.observations)).toBe(JSON.stringify(one.observations));
          for (const [i, [ms, zone]] of takes.entries()) {
            const own = one.entries.find((e) => e.id === `l${i + 1}`)!;
            expect(localDay(own)).toBe(wall(zone, ms));
          }
        },
      ),
    );
  });
  it('what is due goes by the date on the wall here, not by anybody’s clock in the log', () => {
    const wrong = [
      line(Date.UTC(2027, 2, 1), 'Europe/Berlin', 1),
      line(Date.UTC(2026, 1, 1), 'Asia/Kolkata', 2),
    ];
    const due = (log: readonly Entry[]) => roundProgress(deriveState(p, log), '2026-03-01').map((r) => [r.round.id, r.date]); // prettier-ignore
    expect(due(wrong)).toEqual(due([]));
  });
});
