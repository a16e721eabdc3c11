// Certificates read back with Node's own X.509 (OpenSSL).
import { X509Certificate } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { certificate, keepDevices, knownDevices } from './authority.mjs';

let folder: string;
beforeEach(() => {
  folder = join(mkdtempSync(join(tmpdir(), 'palazzo-')), 'state');
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));
const mode = (name: string) => statSync(join(folder, name)).mode & 0o777;
const DAY = 86_400_000;

describe('the authority of a bench', () => {
  it('vouches for this machine’s names and addresses, and is one itself', async () => {
    const made = await certificate({ folder, addresses: ['192.0.2.7'] });
    const [server, authority] = [new X509Certificate(made.cert), new X509Certificate(made.authority)];
    expect(server.verify(authority.publicKey)).toBe(true);
    expect([authority.ca, server.ca]).toEqual([true, false]);
    expect(server.checkHost('localhost')).toBe('localhost');
    expect(server.checkIP('192.0.2.7')).toBe('192.0.2.7');
    expect(server.checkIP('192.0.2.8')).toBeUndefined();
    expect(made.fingerprint).toBe(server.fingerprint256);
    // Browsers refuse a server's certificate of more than 398 days.
    expect(Date.parse(server.validTo) - Date.parse(server.validFrom)).toBeLessThan(399 * DAY);
  });
  it('keeps its keys for its owner alone', async () => {
    await certificate({ folder, addresses: [] });
    expect(['.', 'authority.key', 'server.key'].map(mode)).toEqual([0o700, 0o600, 0o600]);
    keepDevices([{ id: 'd1', token: 'a'.repeat(64) }], folder);
    expect(mode('devices.json')).toBe(0o600);
  });
  it('stays the same, and makes another certificate for another address or when one ends', async () => {
    const now = new Date('2026-05-01T00:00:00Z');
    const first = await certificate({ folder, addresses: ['192.0.2.7'], now });
    expect(await certificate({ folder, addresses: ['192.0.2.7'], now })).toEqual(first);
    const moved = await certificate({ folder, addresses: ['192.0.2.9'], now });
    expect([moved.authority, moved.fingerprint]).toEqual([
      first.authority,
      expect.not.stringMatching(first.fingerprint),
    ]);
    const later = new Date(now.getTime() + 390 * DAY);
    const renewed = await certificate({ folder, addresses: ['192.0.2.9'], now: later });
    expect(renewed.fingerprint).not.toBe(moved.fingerprint);
    expect(renewed.authority).toBe(first.authority);
  });
});

it('devices that can’t be read are none', () => {
  expect(knownDevices(folder)).toEqual([]);
  expect(() => readFileSync(folder)).toThrow();
});
