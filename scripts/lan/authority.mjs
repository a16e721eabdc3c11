// A small authority of this bench's own: it vouches for the server in the local network, and for nothing else.
import { X509Certificate, createHash } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { homedir, hostname, networkInterfaces } from 'node:os';
import { join } from 'node:path';
import selfsigned from 'selfsigned';

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

async function makeAuthority(now) {
  const name = `Palazzo bench on ${hostname()}`.slice(0, 60);
  return selfsigned.generate([{ name: 'commonName', value: name }], {
    ...{ keyType: 'ec', algorithm: 'sha256' },
    ...{ notBeforeDate: new Date(now.getTime() - DAY_MS), notAfterDate: until(now, AUTHORITY_DAYS) },
    extensions: [
      { name: 'basicConstraints', cA: true, pathLenConstraint: 0, critical: true },
      { name: 'keyUsage', keyCertSign: true, cRLSign: true, critical: true },
    ],
  });
}

async function makeServer(now, names, ca) {
  return selfsigned.generate([{ name: 'commonName', value: 'Palazzo' }], {
    ...{ keyType: 'ec', algorithm: 'sha256', ca },
    ...{ notBeforeDate: new Date(now.getTime() - DAY_MS), notAfterDate: until(now, SERVER_DAYS) },
    extensions: [
      { name: 'basicConstraints', cA: false, critical: true },
      { name: 'keyUsage', digitalSignature: true, critical: true },
      { name: 'extKeyUsage', serverAuth: true },
      { name: 'subjectAltName', altNames: names },
    ],
  });
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
  if (!existsSync(at('authority.crt')) || !lasts(readFileSync(at('authority.crt'), 'utf8'), now)) {
    const made = await makeAuthority(now);
    keep(at('authority.key'), made.private, 0o600);
    keep(at('authority.crt'), made.cert, 0o644);
  }
  const ca = {
    key: readFileSync(at('authority.key'), 'utf8'),
    cert: readFileSync(at('authority.crt'), 'utf8'),
  };
  const names = [
    ...[...new Set(['localhost', hostname(), `${hostname()}.local`])].map((value) => ({ type: 2, value })),
    ...[...new Set(['127.0.0.1', '::1', ...addresses])].map((ip) => ({ type: 7, ip })),
  ];
  // Another address or another authority asks for another certificate.
  const mark = createHash('sha256')
    .update(JSON.stringify([names, fingerprintOf(ca.cert)]))
    .digest('hex');
  const known = existsSync(at('server.mark')) && readFileSync(at('server.mark'), 'utf8') === mark;
  if (!known || !lasts(readFileSync(at('server.crt'), 'utf8'), now)) {
    const made = await makeServer(now, names, ca);
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
