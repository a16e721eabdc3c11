// Certificates read back with Node's own X.509 (OpenSSL).
import { X509Certificate, webcrypto } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { connect, createServer } from 'node:tls';
import * as x509 from '@peculiar/x509';
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
  it('vouches for nothing else in the world, though its key were stolen', async () => {
    const { authority } = await certificate({ folder, addresses: [] });
    const ecdsa = { name: 'ECDSA', namedCurve: 'P-256' };
    const pem = readFileSync(join(folder, 'authority.key'), 'utf8');
    const signingKey = await webcrypto.subtle.importKey('pkcs8', x509.PemConverter.decodeFirst(pem), ecdsa, false, ['sign']); // prettier-ignore
    /** what TLS says of a certificate that the authority's key signed for this name */
    const believed = async (type: 'dns' | 'ip', value: string): Promise<string> => {
      const keys = await webcrypto.subtle.generateKey(ecdsa, true, ['sign', 'verify']);
      const made = await x509.X509CertificateGenerator.create({
        ...{ serialNumber: '01', subject: 'CN=x', issuer: new x509.X509Certificate(authority).subject },
        ...{ notBefore: new Date(Date.now() - DAY), notAfter: new Date(Date.now() + DAY) },
        ...{ signingAlgorithm: { name: 'ECDSA', hash: 'SHA-256' }, publicKey: keys.publicKey, signingKey },
        extensions: [new x509.SubjectAlternativeNameExtension([{ type, value }])],
      });
      const key = x509.PemConverter.encode(await webcrypto.subtle.exportKey('pkcs8', keys.privateKey), 'PRIVATE KEY'); // prettier-ignore
      const server = createServer({ key, cert: made.toString('pem') }, (s) => s.end());
      await new Promise<void>((ready) => void server.listen(0, '127.0.0.1', ready));
      const { port } = server.address() as AddressInfo;
      const said = await new Promise<string>((tell) => {
        const socket = connect({ port, host: '127.0.0.1', ca: authority, checkServerIdentity: () => undefined }, () => tell('believed')); // prettier-ignore
        socket.on('error', (e: NodeJS.ErrnoException) => tell(e.message));
        socket.on('data', () => {});
      });
      server.close();
      return said;
    };
    expect(await believed('dns', 'localhost')).toBe('believed');
    expect(await believed('ip', '192.168.1.20')).toBe('believed');
    expect(await believed('dns', 'bank.example')).toMatch(/PERMITTED|permitted/);
    expect(await believed('ip', '203.0.113.9')).toMatch(/PERMITTED|permitted/);
  });
  it('an authority of before, or of another name, is made anew', async () => {
    const first = await certificate({ folder, addresses: [] });
    rmSync(join(folder, 'authority.mark'));
    expect((await certificate({ folder, addresses: [] })).authority).not.toBe(first.authority);
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
