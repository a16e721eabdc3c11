import { describe, expect, it } from 'vitest';
import { paper } from '../picture/paper';
import { svgOf } from '../picture/shapes';
import { socialPicture, wrapped } from './socialPicture';

const input = {
  question: 'Does a dearer feed earn its price?',
  sentence: 'Only Bosco beat Water.',
  lines: Array.from({ length: 12 }, (_, i) => ({ name: `<C${i}>`, index: i, figure: `${60 - i} g` })),
  small: 'Cut weight, 20 trays',
};

describe('the picture for a post', () => {
  it.each([
    ['wide', 1200, 630],
    ['square', 1080, 1080],
  ] as const)(
    '%s: nothing stands below its edge, whatever the number of contenders',
    (shape, width, height) => {
      const svg = svgOf(socialPicture(input, shape), paper);
      expect(svg).toContain(`width="${width}" height="${height}"`);
      for (const [, y] of svg.matchAll(/<text x="[\d.]+" y="([\d.]+)"/g))
        expect(Number(y)).toBeLessThan(height - 20);
      expect(svg).toContain('Only Bosco beat Water.');
      expect(svg).not.toContain('<C0>');
    },
  );
  it('long sentences are broken, and end in … where they must', () => {
    expect(wrapped('one two three four', 9, 3)).toEqual(['one two', 'three', 'four']);
    expect(wrapped('one two three four five', 9, 2)).toEqual(['one two', 'three …']);
  });
});
