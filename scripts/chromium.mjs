// Finds Chromium; installs Debian's where it is missing and we may.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';

const places = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];
/** Chromium without a browser's own windows around the page: the same engine for a third less work. */
const SHELL = '/usr/bin/chromium-headless-shell';

/** What is still being unpacked is there and doesn't run. */
const runs = (path) => spawnSync(path, ['--version'], { stdio: 'ignore', timeout: 20_000 }).status === 0;

const firstOf = (paths) => paths.find((p) => p && existsSync(p) && runs(p));

export const findChromium = () => firstOf([process.env.CHROMIUM, ...places]);

/** What the end-to-end tests run in. */
export const findTestBrowser = () => firstOf([process.env.CHROMIUM, SHELL, ...places]);

const mayInstall = () => process.getuid?.() === 0 && existsSync('/usr/bin/apt-get');

/** How long another program that installs is waited for. [s] */
const PATIENCE = 300;

/** Installs a package of Debian's. Nothing that is there is removed for it; who installs now is let finish. */
function install(name) {
  console.log(`Installing Debian’s ${name} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const apt = (...args) =>
    spawnSync('apt-get', ['-o', `DPkg::Lock::Timeout=${PATIENCE}`, ...args], {
      stdio: ['ignore', 'ignore', 'inherit'],
      env,
    });
  apt('update', '-qq');
  apt('install', '-y', '-qq', '--no-install-recommends', '--no-remove', name);
}

const missing = () => {
  console.error(
    'palazzo: Chromium is missing. Install the Debian package “chromium”, or set CHROMIUM to its path.',
  );
  return null;
};

/** @returns the browser's path, or null after a clear message */
export function ensureChromium() {
  if (!findChromium() && mayInstall()) install('chromium');
  return findChromium() ?? missing();
}

/** @returns the path of what the end-to-end tests run in, or null after a clear message */
export function ensureTestBrowser() {
  if (!process.env.CHROMIUM && !firstOf([SHELL]) && mayInstall()) install('chromium-headless-shell');
  return findTestBrowser() ?? ensureChromium();
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
