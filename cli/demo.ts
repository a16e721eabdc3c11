import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { exportTrial } from '~core/formats/dataPackage';
// oxlint-disable-next-line no-restricted-imports -- the demo bench is the app's own data, made from core alone
import { demoBench } from '../app/demo/demoBench';
import { findingsOf } from './findings';
import { readArgs } from './options';
import { PlainError } from './plainError';
import { needed } from './table';

export const demoUsage = `palazzo demo --out DIR`;

/** Writes the demo bench's trials as zips, with their pictures and readings, and returns their names. */
export function demo(args: string[]): string {
  const { values } = readArgs(args, { out: { type: 'string' } });
  const out = needed('out', values.out);
  const bench = demoBench(new Date());
  try {
    mkdirSync(out, { recursive: true });
    return bench.trials
      .map((trial) => {
        const of = <T extends { trialId: string }>(all: readonly T[]) =>
          all.filter((x) => x.trialId === trial.plan.id);
        const path = join(out, `${trial.plan.code}.zip`);
        const photos = of(bench.photos).map(({ photo }) => ({ ...photo, type: 'image/png' }));
        const series = of(bench.series).map(({ series: { body, times, columns } }) => ({
          seriesId: body.seriesId,
          times,
          columns,
        }));
        writeFileSync(path, exportTrial(trial, { photos, series }, findingsOf(trial)));
        return path;
      })
      .join('\n');
  } catch (fault) {
    throw new PlainError(`“${out}” can't be written: ${(fault as Error).message}`);
  }
}
