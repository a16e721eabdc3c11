import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { elements, microElements } from '~core/model/element';
import { usMeasures } from '~core/quantity/units';
import { elementList } from './elementList';
import { figuresIn } from './Framed';
import {
  fieldErrors,
  fieldText,
  nameList,
  optionalNumber,
  optionalSize,
  orNull,
  orUnsaid,
  shownIn,
  ticked,
  typedNumber,
  unsaidNumber,
  usually,
} from './schemaFields';

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

describe('a field says once how it is typed and how it is shown', () => {
  const Form = z.object({
    dose: typedNumber('How much?').pipe(z.number().positive('More than 0.')),
    limit: optionalNumber(),
    lamp: unsaidNumber(z.number().nullable().optional()),
    area: optionalSize('area', { inches: true, measures: usMeasures }),
    names: nameList(5, 'Up to five.'),
    dead: ticked(),
    role: ticked('height'),
    per: usually(z.enum(['plant', 'area']).optional(), 'unit', z.enum(['unit', 'plant', 'area'])),
    pack: orNull(z.string().min(3)),
    shop: orUnsaid(z.string().min(3)),
  });
  const empty = {
    ...{ dose: '1', limit: '', lamp: '', area: '', names: '', dead: false, role: false },
    ...{ per: 'unit' as const, pack: '', shop: '' },
  };
  it('what a record leaves out is shown empty, and is left out again', () => {
    const record = { dose: 1, limit: null, area: null, names: [], pack: null };
    expect(shownIn(Form, record)).toEqual(empty);
    expect(JSON.parse(JSON.stringify(Form.parse(empty)))).toEqual(record);
  });
  it('what is shown reads as what was kept, whatever that is', () => {
    const number = fc.double({ noNaN: true, noDefaultInfinity: true }).map((x) => (Object.is(x, -0) ? 0 : x));
    const said = fc.string({ minLength: 3 }).map((t) => t.replace(/\s/g, '_'));
    const record = fc.record(
      {
        dose: fc.double({ min: 1e-9, max: 1e9, noNaN: true }),
        limit: fc.option(number),
        lamp: number,
        area: fc.constantFrom(null, 929.0304, 8361.2736, 12, 0.5),
        names: fc.uniqueArray(fc.stringMatching(/^[a-z]{1,9}$/), { maxLength: 5 }),
        dead: fc.constant(true as const),
        role: fc.constant('height' as const),
        per: fc.constantFrom('plant' as const, 'area' as const),
        pack: fc.option(said),
        shop: said,
      },
      { requiredKeys: ['dose', 'limit', 'area', 'names', 'pack'] },
    );
    fc.assert(
      fc.property(record, (kept) => {
        expect(Form.parse(shownIn(Form, kept))).toEqual(kept);
      }),
    );
  });
  it('is shown also where it was kept by other rules; what is typed is held to them', () => {
    const record = { dose: -2, limit: null, area: null, names: [], pack: 'x' };
    const shown = shownIn(Form, record);
    expect(shown).toMatchObject({ dose: '-2', pack: 'x' });
    expect(fieldErrors(Form.safeParse(shown).error!)).toEqual({
      dose: 'More than 0.',
      pack: expect.any(String),
    });
  });
});

it('figures typed place by place are read or said, each by its key', () => {
  const { figures, faults } = figuresIn({ a: '1.5', b: '', c: '1,250', d: 'x' }, optionalNumber());
  expect([...figures]).toEqual([['a', 1.5]]);
  expect([...faults]).toEqual([
    ['c', '“1,250” can be read as 1.250 or as 1250: write the one you mean.'],
    ['d', '“x” isn’t a number.'],
  ]);
});
