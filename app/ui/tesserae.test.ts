// Contrast: WCAG 2.2, relative luminance and contrast ratio; AA wants 4.5 for text, 3 for graphics.
import { describe, expect, it } from 'vitest';
import { day, night } from './colours';
import { tesseraStyle } from './tesserae';

const palette = (mode: 'light' | 'dark'): Map<string, string> =>
  new Map(Object.entries(mode === 'light' ? day : night).map(([name, value]) => [`--${name}`, value]));

function luminance(hex: string): number {
  const [r, g, b] = [1, 3, 5].map((i) => {
    const c = Number.parseInt(hex.slice(i, i + 2), 16) / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
}
function contrast(a: string, b: string): number {
  const [high, low] = [luminance(a), luminance(b)].sort((x, y) => y - x);
  return (high! + 0.05) / (low! + 0.05);
}

it('the measure itself: black on white is 21, the palette’s ink on plaster far above 4.5', () => {
  expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 9);
  // a pair that WCAG’s examples give as just below AA
  expect(contrast('#777777', '#ffffff')).toBeCloseTo(4.48, 2);
});

describe.each(['light', 'dark'] as const)('the %s palette', (mode) => {
  const of = palette(mode);
  const grounds = ['--plaster', '--sheet', '--sunk'].map((g) => of.get(g)!);
  it.each(['--ink', '--soft', '--lapis', '--terracotta', '--porphyry', '--ochre-text', '--verdigris'])(
    '%s can be read as text on every ground',
    (name) => {
      for (const ground of grounds) expect(contrast(of.get(name)!, ground)).toBeGreaterThanOrEqual(4.5);
    },
  );
  it.each(Array.from({ length: 8 }, (_, i) => [i]))('tile %d stands off every ground', (i) => {
    for (const ground of grounds) {
      expect(contrast(of.get(tesseraStyle(i).colour)!, ground)).toBeGreaterThanOrEqual(3);
    }
  });
});

describe('tiles', () => {
  it('the first eight differ in colour and in pattern, so each reads without the other', () => {
    const styles = Array.from({ length: 8 }, (_, i) => tesseraStyle(i));
    expect(new Set(styles.map((s) => s.colour)).size).toBe(8);
    expect(new Set(styles.map((s) => s.path)).size).toBe(8);
  });
  it('none of 40 is like another', () => {
    const styles = Array.from({ length: 40 }, (_, i) => tesseraStyle(i));
    expect(new Set(styles.map((s) => `${s.colour} ${s.pattern}`)).size).toBe(40);
  });
});
