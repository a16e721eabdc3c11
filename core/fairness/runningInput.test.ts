import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import type { AreaId, ProductId } from '../model/ids';
import type { Plan } from '../model/plan';
import { inFigures } from '../quantity/region';
import { entry, plan as somePlan } from '../testing/trial';
import { audit } from './audit';
import { runningInput } from './runningInput';

/** Water below, A above, a logger in each. */
function twoPlaces(): Plan {
  const base = somePlan({ treatments: ['Water', 'A'], replicates: 3 });
  const upper = 'upper' as AreaId;
  return {
    ...base,
    areas: [...base.areas, { ...base.areas[0]!, id: upper, name: 'Upper' }],
    units: base.units.map((u) =>
      u.treatmentId === base.treatments[1]!.id ? { ...u, position: { ...u.position, areaId: upper } } : u,
    ),
  };
}

const logger = (areaId: AreaId, mean: number, unit: string) =>
  entry(
    {
      ...{
        kind: 'series',
        seriesId: `s-${areaId}`,
        name: `logger ${areaId}`,
        unitId: null,
        treatmentId: null,
      },
      ...{
        areaId,
        rows: 100,
        from: '2026-05-01T00:00:00Z',
        to: '2026-05-03T00:00:00Z',
        sha256: 'a'.repeat(64),
      },
      columns: [{ name: 'T', unit, quantity: 'temperature', mean }],
    },
    `log-${areaId}`,
  );

const quiet = { labelsPrinted: true, disclosure: '', me: '', ecByTreatment: new Map<string, number>() };
const airFound = (plan: Plan, log: ReturnType<typeof logger>[]) =>
  audit({ plan, ...quiet, ...runningInput(deriveState(plan, log)) }).find(
    (f) => f.ruleId === 'not-the-same-air',
  )?.found;

describe('loggers of two places', () => {
  const plan = twoPlaces();
  const lower = plan.areas[0]!.id;
  const upper = 'upper' as AreaId;
  it('that are as warm aren’t told apart, whatever degrees each writes', () => {
    expect(airFound(plan, [logger(lower, 22, '°C'), logger(upper, 71.6, '°F')])).toBeUndefined();
  });
  it('that differ are told in the degrees of the reader', () => {
    const log = [logger(lower, 22, '°C'), logger(upper, 75.2, '°F')];
    expect(airFound(plan, log)).toContain('temperature: A 24.0, Water 22.0 °C on average');
    expect(inFigures('en-US', () => airFound(plan, log))).toContain('A 75.2, Water 71.6 °F on average');
  });
});

describe('batches', () => {
  const plan = somePlan({ treatments: ['Water', 'A'], replicates: 3 });
  const mixed = (batch: string, amount: number, wanted?: number) =>
    entry(
      {
        kind: 'mix',
        treatmentId: plan.treatments[1]!.id,
        batch,
        volumeL: 2.2,
        amounts: [
          { productId: 'P' as ProductId, amount, unit: 'mL', ...(wanted !== undefined && { wanted }) },
        ],
      },
      batch,
    );
  const found = (log: ReturnType<typeof entry>[]) =>
    audit({ plan, ...quiet, ...runningInput(deriveState(plan, log)) }).find(
      (f) => f.ruleId === 'mixed-otherwise',
    )?.found;

  it('that were mixed as the recipe says, or before it was kept, are in order', () => {
    expect(found([mixed('A-d0', 4.4, 4.4), mixed('A-d7', 9)])).toBeUndefined();
  });
  it('that weren’t are named, until they are taken back', () => {
    const log = [mixed('A-d0', 4.4, 4.4), mixed('A-d7', 44, 4.4)];
    expect(found(log)).toContain('A-d7 (10 times as much)');
    const back = { kind: 'correction', supersedes: 'A-d7', replacement: null, reason: 'mistyped' };
    expect(found([...log, entry(back, 'back')])).toBeUndefined();
  });
});
