// Installs the npm packages of the lock file where they are missing or out of date. Needs nothing but Node.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const stampFile = `${root}node_modules/.palazzo-lock`;

/** Runs a command in the project's root; ends this process when it fails. */
export function run(command, args, options = {}) {
  const done = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  if (done.status !== 0) {
    console.error(`palazzo: “${command} ${args.join(' ')}” failed.`);
    process.exit(done.status ?? 1);
  }
}

/** @param withTests what only tests, benches and checks need too */
export function install(withTests = true) {
  const lock = createHash('sha256')
    .update(readFileSync(`${root}package-lock.json`))
    .digest('hex');
  const [whole, part] = [lock, `${lock} without tests`];
  const there = existsSync(stampFile) ? readFileSync(stampFile, 'utf8') : '';
  if (there === whole || (!withTests && there === part)) return;
  console.log('Installing packages …');
  run('npm', ['ci', '--no-audit', '--no-fund', ...(withTests ? [] : ['--omit=dev'])]);
  writeFileSync(stampFile, withTests ? whole : part);
}
