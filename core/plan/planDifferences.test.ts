import { describe, expect, it } from 'vitest';
import { plan, trait } from '../testing/trial';
import { planDifferences } from './planDifferences';

describe('two copies of a plan side by side', () => {
  const mine = plan();
  it('say nothing where they agree', () => {
    expect(planDifferences(mine, structuredClone(mine))).toEqual([]);
  });
  it('say what stands otherwise, in words and by name', () => {
    const theirs = {
      ...mine,
      startDate: '2026-03-04',
      prediction: '',
      treatments: [mine.treatments[0]!, { ...mine.treatments[1]!, notes: 'twice the dose' }],
      traits: [...mine.traits, trait({ id: 'x' as never, name: 'Taste' })],
      primaryTraitId: mine.traits[1]!.id,
    };
    expect(planDifferences(mine, theirs)).toEqual([
      { what: 'Prediction', mine: 'Yes.', theirs: 'nothing' },
      { what: 'Start', mine: '2026-03-01', theirs: '2026-03-04' },
      { what: 'What decides', mine: 'Cut weight', theirs: 'Height' },
      { what: 'What is measured', mine: 'Cut weight, Height', theirs: 'Cut weight, Height, Taste' },
      { what: 'Contenders', mine: 'Water, A (otherwise)', theirs: 'Water, A (otherwise)' },
    ]);
  });
  it('a long list is cut, and a design is told by its figures', () => {
    const more = plan({ treatments: ['Water', 'A', 'B', 'C', 'D'] });
    const units = planDifferences(mine, more).find((d) => d.what === 'Layout')!;
    expect(units.theirs).toMatch(/ and 3 more$/);
    const drawn = planDifferences(mine, { ...mine, design: { ...mine.design!, seed: 9 } });
    expect(drawn).toEqual([
      { what: 'Design', mine: 'kind crd, replicates 3, seed 1', theirs: 'kind crd, replicates 3, seed 9' },
    ]);
  });
});
