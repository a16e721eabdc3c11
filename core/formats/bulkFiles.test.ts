import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { expect, it } from 'vitest';
import { readingsSha256 } from '../series/readingsHash';
import { entry, plan, trialOf } from '../testing/trial';
import { importBulk } from './bulkFiles';
import { exportTrial, importTrial } from './dataPackage';

const bytes = Uint8Array.of(1, 2, 3, 255);
const hash = bytesToHex(sha256(bytes));
const times = Float64Array.of(Date.UTC(2026, 2, 1, 6), Date.UTC(2026, 2, 1, 6, 10));
const series = {
  seriesId: 's1',
  times,
  columns: [Float64Array.of(18.1, NaN), Float64Array.of(0.1 + 0.2, 61)],
};
const trial = trialOf(plan({ replicates: 1 }), [
  entry({ kind: 'photo', unitId: null, file: 'a.jpg', sha256: hash, caption: '' }),
  entry({
    kind: 'series',
    ...{ seriesId: 's1', name: 'Tent', unitId: null, treatmentId: null, rows: 2 },
    sha256: readingsSha256(series.times, series.columns),
    columns: [
      { name: 'temp', unit: '°C' },
      { name: 'rh', unit: '%' },
    ],
    from: '2026-03-01T06:00:00Z',
    to: '2026-03-01T06:10:00Z',
  }),
]);
const zip = exportTrial(trial, { photos: [{ sha256: hash, type: 'image/jpeg', bytes }], series: [series] });

it('pictures and readings travel in the zip, to the last bit, beside the same trial', () => {
  expect(importTrial(zip)).toEqual(importTrial(exportTrial(trial)));
  expect(importBulk(zip, trial)).toEqual({
    photos: [{ sha256: hash, type: 'image/jpeg', bytes }],
    series: [series],
    altered: [],
  });
  expect(strFromU8(unzipSync(zip)['series/s1.csv']!)).toBe(
    'time,temp,rh\n2026-03-01T06:00:00,18.1,0.30000000000000004\n2026-03-01T06:10:00,,61\n',
  );
});
it('a picture that isn’t the one the log names is left out, and one it doesn’t name', () => {
  const changed = zipSync({
    ...unzipSync(zip),
    [`photos/${hash}.jpg`]: strToU8('another'),
    'photos/stray.jpg': bytes,
    'series/stray.csv': strToU8('time\n'),
  });
  expect(importBulk(changed, trial)).toMatchObject({
    photos: [],
    altered: [expect.stringMatching(/^photos\//)],
  });
});
it('readings that were changed aren’t those the log names', () => {
  const files = unzipSync(zip);
  const text = strFromU8(files['series/s1.csv']!).replace('18.1', '24.1');
  const changed = zipSync({ ...files, 'series/s1.csv': strToU8(text) });
  expect(importBulk(changed, trial)).toMatchObject({
    series: [],
    altered: [expect.stringMatching(/^series\//)],
  });
});
it('pictures and readings that unpack to many times their size aren’t unpacked', () => {
  const big = new Uint8Array(30_000_000);
  const bomb = bytesToHex(sha256(big));
  const named = trialOf(plan({ replicates: 1 }), [
    entry({ kind: 'photo', unitId: null, file: 'a.jpg', sha256: bomb, caption: '' }),
  ]);
  const zipped = zipSync({ [`photos/${bomb}.jpg`]: big, 'series/s1.csv': big }, { level: 9 });
  expect(zipped.length).toBeLessThan(200_000);
  expect(importBulk(zipped, named)).toEqual({
    photos: [],
    series: [],
    altered: [expect.any(String), expect.any(String)],
  });
  // One that is as large as it says is read, whatever is in it.
  expect(importBulk(zipSync({ [`photos/${bomb}.jpg`]: big }, { level: 0 }), named).photos).toHaveLength(1);
});
