import { parseArgs } from 'node:util';
import { checkUntidy } from '../core/testing/checkUntidy';
import { untidyTrial } from '../core/testing/untidy';

// Trials as they are, made from seeds: everything that is said of them is held against the raw log.
const { values } = parseArgs({
  options: { trials: { type: 'string', default: '1000' }, seed: { type: 'string', default: '1' } },
});
const [trials, first] = [Number(values.trials), Number(values.seed)];
const counts = { false: 0, contradictory: 0, thrown: 0, other: 0 };
for (let seed = first; seed < first + trials; seed++) {
  const untidy = untidyTrial(seed);
  const faults = checkUntidy(untidy);
  for (const kind of ['false', 'contradictory', 'thrown', 'other'] as const)
    for (const fault of faults[kind]) {
      counts[kind] += 1;
      if (counts[kind] <= 40) console.log(`seed ${seed} (${untidy.damage.join(', ')}): ${kind}: ${fault}`);
    }
}
if (counts.other > 0) console.log(`untidy: other ${counts.other}`);
console.log(
  `untidy: trials ${trials}, false ${counts.false}, contradictory ${counts.contradictory}, thrown ${counts.thrown}`,
);
process.exitCode = Object.values(counts).some((n) => n > 0) ? 1 : 0;
