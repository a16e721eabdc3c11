import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import { entry, plan, unitId } from '../testing/trial';
import { contactSheet, photoBlocks } from './contactSheet';

const p = plan({ treatments: ['Water', 'A'], replicates: 2 });
let n = 0;
const photo = (unit: ReturnType<typeof unitId>, day: number) => {
  n += 1;
  return {
    ...entry(
      {
        ...{ kind: 'photo', unitId: unit, file: 'x.jpg', caption: '', width: 4, height: 3 },
        sha256: String(n).padStart(64, '0'),
      },
      `photo-${n}`,
    ),
    at: new Date(Date.parse(`${p.startDate}T10:00:00Z`) + day * 86_400_000).toISOString(),
    offsetMin: 0,
  };
};
const [w0, a0, a1] = [unitId('Water', 0), unitId('A', 0), unitId('A', 1)];

describe('the contact sheet', () => {
  it('follows the unit of each that was photographed most, on days on which there is something to compare', () => {
    const log = [photo(w0, 3), photo(a0, 3), photo(w0, 10), photo(a1, 10), photo(a0, 10), photo(w0, 12)];
    const rows = contactSheet(deriveState(p, log));
    const code = (id: string) => p.units.find((u) => u.id === id)!.code;
    expect(rows.map((r) => [r.day, ...r.cells.map((c) => c.code)])).toEqual([
      [3, code(w0), code(a0)],
      [10, code(w0), code(a0)],
    ]);
    const [, figure] = photoBlocks(deriveState(p, log));
    expect(figure).toMatchObject({
      alt: 'Photos of one tray of each contender on days 3 and 10: Water and A.',
    });
  });
  it('takes four days at most, the first and the last among them', () => {
    const days = [1, 2, 3, 5, 8, 13, 21, 34];
    const log = days.flatMap((d) => [photo(w0, d), photo(a0, d)]);
    const shown = contactSheet(deriveState(p, log)).map((r) => r.day);
    expect(shown).toHaveLength(4);
    expect([shown[0], shown[3]]).toEqual([1, 34]);
  });
  it('there is none where one contender alone was photographed', () => {
    expect(photoBlocks(deriveState(p, [photo(w0, 3), photo(w0, 10)]))).toEqual([]);
    expect(photoBlocks(deriveState(p, []))).toEqual([]);
  });
  it('a balanced picture is said', () => {
    const one = photo(w0, 3);
    const log = [
      one,
      photo(a0, 3),
      entry({ kind: 'balance', photoId: one.id, x: 0.1, y: 0.1, gains: [0.9, 1, 1.1] }),
    ];
    expect(photoBlocks(deriveState(p, log))[1]).toMatchObject({
      caption: expect.stringContaining('grey card'),
    });
  });
});
