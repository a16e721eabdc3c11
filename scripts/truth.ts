import { parseArgs } from 'node:util';
import { truthRows } from '../core/testing/truthGrid';

const { values } = parseArgs({
  options: {
    runs: { type: 'string', default: '400' },
    seed: { type: 'string', default: '3' },
    only: { type: 'string', default: '' },
  },
});
const started = Date.now();
for (const row of truthRows({ runs: Number(values.runs), seed: Number(values.seed), only: values.only })) {
  const p = (x: number | null) => (x === null ? '–' : (100 * x).toFixed(1)).padStart(6);
  console.log(
    `${row.name.padEnd(56)} beat ${p(row.beat)} pair ${p(row.pair)} winner ${p(row.winner)} untested ${p(row.untested)} power ${p(row.power)} tenfold ${p(row.tenfold)} value ${p(row.value)} card ${p(row.card)} ${((Date.now() - started) / 1000).toFixed(0)}s`,
  );
}
