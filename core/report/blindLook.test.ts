import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import { emptyReview } from '../log/trial';
import { entry, plan, unitId } from '../testing/trial';
import { blindLook, blindLookHtml } from './blindLook';
import { chosenPhotoBlocks, chosenPhotos } from './chosenPhotos';
import type { SheetRow } from './contactSheet';
import { toHtml } from './html';
import { pageColours, pageColoursByNight } from '../picture/paper';

const row = (day: number, names: string[]): SheetRow => ({
  day,
  cells: names.map((name, i) => ({
    treatmentId: name,
    name,
    code: `TST-0${i}`,
    sha256: `${day}-${name}`,
    gains: null,
  })),
});
const rows = [row(3, ['Water', 'A']), row(9, ['Water', 'A', '<b>B</b>'])];

describe('a blind look', () => {
  it('takes the last day, a code for each, none twice, and the same again with the same seed', () => {
    const look = blindLook(rows, 7)!;
    expect(look.day).toBe(9);
    expect(look.photos.map((p) => p.name).sort()).toEqual(['<b>B</b>', 'A', 'Water']);
    expect(new Set(look.photos.map((p) => p.code)).size).toBe(3);
    expect(look.photos.every((p) => /^[1-9]\d\d$/.test(p.code))).toBe(true);
    expect(blindLook(rows, 7)).toEqual(look);
    expect(blindLook([], 7)).toBeNull();
  });
  it('is drawn: over many seeds each contender comes first about as often', () => {
    const first = { Water: 0, A: 0, '<b>B</b>': 0 };
    for (let seed = 0; seed < 600; seed++) first[blindLook(rows, seed)!.photos[0]!.name as 'A'] += 1;
    // Four standard errors of a third of 600.
    for (const n of Object.values(first))
      expect(Math.abs(n - 200)).toBeLessThan(4 * Math.sqrt(600 * (2 / 9)));
  });
  it('tells no name before the key, and names can’t become markup', () => {
    const html = blindLookHtml(blindLook(rows, 7)!, (s) => `data:,${s.length}`, (t) => t.replaceAll('<', '&lt;')); // prettier-ignore
    const before = html.slice(0, html.indexOf('<details>'));
    for (const name of ['Water', '>A<', 'B']) expect(before).not.toContain(name);
    expect(html.slice(html.indexOf('<details>'))).toContain('&lt;b>B');
    expect(html.match(/type="radio"/g)).toHaveLength(3);
  });
  it('isn’t there where fewer than two photos are on the device', () => {
    const one = (sha: string) => (sha.includes('Water') ? 'data:,' : '');
    expect(blindLookHtml(blindLook(rows, 7)!, one, (t) => t)).toBe('');
  });
});

describe('the page', () => {
  it('has the look before anything is told, fonts inside, and colours for the night', () => {
    const html = toHtml(
      'Is it?',
      [
        { type: 'heading', level: 1, text: 'Is it?' },
        { type: 'paragraph', tone: 'small', text: 'by me' },
        { type: 'paragraph', tone: 'lead', text: 'A beat Water.' },
      ],
      () => '',
      pageColours,
      {
        look: blindLook(rows, 7),
        photoOf: () => 'data:,x',
        fontRules: '@font-face{font-family:"X";src:url(data:font/woff2;base64,AA)}',
        night: pageColoursByNight,
      },
    );
    expect(html.indexOf('Look first')).toBeGreaterThan(html.indexOf('by me'));
    expect(html.indexOf('Look first')).toBeLessThan(html.indexOf('A beat Water.'));
    expect(html).toContain('font-src data:');
    expect(html).toMatch(/prefers-color-scheme:dark\)\{:root\{--plaster:#211b16/);
    expect(html).not.toMatch(/(?:src|href)="(?!data:)|url\((?!data:)/);
  });
});

describe('photos the reviewer chose', () => {
  const p = plan();
  const line = entry({ kind: 'photo', unitId: unitId('A', 1), file: 'x.jpg', caption: '', sha256: 'a'.repeat(64) }, 'ph'); // prettier-ignore
  const state = deriveState(p, [{ ...line, at: '2026-03-08T10:00:00Z', offsetMin: 0 }]);
  const review = (photos: object[]) => ({ ...emptyReview, photos }) as never;
  it('stand in the reviewer’s words, or in what the log says of them', () => {
    const said = chosenPhotos(state, review([{ photoId: 'ph', caption: 'Tall.', alt: '' }]));
    expect(said).toEqual([
      { id: 'ph', sha256: 'a'.repeat(64), caption: 'Tall.', alt: 'A, tray TST-04, day 7' },
    ]);
    expect(chosenPhotoBlocks(state, review([{ photoId: 'ph', caption: '', alt: 'Two trays' }]))).toEqual([
      { type: 'figure', id: 'photo-ph', alt: 'Two trays', caption: 'A, tray TST-04, day 7' },
    ]);
  });
  it('that were taken back from the log are left out', () => {
    expect(chosenPhotos(state, review([{ photoId: 'gone', caption: '', alt: '' }]))).toEqual([]);
  });
});
