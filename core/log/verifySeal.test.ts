import { describe, expect, it } from 'vitest';
import { planSha256, sha256Of } from '../plan/seal';
import { planAsVersion2, planAsVersion3 } from '../testing/olderFiles';
import { plan } from '../testing/trial';
import { sayBrokenSeal, verifySeal } from './verifySeal';

const p = plan();
const sealOf = (value: unknown) => ({ planSha256: sha256Of(value) });

describe('a seal against its plan', () => {
  it('holds for the plan that was sealed, and says nothing', () => {
    const check = verifySeal(p, { planSha256: planSha256(p) }, null);
    expect(check).toEqual({ tag: 'holds' });
    expect(sayBrokenSeal(check)).toBeNull();
    expect(verifySeal(p, null, null)).toEqual({ tag: 'unsealed' });
  });
  it('is broken by a changed prediction, and says so with both hashes', () => {
    const seal = { planSha256: planSha256(p) };
    const changed = { ...p, prediction: 'I always knew.' };
    const check = verifySeal(changed, seal, null);
    expect(check).toEqual({ tag: 'broken', sealed: seal.planSha256, found: planSha256(changed) });
    expect(sayBrokenSeal(check)).toContain(seal.planSha256.slice(0, 16));
    expect(sayBrokenSeal(check)).toMatch(/isn’t the one that was sealed/);
  });
  it.each([
    [2, planAsVersion2(planForOlder())],
    [3, planAsVersion3(planForOlder())],
  ])('made in file version %i holds by the copy kept in those words', (version, old) => {
    const now = planForOlder();
    expect(verifySeal(now, sealOf(old), { version, plan: old })).toEqual({ tag: 'holds' });
    // without the copy nothing can vouch for it
    expect(verifySeal(now, sealOf(old), null).tag).toBe('broken');
  });
  it('is broken where the copy is right and the plan of now isn’t what came of it', () => {
    const old = planAsVersion3(p);
    const changed = { ...p, winning: 'Mine.' };
    expect(verifySeal(changed, sealOf(old), { version: 3, plan: old }).tag).toBe('broken');
  });
  it('is broken where the copy was changed along with the plan', () => {
    const changed = { ...p, winning: 'Mine.' };
    const copy = planAsVersion3(changed);
    expect(verifySeal(changed, sealOf(planAsVersion3(p)), { version: 3, plan: copy }).tag).toBe('broken');
  });
});

/** A plan with a field whose words changed between the versions. */
function planForOlder() {
  return { ...p, matchedOn: 'element' as const };
}
