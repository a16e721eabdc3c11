// A small authority of this bench's own: it vouches for the server in the local network, and for nothing else.
import { X509Certificate, createHash, randomBytes, webcrypto } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { homedir, hostname, networkInterfaces } from 'node:os';
import { join } from 'node:path';
import 'reflect-metadata';
import * as x509 from '@peculiar/x509';

x509.cryptoProvider.set(webcrypto);

const DAY_MS = 86_400_000;
/** Browsers refuse certificates of servers that live longer than this. */
const SERVER_DAYS = 397;
const AUTHORITY_DAYS = 3650;
/** A certificate with less time left is made anew. */
const RENEW_DAYS = 14;

/** Where the authority is kept: readable by its owner alone. */
export const authorityFolder = () =>
  process.env.PALAZZO_HOME ||
  join(process.env.XDG_STATE_HOME || join(homedir(), '.local', 'state'), 'palazzo');

/** Devices paired in an earlier run, from a file its owner alone reads; none where it can't be read. */
export function knownDevices(folder = authorityFolder()) {
  try {
    const known = JSON.parse(readFileSync(join(folder, 'devices.json'), 'utf8'));
    return Array.isArray(known)
      ? known.filter((d) => /^d\d+$/.test(d?.id) && /^[0-9a-f]{64}$/.test(d?.token))
      : [];
  } catch {
    return [];
  }
}

/** Keeps who is paired for the next run. */
export const keepDevices = (devices, folder = authorityFolder()) =>
  keep(join(folder, 'devices.json'), JSON.stringify(devices), 0o600);

/** Addresses of this machine in local networks, IPv4. */
export const lanAddresses = () =>
  Object.values(networkInterfaces())
    .flatMap((all) => all ?? [])
    .filter((a) => a.family === 'IPv4' && !a.internal)
    .map((a) => a.address);

/** SHA-256 of a certificate, as browsers show it. */
export const fingerprintOf = (pem) => new X509Certificate(pem).fingerprint256;

/** A certificate in the form phones install. */
export const derOf = (pem) => new X509Certificate(pem).raw;

function keep(path, text, mode) {
  writeFileSync(path, text, { mode });
  // A file that was there keeps its old mode otherwise.
  chmodSync(path, mode);
}

const lasts = (pem, now) =>
  Date.parse(new X509Certificate(pem).validTo) - now.getTime() > RENEW_DAYS * DAY_MS;

const until = (now, days) => new Date(now.getTime() + days * DAY_MS);

const KEYS = { name: 'ECDSA', namedCurve: 'P-256' };
const SIGNING = { name: 'ECDSA', hash: 'SHA-256' };

/** DER (ITU-T X.690): a tag, the length, what it holds. */
const der = (tag, ...parts) => {
  const body = Buffer.concat(parts.map((p) => Buffer.from(p)));
  const size = body.length < 128 ? [body.length] : [0x82, body.length >> 8, body.length & 255];
  return Buffer.concat([Buffer.from([tag, ...size]), body]);
};

/** Networks that are nobody's but the house's: RFC 1918, RFC 3927, RFC 4193, RFC 4291, and this machine itself. */
const privateNetworks = [
  [[10, 0, 0, 0], 8],
  [[172, 16, 0, 0], 12],
  [[192, 168, 0, 0], 16],
  [[169, 254, 0, 0], 16],
  [[127, 0, 0, 0], 8],
  // Written in examples and tests: RFC 5737.
  [[192, 0, 2, 0], 24],
  [[0xfc, ...Array(15).fill(0)], 7],
  [[0xfe, 0x80, ...Array(14).fill(0)], 10],
  [[...Array(15).fill(0), 1], 128],
];
const maskOf = (bits, length) =>
  Array.from({ length }, (_, i) => (0xff00 >> Math.min(8, Math.max(0, bits - 8 * i))) & 0xff);

/**
 * What the authority may vouch for (RFC 5280, 4.2.1.10): names of this machine, and addresses of private networks alone. A
 * phone that trusts it trusts it for nothing else in the world.
 */
const constrainedTo = (hosts) =>
  new x509.Extension(
    '2.5.29.30',
    true,
    der(
      0x30,
      der(
        0xa0,
        ...hosts.map((host) => der(0x30, der(0x82, host))),
        ...privateNetworks.map(([address, bits]) =>
          der(0x30, der(0x87, [...address, ...maskOf(bits, address.length)])),
        ),
      ),
    ),
  );

const serial = () => `0${randomBytes(15).toString('hex')}`;
const pemOf = async (keys) =>
  x509.PemConverter.encode(await webcrypto.subtle.exportKey('pkcs8', keys.privateKey), 'PRIVATE KEY');
const validFor = (now, days) => ({ notBefore: new Date(now.getTime() - DAY_MS), notAfter: until(now, days) });

async function makeAuthority(now, hosts) {
  const keys = await webcrypto.subtle.generateKey(KEYS, true, ['sign', 'verify']);
  const made = await x509.X509CertificateGenerator.createSelfSigned({
    serialNumber: serial(),
    name: [{ CN: [`Palazzo bench on ${hosts[1]}`.slice(0, 60)] }],
    ...validFor(now, AUTHORITY_DAYS),
    signingAlgorithm: SIGNING,
    keys,
    extensions: [
      new x509.BasicConstraintsExtension(true, 0, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign, true),
      constrainedTo(hosts),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  });
  return { private: await pemOf(keys), cert: made.toString('pem') };
}

async function makeServer(now, hosts, ips, ca) {
  const keys = await webcrypto.subtle.generateKey(KEYS, true, ['sign', 'verify']);
  const signingKey = await webcrypto.subtle.importKey(
    'pkcs8',
    x509.PemConverter.decodeFirst(ca.key),
    KEYS,
    false,
    ['sign'],
  );
  const authority = new x509.X509Certificate(ca.cert);
  const made = await x509.X509CertificateGenerator.create({
    serialNumber: serial(),
    subject: [{ CN: ['Palazzo'] }],
    issuer: authority.subject,
    ...validFor(now, SERVER_DAYS),
    signingAlgorithm: SIGNING,
    publicKey: keys.publicKey,
    signingKey,
    extensions: [
      new x509.BasicConstraintsExtension(false, undefined, true),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
      await x509.AuthorityKeyIdentifierExtension.create(authority),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
      new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth], false),
      new x509.SubjectAlternativeNameExtension(
        [...hosts.map((value) => ({ type: 'dns', value })), ...ips.map((value) => ({ type: 'ip', value }))],
        false,
      ),
    ],
  });
  return { private: await pemOf(keys), cert: made.toString('pem') };
}

/**
 * The authority of this bench and a certificate of it for this machine's names and addresses, made on the spot where
 * there is none, or where it ends soon or doesn't name an address.
 *
 * @returns {{ key: string, cert: string, authority: string, fingerprint: string, addresses: string[] }} PEM texts
 */
export async function certificate({
  folder = authorityFolder(),
  addresses = lanAddresses(),
  now = new Date(),
} = {}) {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  chmodSync(folder, 0o700);
  const at = (name) => join(folder, name);
  const hosts = [...new Set(['localhost', hostname(), `${hostname()}.local`])];
  // One that ends, that vouched for other names, or (before this was kept) for the whole world is made anew.
  const vouches =
    existsSync(at('authority.mark')) && readFileSync(at('authority.mark'), 'utf8') === hosts.join(' ');
  if (
    !vouches ||
    !existsSync(at('authority.crt')) ||
    !lasts(readFileSync(at('authority.crt'), 'utf8'), now)
  ) {
    const made = await makeAuthority(now, hosts);
    keep(at('authority.key'), made.private, 0o600);
    keep(at('authority.crt'), made.cert, 0o644);
    keep(at('authority.mark'), hosts.join(' '), 0o600);
  }
  const ca = {
    key: readFileSync(at('authority.key'), 'utf8'),
    cert: readFileSync(at('authority.crt'), 'utf8'),
  };
  const ips = [...new Set(['127.0.0.1', '::1', ...addresses])];
  // Another address or another authority asks for another certificate.
  const mark = createHash('sha256')
    .update(JSON.stringify([hosts, ips, fingerprintOf(ca.cert)]))
    .digest('hex');
  const known = existsSync(at('server.mark')) && readFileSync(at('server.mark'), 'utf8') === mark;
  if (!known || !lasts(readFileSync(at('server.crt'), 'utf8'), now)) {
    const made = await makeServer(now, hosts, ips, ca);
    keep(at('server.key'), made.private, 0o600);
    keep(at('server.crt'), made.cert, 0o644);
    keep(at('server.mark'), mark, 0o600);
  }
  const cert = readFileSync(at('server.crt'), 'utf8');
  return {
    key: readFileSync(at('server.key'), 'utf8'),
    cert: `${cert.trim()}\n${ca.cert.trim()}\n`,
    authority: ca.cert,
    fingerprint: fingerprintOf(cert),
    addresses,
  };
}
