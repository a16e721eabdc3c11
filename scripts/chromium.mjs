// Finds Chromium; installs Debian's where it is missing and we may.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';

const places = [
  process.env.CHROMIUM,
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/usr/bin/google-chrome',
];

export const findChromium = () => places.find((p) => p && existsSync(p));

/** @returns the path, or null after a clear message */
export function ensureChromium() {
  const found = findChromium();
  if (found) return found;
  const isRoot = process.getuid?.() === 0;
  if (isRoot && existsSync('/usr/bin/apt-get')) {
    console.log('Installing Debian’s chromium …');
    const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
    const apt = (...args) => spawnSync('apt-get', args, { stdio: ['ignore', 'ignore', 'inherit'], env });
    apt('update', '-qq');
    apt('install', '-y', '-qq', '--no-install-recommends', 'chromium');
    if (findChromium()) return findChromium();
  }
  console.error(
    'palazzo: end-to-end tests need Chromium. Install the Debian package “chromium”, or set CHROMIUM to its path.',
  );
  return null;
}

/** Flags that work headless, as root, without a network. */
export const chromiumFlags = [
  '--headless',
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];
