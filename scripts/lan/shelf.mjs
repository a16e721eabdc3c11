// Where letters lie on the server's disk: sealed as they came, a file each, readable by its owner alone.
import {
  closeSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  writeSync,
} from 'node:fs';
import { join } from 'node:path';
import { authorityFolder } from './authority.mjs';

const named = /^(\d{1,15})\.letter$/;

/** @param {string} folder made where it isn't there */
export function shelf(folder = join(authorityFolder(), 'letters')) {
  const at = (id) => join(folder, `${id}.letter`);
  const there = () => {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    return folder;
  };
  return {
    /** Letters of an earlier run, oldest first; what isn't one is passed over. */
    all() {
      const letters = [];
      for (const name of readdirSync(there())) {
        const id = named.exec(name)?.[1];
        if (id === undefined) continue;
        try {
          const whole = readFileSync(join(folder, name));
          const end = whole.indexOf(10);
          const { from, to, role } = JSON.parse(whole.subarray(0, end).toString('utf8'));
          letters.push({ id, from, to, role, bytes: whole.subarray(end + 1) });
        } catch {
          // half a file: the letter was never said to be sent
        }
      }
      return letters.sort((a, b) => Number(a.id) - Number(b.id));
    },
    /** On the disk when it returns. @throws where there is no room */
    put({ id, from, to, role, bytes }) {
      there();
      const half = `${at(id)}.new`;
      const file = openSync(half, 'w', 0o600);
      try {
        writeSync(file, `${JSON.stringify({ from, to, role })}\n`);
        for (let done = 0; done < bytes.length;) done += writeSync(file, bytes, done);
        fsyncSync(file);
      } finally {
        closeSync(file);
      }
      renameSync(half, at(id));
    },
    remove(id) {
      rmSync(at(id), { force: true });
    },
  };
}
