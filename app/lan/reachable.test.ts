import { expect, it } from 'vitest';
import { isThisMachineAlone, reachableAt } from './reachable';

const at = (url: string) => new URL(url);
const here = { addresses: ['https://192.0.2.4:4810'] };

it('a page opened by this machine’s own name is offered by its address first', () => {
  expect(reachableAt(at('https://localhost:4810'), here)).toEqual([
    'https://192.0.2.4:4810',
    'https://localhost:4810',
  ]);
  expect(reachableAt(at('http://127.0.0.1:4810'), null)).toEqual(['http://127.0.0.1:4810']);
});
it('one opened by an address is reached by it', () => {
  expect(reachableAt(at('https://192.0.2.9:4810'), here)).toEqual(['https://192.0.2.9:4810']);
  expect(isThisMachineAlone('192.0.2.9')).toBe(false);
});
