import type { AreaId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import { extentOf } from '~core/series/held';
import type { LoggerTable } from '~core/series/loggerFile';
import { wallText } from '~core/series/moment';
import { readingsSha256 } from '~core/series/readingsHash';
import { describeChangeError } from '../../../store/errors';
import { appendEntries } from '../../../store/trials';

/** A moment by the clock on the wall, with the offset it has here. */
function withOffset(ms: number): string {
  const wall = wallText(ms);
  const minutes = -new Date(wall).getTimezoneOffset();
  const two = (n: number) => String(Math.floor(n)).padStart(2, '0');
  const size = Math.abs(minutes);
  return `${wall}${minutes < 0 ? '-' : '+'}${two(size / 60)}:${two(size % 60)}`;
}

/**
 * Keeps a logger’s readings, and a line in the log that names them by their hash.
 * @returns what was wrong; null when it is kept
 */
export async function keepLogger(
  trialId: string,
  table: Pick<LoggerTable, 'times' | 'columns'>,
  name: string,
  areaId: string | null,
): Promise<string | null> {
  const seriesId = newId<AreaId>() as string;
  const { times, columns } = table;
  const readings = { seriesId, times, columns: columns.map((c) => c.values) };
  const written = await appendEntries(
    trialId,
    [
      {
        kind: 'series',
        seriesId,
        name: name.slice(0, 120) || 'Logger',
        unitId: null,
        treatmentId: null,
        ...(areaId !== null && { areaId: areaId as AreaId }),
        columns: columns.map((c) => {
          const extent = extentOf(c.values);
          return {
            name: c.name.slice(0, 80),
            unit: (c.unit ?? '').slice(0, 20),
            ...(c.quantity && { quantity: c.quantity }),
            ...(extent && { min: extent.min, mean: extent.mean, max: extent.max }),
          };
        }),
        from: withOffset(times[0]!),
        to: withOffset(times.at(-1)!),
        rows: times.length,
        sha256: readingsSha256(times, readings.columns),
      },
    ],
    undefined,
    { photos: [], series: [readings] },
  );
  return written.ok ? null : describeChangeError(written.error);
}
