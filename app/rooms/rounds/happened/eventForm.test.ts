import { describe, expect, it } from 'vitest';
import type { UnitId } from '~core/model/ids';
import { fieldErrors } from '../../../form/schemaFields';
import { UNFINISHED } from '../../../ui/day/whole';
import { type EventTyped, eventKinds, eventOf } from './eventForm';

const today = '2026-06-20';
const typed: EventTyped = {
  ...{ kind: 'other', text: 'A cat.', treatmentId: '', into: '', minutes: '', date: today, time: '' },
};
const [a, b] = ['a', 'b'] as unknown as UnitId[];
const read = (over: Partial<EventTyped>, units: UnitId[] = []) =>
  eventOf(units, '2026-06-01', today).safeParse({ ...typed, ...over });
const sent = (over: Partial<EventTyped>, units?: UnitId[]) => read(over, units).data;
const wrong = (over: Partial<EventTyped>, units?: UnitId[]) => fieldErrors(read(over, units).error!);

describe('what happened', () => {
  it('is sent as what it is', () => {
    expect(sent({})).toEqual({ body: { kind: 'deviation', unitIds: [], what: 'other', text: 'A cat.' } });
    expect(sent({ kind: 'death', text: '' }, [a!])).toEqual({
      bodies: [{ kind: 'death', unitId: 'a', sample: null, cause: '' }],
    });
    expect(sent({ kind: 'work', minutes: '12,5' })).toEqual({
      body: { kind: 'work', task: 'A cat.', minutes: 12.5, unitIds: [] },
    });
    expect(sent({ kind: 'split', into: '3' }, [a!])).toEqual({
      bodies: [{ kind: 'split', unitId: 'a', into: 3, reason: 'A cat.' }],
    });
    expect(sent({ kind: 'extraUnit', treatmentId: 'water' })).toEqual({
      extraUnit: { treatmentId: 'water', reason: 'A cat.' },
    });
    expect(sent({ kind: 'mixedUp' }, [a!, b!])).toEqual({
      body: { kind: 'mixedUp', unitIds: ['a', 'b'], reason: 'A cat.' },
    });
  });
  it('at another moment than now says which', () => {
    expect(sent({ date: '2026-06-18' })).toMatchObject({ when: { date: '2026-06-18', time: '12:00' } });
    expect(sent({ time: '07:30' })).toMatchObject({ when: { date: today, time: '07:30' } });
  });
  it('says at its field what is missing', () => {
    expect(wrong({ text: ' ' })).toEqual({ text: 'Write down in a few words what happened.' });
    expect(wrong({ kind: 'work', text: '', minutes: '1,250' })).toEqual({
      text: 'What was done?',
      minutes: '“1,250” can be read as 1.250 or as 1250: write the one you mean.',
    });
    expect(wrong({ kind: 'work', minutes: '1441' })).toEqual({
      minutes: 'Minutes, above 0 and at most 1,440.',
    });
    expect(wrong({ kind: 'mixedUp' }, [a!])).toEqual({
      units: 'Press all that can be each other: two or more.',
    });
    expect(wrong({ kind: 'extraUnit' })).toEqual({ treatmentId: 'Of which contender?' });
    expect(wrong({ kind: 'split', into: '1' }, [a!])).toEqual({ into: 'A whole number from 2 to 100.' });
    expect(wrong({ date: '2026-06-21' })).toEqual({ date: 'That day is still to come.' });
    expect(wrong({ date: '2026-04-01' }).date).toMatch(/The trial began on/);
    expect(wrong({ date: UNFINISHED })).toEqual({ date: 'A whole day.' });
    expect(wrong({ time: UNFINISHED })).toEqual({ time: 'Hours and minutes, or neither.' });
  });
  it('has fields for every kind that can be chosen', () => {
    const all = { minutes: '5', into: '2', treatmentId: 'water' };
    for (const [kind] of eventKinds) expect(read({ ...all, kind }, [a!, b!]).success, kind).toBe(true);
  });
});
