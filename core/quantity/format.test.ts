import { describe, expect, it } from 'vitest';
import { countWord, formatFigure, formatP, formatSigned, listNames, plural, sentenceCase } from './format';

describe('figures', () => {
  it.each([
    [3.14159, 2, '3.14'],
    [-3.14159, 2, '−3.14'],
    [-0.004, 2, '0.00'],
    [0, 0, '0'],
    [1e6, 0, '1000000'],
  ])('%d with %d decimals is %s', (x, d, text) => expect(formatFigure(x, d)).toBe(text));
  it.each([
    [5.2, 0, '+5'],
    [-5.2, 1, '−5.2'],
    [0.04, 1, '0.0'],
    [0, 1, '0.0'],
  ])('%d signed with %d decimals is %s', (x, d, text) => expect(formatSigned(x, d)).toBe(text));
  it('a p-value is never zero', () => {
    expect([0, 0.0009, 0.001, 0.05, 1].map(formatP)).toEqual([
      '< 0.001',
      '< 0.001',
      '0.001',
      '0.050',
      '1.000',
    ]);
  });
});

describe('words', () => {
  it.each([
    ['tray', 'trays'],
    ['box', 'boxes'],
    ['bench', 'benches'],
    ['glass', 'glasses'],
    ['nursery', 'nurseries'],
    ['shelf', 'shelves'],
    ['bed row', 'bed rows'],
    ['pot', 'pots'],
  ])('one %s, two %s', (one, many) => expect(plural(one)).toBe(many));
  it('counts and lists as in a sentence', () => {
    expect([0, 1, 12, 13].map(countWord)).toEqual(['no', 'one', 'twelve', '13']);
    expect([[], ['A'], ['A', 'B'], ['A', 'B', 'C']].map(listNames)).toEqual([
      '',
      'A',
      'A and B',
      'A, B and C',
    ]);
    expect(sentenceCase('two of three')).toBe('Two of three');
  });
});
