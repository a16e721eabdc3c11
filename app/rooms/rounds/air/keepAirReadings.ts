import type { AreaId } from '~core/model/ids';
import type { Plan } from '~core/model/plan';
import { planIndex } from '~core/plan/planIndex';
import { describeChangeError } from '../../../store/errors';
import { appendEntries } from '../../../store/trials';

export type AirQuantity = 'temperature' | 'humidity' | 'light';

/**
 * Writes down what a hand-held instrument said of a place.
 * @param areaId null: the bench
 * @returns what was wrong; null when it is kept
 */
export async function keepAirReadings(
  plan: Plan,
  areaId: AreaId | null,
  read: readonly { quantity: AirQuantity; value: number }[],
  instrument: string,
): Promise<string | null> {
  const subject = areaId === null ? 'the bench' : (planIndex(plan).area(areaId)?.name ?? 'an area');
  const written = await appendEntries(
    plan.id,
    read.map(({ quantity, value }) => ({
      kind: 'reading' as const,
      quantity,
      value,
      subject: subject.slice(0, 80),
      unitId: null,
      treatmentId: null,
      ...(areaId && { areaId }),
      instrument: instrument.slice(0, 80),
    })),
  );
  return written.ok ? null : describeChangeError(written.error);
}
