import { describe, expect, it } from 'vitest';
import { SeasonForm, slotsOf } from './seasonForm';

const typed = {
  ...{ goal: 'best', products: ['A', 'B'], withNothing: true, a: '', b: '', crop: 'cress' },
  ...{ areas: [{ name: 'Shelf', places: '18' }], startDate: '2026-03-02', weeks: '13', trialWeeks: '5' },
  ...{ hands: '', arms: '6', budget: '', solution: '' },
};
const read = (over: object = {}) => SeasonForm.safeParse({ ...typed, ...over });
const faults = (over: object) => {
  const made = read(over);
  return made.success ? [] : made.error.issues.map((i) => [i.path.join('.'), i.message]);
};

describe('what is asked of a season', () => {
  it('is read as it is typed, decimal commas too', () => {
    expect(read({ budget: '12,50' }).data).toMatchObject({ budget: 12.5, hands: null, arms: 6 });
  });
  it.each([
    [{ products: ['A'] }, 'products', 'Two products at least.'],
    [{ goal: 'pair', a: 'A', b: 'A' }, 'b', 'Two that differ.'],
    [{ goal: 'crop', a: 'A', crop: '' }, 'crop', 'On which crop?'],
    [{ goal: 'crop', a: '' }, 'a', 'Which one?'],
    [{ trialWeeks: '14' }, 'trialWeeks', 'Longer than the season: no trial would end in it.'],
    [{ areas: [{ name: '', places: '18' }] }, 'areas.0.name', 'What is it called?'],
    [{ areas: [{ name: 'Shelf', places: '' }] }, 'areas.0.places', 'How many fit?'],
    [{ startDate: 'soon' }, 'startDate', 'A day.'],
    [{ arms: '1' }, 'arms', 'Two at least.'],
  ])('%j is said at %s', (over, path, message) => {
    expect(faults(over)).toContainEqual([path, message]);
  });
});

describe('stretches of an area', () => {
  const slots = (over: object) => slotsOf(read(over).data!);
  it('follow each other with a week between, none beyond the season', () => {
    expect(slots({}).map((s) => [s.startDate, s.endDate])).toEqual([
      ['2026-03-02', '2026-04-06'],
      ['2026-04-13', '2026-05-18'],
    ]);
    expect(slots({ weeks: '5' })).toHaveLength(1);
    expect(slots({ weeks: '11' })).toHaveLength(2);
    expect(slots({ weeks: '10' })).toHaveLength(1);
  });
  it('share the hands there are', () => {
    const two = [
      { name: 'Shelf', places: '18' },
      { name: 'Bench', places: '30' },
    ];
    expect(slots({ areas: two, weeks: '5', hands: '40' }).map((s) => [s.area, s.places])).toEqual([
      ['Shelf', 18],
      ['Bench', 20],
    ]);
  });
});
