import { expect, it } from 'vitest';
import { ScaleModel } from './simulatedScale';

const after = (model: ScaleModel, seconds: number) => {
  let reading = model.read(0.2);
  for (let t = 0.2; t < seconds; t += 0.2) reading = model.read(0.2);
  return reading;
};

it('settles on what lies on the pan, in whole steps, and says so', () => {
  const model = new ScaleModel(0.1, 4);
  model.place(123.4);
  expect(model.read(0.2).steady).toBe(false);
  const settled = after(model, 6);
  expect(settled.steady).toBe(true);
  expect(Math.abs(settled.grams - 123.4)).toBeLessThan(0.31);
  expect(settled.grams * 10).toBeCloseTo(Math.round(settled.grams * 10), 6);
});

it('isn’t steady while the load changes, and zero takes off what lies there', () => {
  const model = new ScaleModel(1, 4);
  model.place(200);
  after(model, 6);
  model.zero();
  expect(Math.abs(after(model, 4).grams)).toBeLessThanOrEqual(1);
  model.place(260);
  expect(model.read(0.2).steady).toBe(false);
  expect(Math.abs(after(model, 6).grams - 60)).toBeLessThanOrEqual(2);
});

it('shows whole grams when its step is a gram', () => {
  const model = new ScaleModel(1, 9);
  model.place(2.4);
  expect(Number.isInteger(after(model, 5).grams)).toBe(true);
});
