// `npm run fuzz -- --files 10000 --seed 1`: files made from good ones by mutation and by construction, given to every
// reader of files. Reports crashes, hangs over 2 s, memory over 500 MB, and what was taken in and isn't valid; all 0.
import { parseArgs } from 'node:util';
import { seededRandom } from '~core/stats/random';
import { spoiling } from './fuzz/mutate';
import { readersOf } from './fuzz/readers';

const { values: args } = parseArgs({
  options: { files: { type: 'string', default: '10000' }, seed: { type: 'string', default: '1' } },
});
const files = Number(args.files);
const spoil = spoiling(seededRandom(Number(args.seed)));

const HANG_MS = 2000;
const MOST_MB = 500;

const faults = { crashes: 0, hangs: 0, memory: 0, invalid: 0 };
const said = (what: keyof typeof faults, detail: string) => {
  faults[what] += 1;
  if (faults[what] <= 5) console.log(`${what}: ${detail.slice(0, 400)}`);
};

const { readers, bombs } = await readersOf(spoil, said);

for (let i = 0; i < files; i++) {
  const [name, run, steps = 1] = i % 500 === 499 ? bombs : spoil.oneOf(readers);
  const began = performance.now();
  try {
    await run();
  } catch (e) {
    said('crashes', `${name}: ${e instanceof Error ? (e.stack ?? e.message) : String(e)}`);
  }
  const took = performance.now() - began;
  if (took > HANG_MS * steps) said('hangs', `${name}: ${Math.round(took)} ms`);
  const { heapUsed, external } = process.memoryUsage();
  if ((heapUsed + external) / 1e6 > MOST_MB)
    said('memory', `${name}: ${Math.round((heapUsed + external) / 1e6)} MB`);
  if (({} as { polluted?: unknown }).polluted !== undefined)
    said('invalid', `${name}: every object got a property`);
  if ((i + 1) % 2000 === 0) console.log(`${i + 1} files`);
}
console.log(
  `files ${files}\n${Object.entries(faults)
    .map(([k, v]) => `${k} ${v}`)
    .join('\n')}`,
);
process.exit(Object.values(faults).every((n) => n === 0) ? 0 : 1);
