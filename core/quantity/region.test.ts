// Dates and decimal marks as CLDR has them for the locales (the runtime's own tables).
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { formatMoney } from './money';
import { formatFigure, formatP, formatSigned } from './format';
import { figureRegionIds, formatDay, inFigures, setFigures } from './region';

describe('figures by region', () => {
  it.each([
    ['plain', '−12.5', '+0.3', '0.049', '2026-11-27', '€12.50'],
    ['en-GB', '−12.5', '+0.3', '0.049', '27 Nov 2026', '€12.50'],
    ['en-US', '−12.5', '+0.3', '0.049', 'Nov 27, 2026', '€12.50'],
    ['de-DE', '−12,5', '+0,3', '0,049', '27.11.2026', '12,50 €'],
    ['de-CH', '−12.5', '+0.3', '0.049', '27.11.2026', 'EUR 12.50'],
    ['fr-FR', '−12,5', '+0,3', '0,049', '27/11/2026', '12,50 €'],
    ['sv-SE', '−12,5', '+0,3', '0,049', '2026-11-27', '12,50 €'],
  ] as const)('%s', (region, figure, signed, p, day, money) => {
    inFigures(region, () => {
      expect(formatFigure(-12.5, 1)).toBe(figure);
      expect(formatSigned(0.3, 1)).toBe(signed);
      expect(formatP(0.049)).toBe(p);
      expect(formatDay('2026-11-27')).toBe(day);
      // Spaces that don't break count as spaces.
      expect(formatMoney({ minor: 1250, currency: 'EUR' }).replace(/\s/g, ' ')).toBe(money);
    });
  });
  it('each offers what its name shows, and differs from none by name', () => {
    const names = figureRegionIds.map((id) =>
      inFigures(id, () => `${formatFigure(12.5, 1)} · ${formatDay('2026-11-27')}`),
    );
    expect(names).toEqual([...new Set(names)]);
  });
  it('goes back to the former way, also after a fault', () => {
    setFigures('fr-FR');
    expect(() =>
      inFigures('en-GB', () => {
        throw new Error('broken');
      }),
    ).toThrow('broken');
    expect(formatFigure(1.5, 1)).toBe('1,5');
    setFigures('plain');
  });
  it('the same figure stands in every region, and words aren’t taken for days', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1e6, max: 1e6, noNaN: true }),
        fc.constantFrom(...figureRegionIds),
        (x, region) => {
          const said = inFigures(region, () => formatFigure(x, 3));
          expect(said.replace(',', '.')).toBe(inFigures('plain', () => formatFigure(x, 3)));
        },
      ),
    );
    expect(inFigures('de-DE', () => formatDay('some day'))).toBe('some day');
  });
});
