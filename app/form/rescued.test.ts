import { expect, it } from 'vitest';
import { keepRescued, noteTyped, putBack, rescued } from './rescued';

it('what was typed is put back where the page broke down, and nowhere else', () => {
  noteTyped('/a', 'question', { prediction: 'Yes.' });
  noteTyped('/b', 'question', { prediction: 'No.' });
  // A page that was simply left begins anew.
  expect(rescued('/a', 'question')).toBeUndefined();
  expect(keepRescued('/a')).toBe(true);
  expect(rescued('/a', 'question')).toEqual({ prediction: 'Yes.' });
  expect(rescued('/a', 'areas')).toBeUndefined();
  expect(rescued('/b', 'question')).toBeUndefined();
  putBack('/a');
  expect(rescued('/a', 'question')).toBeUndefined();
});

it('nothing is promised where nothing was typed, or what was typed is saved', () => {
  expect(keepRescued('/none')).toBe(false);
  noteTyped('/c', 'form', { name: 'x' });
  noteTyped('/c', 'form', undefined);
  expect(keepRescued('/c')).toBe(false);
});
