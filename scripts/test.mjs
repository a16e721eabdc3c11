// `npm test`: installs what is missing, then lint, format, types, unit, build, end-to-end.
// The last line is `N passed, N failed`.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { install } from './install.mjs';
import { ensureChromium } from './chromium.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
let passed = 0;
let failed = 0;

function step(name, command, args) {
  console.log(`\n── ${name}`);
  return spawnSync(command, args, { cwd: root, stdio: 'inherit' }).status === 0;
}

function check(name, command, args) {
  if (step(name, command, args)) passed += 1;
  else {
    failed += 1;
    console.log(`✗ ${name}`);
  }
}

/** Runs Vitest and adds up what it counted. */
function tests(name, args) {
  const report = `.cache/${name}.json`;
  rmSync(`${root}${report}`, { force: true });
  const good = step(name, 'npx', [
    'vitest',
    'run',
    ...args,
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${report}`,
  ]);
  if (!existsSync(`${root}${report}`)) {
    failed += 1;
    return;
  }
  const counted = JSON.parse(readFileSync(`${root}${report}`, 'utf8'));
  passed += counted.numPassedTests;
  // A file that fails before its first test counts too.
  failed += counted.numFailedTests || (good ? 0 : 1);
}

install();
mkdirSync(`${root}.cache`, { recursive: true });
check('lint', 'npx', ['eslint', '.', '--max-warnings', '0']);
check('format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']);
check('layers', 'npx', ['depcruise', 'core', 'app', 'cli', '--config', '.dependency-cruiser.cjs']);
check('types', 'npm', ['run', '--silent', 'typecheck']);
tests('unit', []);
check('build', 'npm', ['run', '--silent', 'build']);
if (ensureChromium()) tests('e2e', ['--config', 'vitest.e2e.config.ts']);
else failed += 1;

console.log(`\n${passed} passed, ${failed} failed`);
process.exitCode = failed === 0 ? 0 : 1;
