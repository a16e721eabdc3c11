// `npm run season -- --benches 200 --seed 4`: proposals against two plain rules, on simulated benches whose truth is known.
import { parseArgs } from 'node:util';
import { saySeason, seasonRegret } from '~core/season/bench';

const { values } = parseArgs({
  options: { benches: { type: 'string', default: '200' }, seed: { type: 'string', default: '4' } },
});
const [benches, seed] = [Number(values.benches), Number(values.seed)];
if (!Number.isInteger(benches) || benches < 1 || !Number.isInteger(seed) || seed < 0) {
  console.error('season: --benches takes a whole number from 1, --seed one from 0.');
  process.exit(2);
}
const regret = seasonRegret(benches, seed);
console.log(saySeason(benches, regret));
