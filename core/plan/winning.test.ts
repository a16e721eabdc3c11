import { expect, it } from 'vitest';
import { heightTrait, plan } from '../testing/trial';
import { winningBy } from './winning';

it('says the trait, its direction, and what stands beside it; names nothing that isn’t in the plan', () => {
  const fed = plan({ treatments: ['Water', 'Bosco'], traits: [heightTrait({ direction: 'higher' })] });
  const words = (over: object) => winningBy({ ...fed, ...over });
  expect(words({})).toBe('Height decides: more is better, held against Water.');
  const equals = fed.treatments.map((t) => ({ ...t, role: 'test' as const }));
  expect(words({ treatments: equals })).toBe('Height decides: more is better, held against each other.');
  expect(words({ traits: [heightTrait({ direction: 'lower' })] })).toContain(': less is better,');
  expect(words({ primaryTraitId: null })).toBe('');
});
