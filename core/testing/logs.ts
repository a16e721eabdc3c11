import fc from 'fast-check';
import type { Entry } from '../log/entry';
import type { TraitId, UnitId } from '../model/ids';
import { entry, height, unitId, weighing } from './trial';

/** Logs for property tests. */

export const correction = (supersedes: string, value: number | null, unit: UnitId = unitId('Water', 0)) => ({
  kind: 'correction',
  supersedes,
  replacement: value === null ? null : height(unit, value),
  reason: 'slip',
});

/** Lines of several kinds, and corrections of anything earlier, corrections of corrections included. */
export const anyLog: fc.Arbitrary<Entry[]> = fc
  .array(
    fc.record({
      target: fc.nat(30),
      value: fc.option(fc.nat(99)),
      kind: fc.constantFrom(
        'height',
        'height',
        'weight',
        'correction',
        'correction',
        'death',
        'note',
        'move',
      ),
      second: fc.nat(8),
      round: fc.constantFrom('r1', 'r2', null),
      unit: fc.nat(3),
    }),
    { maxLength: 25 },
  )
  .map((steps) =>
    steps.map(({ target, value, kind, second, round, unit }, i) => {
      const own = unitId(unit === 3 ? 'Nobody' : 'Water', unit);
      const body =
        kind === 'correction' && i > 0
          ? correction(`e${target % i}`, value)
          : kind === 'weight'
            ? weighing(own, value ?? 1, { roundId: round })
            : kind === 'death'
              ? { kind, unitId: own, sample: value === null ? null : 1, cause: '' }
              : kind === 'note'
                ? { kind, unitId: own, text: 'seen', traitId: 'height' as TraitId }
                : kind === 'move'
                  ? { kind, moves: [{ unitId: own, to: { areaId: 'shelf', row: 0, column: 0 } }], reason: '' }
                  : { ...height(own, value ?? 1), roundId: round };
      return entry(body, `e${i}`, second);
    }),
  );

/** The same log in another order of arrival. */
export const shuffled = (log: Entry[]) =>
  fc.array(fc.nat(), { minLength: log.length, maxLength: log.length }).map((keys) =>
    log
      .map((e, i) => [keys[i]!, e] as const)
      .sort((a, b) => a[0] - b[0])
      .map(([, e]) => e),
  );
