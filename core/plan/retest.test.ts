import { expect, it } from 'vitest';
import type { TrialId } from '../model/ids';
import { Plan } from '../model/plan';
import { plan } from '../testing/trial';
import { retestOf } from './retest';

const first = { ...plan({ treatments: ['Water', 'A', 'B'], replicates: 4 }), prediction: 'A wins.' };
const begun = { id: 'again' as TrialId, code: 'AGA', startDate: '2026-06-01' };

it('keeps question, contenders, traits and rounds; is laid out anew and linked', () => {
  const again = retestOf(first, begun, { cvPercent: 9.37, replicates: 11 });
  expect(Plan.safeParse(again).success).toBe(true);
  expect(again).toMatchObject({
    ...begun,
    retestOf: 'trial',
    cvPercent: 9.4,
    units: [],
    accepted: [],
    prediction: '',
  });
  expect(again.treatments).toEqual(first.treatments);
  expect(again.design).toMatchObject({ replicates: 11, seed: 2 });
});
it('takes no fewer units than before, and nothing is learned from nothing', () => {
  expect(retestOf(first, begun, { cvPercent: null, replicates: 2 }).design!.replicates).toBe(4);
  expect(retestOf({ ...first, cvPercent: 12 }, begun, { cvPercent: null, replicates: null }).cvPercent).toBe(
    12,
  );
});
it('drops contenders, never the control', () => {
  const again = retestOf(first, begun, { cvPercent: null, replicates: null, drop: new Set(['Water', 'B']) });
  expect(again.treatments.map((t) => t.name)).toEqual(['Water', 'A']);
});
