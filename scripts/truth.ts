import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { falseLooks } from '../core/testing/truthLooks';
import {
  type TruthRow,
  nameOfPlan,
  neverAble,
  truthPlans,
  truthRow,
  worstLine,
} from '../core/testing/truthGrid';

// Trials whose truth is known, over and over: how often what is said of them is false, and how often what is there is found.
const { values } = parseArgs({
  options: {
    runs: { type: 'string', default: '2000' },
    seed: { type: 'string', default: '3' },
    only: { type: 'string', default: '' },
    write: { type: 'boolean', default: false },
  },
});
const [runs, seed] = [Number(values.runs), Number(values.seed)];
const percent = (x: number | null) => (x === null ? '–' : (100 * x).toFixed(1));
const rows: TruthRow[] = [];
for (const plan of truthPlans()) {
  if (values.only && !nameOfPlan(plan).includes(values.only)) continue;
  const row = truthRow(plan, { runs, seed });
  rows.push(row);
  console.log(
    `${row.name}: beat ${percent(row.beat)}, pair ${percent(row.pair)}, winner ${percent(row.winner)}, value ${percent(row.value)}, card ${percent(row.card)}, untested ${percent(row.untested)}, found ${percent(row.power)}, tenfold ${percent(row.tenfold)}; usual beat ${percent(row.usualBeat)}, found ${percent(row.usualPower)}`,
  );
}
const looks = falseLooks({ runs, seed });
const looked = `second looks where nothing differs: uneven ${percent(looks.uneven)}, a far value ${percent(looks.outlier)}; factors ${percent(looks.factors)}`;
console.log(looked);
const line = worstLine(rows);
if (values.write) {
  const error = (share: number, n: number) => (100 * Math.sqrt((share * (1 - share)) / n)).toFixed(1);
  const cell = (r: TruthRow, x: number | null) =>
    x === null ? '–' : `${percent(x)} ± ${error(x, r.runs / 2)}`;
  const table = rows.map(
    (r) =>
      `| ${r.name} | ${cell(r, r.beat)} | ${cell(r, r.pair)} | ${percent(r.winner)} | ${percent(r.value)} | ${percent(r.card)} | ${percent(r.untested)} | ${cell(r, r.power)} | ${percent(r.tenfold)} | ${percent(r.usualBeat)} | ${percent(r.usualPower)} |`,
  );
  const over = rows.filter(
    (r) => Math.max(r.beat, r.pair) > r.hold + 2 * Math.sqrt((r.hold * (1 - r.hold)) / (r.runs / 2)),
  );
  const unable = rows.filter(neverAble);
  const list = (of: readonly TruthRow[]) => (of.length === 0 ? 'none' : of.map((r) => r.name).join('; '));
  writeFileSync(
    join(import.meta.dirname, '..', 'docs', 'truth.md'),
    `# What findings say of trials whose truth is known

Made by \`npm run truth -- --runs ${runs} --seed ${seed} --write\`; do not edit. Every row is a plan, its units made up by chance from a known truth (normal figures; counts and k of n that scatter more than by lot; steps, ranks and days from a normal scale; blocks differ by one spread), analysed by the functions that analyse real trials. Per cent of runs, with one Monte Carlo error.

- *false beat*: something is told from the control that isn't different (or the wrong way round); *false pair*: any two are; *false winner*: one alone is said to lead that doesn't. The worst of four truths: nothing differs, one contender does by what matters, one by ten times the spread, all do by what matters.
- *false value*, *false card*: somebody is named where nothing differs.
- *untested*: nothing could be tested. *found*: the one that differs by what matters is told from the control (weight: two spreads; k of ten: 40 to 80 %; scattered: 60 to 95 %; counts: 20 to 35, 2 to 6, 12 to 4; scores: two steps; days: two spreads). *tenfold*: the same at ten times the spread, or all of it.
- *usual*: what a plain R session would be asked for first on the same data (analysis of variance with Dunnett, Fisher on pooled counts, Poisson regression, Wilcoxon, log-rank; Holm): false beats where nothing differs, and found.

Held to 5 % and two errors (6 % where spreads differ). Above it: ${list(over)}. Hardly ever able to find what is there: ${list(unable)}.

| plan | false beat | false pair | false winner | false value | false card | untested | found | tenfold | usual false beat | usual found |
| --- | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: |
${table.join('\n')}

Beside the finding, four contenders of five units: ${looked}.

\`${line}\`
`,
  );
}
console.log(line);
