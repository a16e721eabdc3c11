import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';
import { main } from './main';

const root = fileURLToPath(new URL('..', import.meta.url));

it('is started by npm with its status, output and errors', () => {
  const args = ['power', '--treatments', '2', '--replicates', '17', '--cv', '10', '--difference', '10'];
  for (const argv of [args, [...args, '--nonsense']]) {
    const run = spawnSync('npm', ['run', '--silent', 'palazzo', '--', ...argv], {
      cwd: root,
      encoding: 'utf8',
    });
    const own = main(argv);
    expect(run).toMatchObject({ status: own.status, stdout: own.stdout, stderr: own.stderr });
  }
});

it('every command says how it is called, and help says all of them', () => {
  const all = main(['help']).stdout;
  const names = new Set([...all.matchAll(/^palazzo (\w+)/gm)].map((m) => m[1]!));
  expect(names.size).toBeGreaterThan(20);
  for (const name of names) {
    const { status, stdout } = main([name, '--help']);
    expect({ name, status }).toEqual({ name, status: 0 });
    expect(stdout).toContain(`palazzo ${name}`);
    expect(all).toContain(stdout.trimEnd());
  }
});
