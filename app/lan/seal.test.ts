import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { packLetter, unpackLetter } from './letter';
import { readPairingHash } from './pairing';
import { isKey, newKey, seal, unseal } from './seal';

const text = (s: string) => new TextEncoder().encode(s);

describe('a sealed letter', () => {
  it('is opened by its key alone, between the two it is for', async () => {
    const [key, other] = [newKey(), newKey()];
    expect([isKey(key), key === other]).toEqual([true, false]);
    const letter = await seal(key, 'd1', 'd2', text('12.5 g'));
    expect(new TextDecoder().decode((await unseal(key, 'd1', 'd2', letter))!)).toBe('12.5 g');
    expect(await unseal(other, 'd1', 'd2', letter)).toBeNull();
    expect(await unseal(key, 'd2', 'd1', letter)).toBeNull();
    expect(await unseal(key, 'd1', 'd3', letter)).toBeNull();
    expect(new TextDecoder().decode(letter)).not.toContain('12.5');
  });
  it('is never the same twice, and not one bit of it can be changed', async () => {
    const key = newKey();
    const letter = await seal(key, 'd1', 'd2', text('12.5 g'));
    expect(await seal(key, 'd1', 'd2', text('12.5 g'))).not.toEqual(letter);
    await fc.assert(
      fc.asyncProperty(fc.nat(letter.length - 1), fc.integer({ min: 1, max: 255 }), async (at, by) => {
        const changed = letter.slice();
        changed[at]! ^= by;
        expect(await unseal(key, 'd1', 'd2', changed)).toBeNull();
      }),
    );
    expect(await unseal(key, 'd1', 'd2', letter.slice(0, 13))).toBeNull();
  });
});

describe('what is in a letter', () => {
  const head = { kind: 'ticked' as const, trialId: 't', task: 'Water' };
  it('reads back', () => {
    const read = unpackLetter(packLetter(head, text('zip')))!;
    expect(read.head).toEqual(head);
    expect(new TextDecoder().decode(read.body)).toBe('zip');
  });
  it('is nothing where it isn’t one, whatever the bytes', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 400 }), (bytes) => {
        expect(unpackLetter(bytes)).toBeNull();
      }),
    );
    const cut = packLetter(head).slice(0, 20);
    expect(unpackLetter(cut)).toBeNull();
    const huge = packLetter(head);
    new DataView(huge.buffer).setUint32(0, 0xffffffff);
    expect(unpackLetter(huge)).toBeNull();
    expect(unpackLetter(packLetter({ ...head, kind: 'other' } as never))).toBeNull();
  });
});

it('a pairing link is a code, and a key where it is whole', () => {
  const key = newKey();
  expect(readPairingHash(`#ABCDEFGH23.${key}`)).toEqual({ code: 'ABCDEFGH23', key });
  expect(readPairingHash('#ABCDEFGH23')).toEqual({ code: 'ABCDEFGH23', key: null });
  expect(readPairingHash('#ABCDEFGH23.short')).toEqual({ code: 'ABCDEFGH23', key: null });
  expect(readPairingHash('')).toBeNull();
  expect(readPairingHash('#<script>')).toBeNull();
});
