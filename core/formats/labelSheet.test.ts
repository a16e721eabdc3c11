import fc from 'fast-check';
import { expect, it } from 'vitest';
import { defaultSheet, describeLabelSheetError, labelBoxes, papers } from './labelSheet';

it('labels lie on the paper and never on each other', () => {
  fc.assert(
    fc.property(
      fc.record({
        paper: fc.constantFrom('A4' as const, 'Letter' as const),
        columns: fc.integer({ min: 1, max: 5 }),
        rows: fc.integer({ min: 1, max: 13 }),
        marginTopMm: fc.double({ min: 0, max: 25, noNaN: true }),
        marginLeftMm: fc.double({ min: 0, max: 25, noNaN: true }),
        gapMm: fc.double({ min: 0, max: 6, noNaN: true }),
      }),
      fc.integer({ min: 1, max: 90 }),
      fc.integer({ min: 0, max: 20 }),
      (sheet, count, skip) => {
        const boxes = labelBoxes(sheet, count, skip);
        if (!boxes.ok) {
          expect(describeLabelSheetError(boxes.error)).toMatch(/38 × 18 mm/);
          return;
        }
        const { widthMm, heightMm } = papers[sheet.paper];
        for (const b of boxes.value) {
          expect(b.xMm).toBeGreaterThanOrEqual(0);
          expect(b.xMm + b.widthMm).toBeLessThanOrEqual(widthMm + 1e-9);
          expect(b.yMm + b.heightMm).toBeLessThanOrEqual(heightMm + 1e-9);
        }
        expect(new Set(boxes.value.map((b) => `${b.page}/${b.xMm}/${b.yMm}`)).size).toBe(count);
        const perPage = sheet.columns * sheet.rows;
        expect(boxes.value[0]!.page).toBe(Math.floor(skip / perPage));
        expect(boxes.value.at(-1)!.page).toBe(Math.floor((skip + count - 1) / perPage));
      },
    ),
  );
});

it('the usual sheet holds 21 labels of 63.7 × 36 mm', () => {
  const boxes = labelBoxes(defaultSheet, 22);
  if (!boxes.ok) throw new Error(boxes.error.tag);
  expect(boxes.value[0]!.widthMm).toBeCloseTo(63.67, 2);
  expect(boxes.value[0]!.heightMm).toBeCloseTo(36, 2);
  expect(boxes.value[20]!.page).toBe(0);
  expect(boxes.value[21]!.page).toBe(1);
});
