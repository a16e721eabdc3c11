import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { elements, microElements } from '~core/model/element';
import { elementList } from './elementList';
import { fieldErrors, fieldText, optionalNumber, typedNumber } from './schemaFields';

describe('a typed number', () => {
  const read = (text: string) => typedNumber('How much?').safeParse(text);
  it.each([
    ['2.64', 2.64],
    ['2,64', 2.64],
    [' 1000 ', 1000],
    ['-3', -3],
    ['−3', -3],
  ])('“%s”', (text, value) => expect(read(text).data).toBe(value));
  it.each([
    ['', 'How much?'],
    ['  ', 'How much?'],
    ['2 L', '“2 L” isn’t a number.'],
    ['1.2.3', '“1.2.3” isn’t a number.'],
  ])('“%s” is refused', (text, said) => expect(read(text).error!.issues[0]!.message).toBe(said));
  it('may stay empty where it is optional, and is shown again as it was', () => {
    expect(optionalNumber().parse('')).toBeNull();
    expect(optionalNumber().parse('0')).toBe(0);
    expect([fieldText(null), fieldText(0), fieldText(2.5)]).toEqual(['', '0', '2.5']);
  });
});

it('each field says its first fault, under its path', () => {
  const form = z.object({ lines: z.array(z.object({ amount: typedNumber('How much?') })), name: z.string() });
  const { error } = form.safeParse({ lines: [{ amount: '1' }, { amount: '' }], name: 3 });
  expect(fieldErrors(error!)).toEqual({ 'lines.1.amount': 'How much?', name: expect.any(String) });
});

describe('a list of elements', () => {
  const water = elementList(elements, 5000, 'mg/L.');
  it.each([
    ['Ca 40, Na 12', { Ca: 40, Na: 12 }],
    ['Ca 40,5, Na 12', { Ca: 40.5, Na: 12 }],
    ['Ca 40,Na 12', { Ca: 40, Na: 12 }],
    ['ca40; NA 1.5', { Ca: 40, Na: 1.5 }],
    ['', {}],
  ])('“%s”', (text, read) => expect(water.parse(text)).toEqual(read));
  it('a label prints per cents', () =>
    expect(elementList(microElements, 100, 'a per cent.').parse('Fe 0.1 %, Zn 0,02%')).toEqual({
      Fe: 0.1,
      Zn: 0.02,
    }));
  it.each(['Xx 3', 'Ca', '40', 'Ca 9000', 'Ca -1', 'calcium 40'])(
    '“%s” is refused with the part named',
    (text) => {
      const { error } = water.safeParse(`Na 1, ${text}`);
      expect(error!.issues[0]!.message).toBe(`“${text}” isn’t an element and mg/L.`);
    },
  );
});
