import { describe, expect, it, vi } from 'vitest';
import { drawnOnce } from './drawnOnce';

describe('a picture of the review', () => {
  const draw = vi.fn<() => Promise<string>>();
  let n = 0;
  draw.mockImplementation(() => Promise.resolve(`picture ${++n}`));

  it('is drawn once for what it shows, and anew when that changes', async () => {
    expect(await drawnOnce('height', { values: [1, 2] }, draw)).toBe('picture 1');
    expect(await drawnOnce('height', { values: [1, 2] }, draw)).toBe('picture 1');
    expect(await drawnOnce('height', { values: [1, 3] }, draw)).toBe('picture 2');
    expect(await drawnOnce('height', { values: [1, 2] }, draw)).toBe('picture 3');
    expect(draw).toHaveBeenCalledTimes(3);
  });
  it('isn’t another’s, though that shows the same', async () => {
    expect(await drawnOnce('weight', { values: [1, 2] }, draw)).toBe('picture 4');
  });
  it('that failed is tried again', async () => {
    draw.mockImplementationOnce(() => Promise.reject(new Error('no canvas')));
    await expect(drawnOnce('taste', [], draw)).rejects.toThrow('no canvas');
    expect(await drawnOnce('taste', [], draw)).toBe('picture 5');
  });
});
