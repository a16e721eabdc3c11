import { describe, expect, it } from 'vitest';
import type { TrialId } from '../model/ids';
import { Plan } from '../model/plan';
import { plan } from '../testing/trial';
import { copyOf, freeCode } from './copy';
import { retestOf } from './retest';

const begun = { id: 'next' as TrialId, code: 'NXT', startDate: '2026-05-01' };

describe('another trial like it', () => {
  const first = plan({ treatments: ['Water', 'A'], replicates: 3 });
  const copy = copyOf(first, begun);
  it('has the plan, and nothing of what happened or where it stood', () => {
    expect(copy).toMatchObject({ ...begun, question: first.question, units: [], prediction: '' });
    expect(copy.treatments).toEqual(first.treatments);
    expect(copy.design?.seed).not.toBe(first.design?.seed);
    expect(() => Plan.parse(copy)).not.toThrow();
  });
  it('isn’t linked, also where the first one was a retest', () => {
    expect(copy.retestOf).toBeUndefined();
    const again = retestOf(first, begun, { cvPercent: 9, replicates: 5 });
    expect(copyOf(again, { ...begun, id: 'third' as TrialId }).retestOf).toBeUndefined();
    expect(again.retestOf).toBe(first.id);
  });
});

describe('a code nobody has', () => {
  it.each([
    ['PAR', 'CRE', ['CRX'], 'CRE'],
    ['PAR', 'CRE', ['CRE'], 'PAA'],
    ['PAR', '', ['PAA', 'PAB'], 'PAC'],
  ])('%s, proposed %s, taken %s: %s', (code, proposed, taken, free) =>
    expect(freeCode(code, proposed, taken)).toBe(free),
  );
  it('when all that begin with two letters are taken, any that begins with the first', () => {
    const taken = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'].map((l) => `PA${l}`);
    expect(freeCode('PAR', '', taken)).toBe('PBA');
  });
});
