// `npm test`: installs what is missing, then lint, format, layers, types, unit, build, end-to-end.
// The last line is `N passed, N failed`. What shares nothing runs side by side; its output comes in one piece.
import { spawn } from 'node:child_process';
import { availableParallelism } from 'node:os';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { install } from './install.mjs';

/** Two cores at least, six at most: each end-to-end worker has a browser of its own. */
const cores = Math.min(6, Math.max(2, availableParallelism()));

const root = fileURLToPath(new URL('..', import.meta.url));
let passed = 0;
let failed = 0;

/** A command of a package: started itself, without npm looking for it. */
const bin = (name) => `${root}node_modules/.bin/${name}`;

/** Runs a command. @returns whether it ended well */
const step = (name, command, args, env = {}) =>
  new Promise((done) => {
    const started = Date.now();
    const said = [];
    const child = spawn(command, args, {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, ...env },
    });
    child.stdout.on('data', (piece) => said.push(piece));
    child.stderr.on('data', (piece) => said.push(piece));
    const end = (good) => {
      console.log(`\n── ${name} (${Math.round((Date.now() - started) / 1000)} s)`);
      process.stdout.write(Buffer.concat(said));
      if (!good) console.log(`✗ ${name}`);
      done(good);
    };
    child.on('error', () => end(false));
    child.on('close', (code) => end(code === 0));
  });

async function check(name, command, args) {
  if (await step(name, command, args)) passed += 1;
  else failed += 1;
}

/** Runs Vitest and adds up what it counted. */
async function tests(name, args, env = {}) {
  const report = `.cache/${name}.json`;
  rmSync(`${root}${report}`, { force: true });
  const good = await step(
    name,
    bin('vitest'),
    ['run', ...args, '--reporter=default', '--reporter=json', `--outputFile.json=${report}`],
    env,
  );
  if (!existsSync(`${root}${report}`)) {
    failed += 1;
    return;
  }
  const counted = JSON.parse(readFileSync(`${root}${report}`, 'utf8'));
  passed += counted.numPassedTests;
  // A file that fails before its first test counts too.
  failed += counted.numFailedTests || (good ? 0 : 1);
}

/** Tests of days run in zones as far from each other as there are. */
const zones = ['Pacific/Auckland', 'America/Los_Angeles', 'Asia/Kolkata'];
const ofDays = [
  'zones',
  'core/plan/days',
  'core/schedule',
  'core/series',
  'iCalendar',
  'localDay',
  'app/ui/clock',
];

/** What shares nothing, the longest first. */
const waiting = [
  // The longest: where there are more than two cores it takes what the others leave.
  () => tests('unit-core', ['--project', 'core', `--maxWorkers=${Math.max(1, cores - 2)}`]),
  () => tests('unit-app', ['--project', 'app', '--project', 'alone', '--maxWorkers=1']),
  ...zones.map(
    (TZ, i) => () =>
      tests(`unit-zone-${i + 1}`, ['--project', 'core', '--project', 'app', '--maxWorkers=1', ...ofDays], {
        TZ,
      }),
  ),
  () => check('build', 'npm', ['run', '--silent', 'build']),
  () => check('types', 'npm', ['run', '--silent', 'typecheck']),
  () => check('layers', bin('depcruise'), ['core', 'app', 'cli', '--config', '.dependency-cruiser.cjs']),
  () => check('folders', bin('depcruise'), ['core', 'app', '--config', '.layers.cjs']),
  () => check('lint', bin('oxlint'), ['.']),
  () => check('format', bin('oxfmt'), ['--check', '.']),
];

/** Takes one after the other; as many side by side keep the cores busy to the end. */
async function lane() {
  for (let next = waiting.shift(); next; next = waiting.shift()) await next();
}

// The browser comes while the packages do.
const browser = step('browser', process.execPath, ['scripts/ensureBrowser.mjs']);
install();
mkdirSync(`${root}.cache`, { recursive: true });
await Promise.all(Array.from({ length: cores > 2 ? 3 : 2 }, lane));
if (await browser) await tests('e2e', ['--config', 'vitest.e2e.config.ts']);
else failed += 1;

console.log(`\n${passed} passed, ${failed} failed`);
process.exitCode = failed === 0 ? 0 : 1;
