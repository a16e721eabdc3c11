// A bench of the size the design asks for, as a backup that the built app brings back.
import { randomBytes } from 'node:crypto';
import { createWriteStream, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Writable } from 'node:stream';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { TextReader, Uint8ArrayReader, ZipWriter } from '@zip.js/zip.js';
import { encode } from 'jpeg-js';
import { exportTrial } from '~core/formats/dataPackage';
import { libraryToFile } from '~core/formats/libraryFile';
import { drawPlants } from '~core/imaging/drawPlants';
import type { Entry } from '~core/log/entry';
import type { TrialId } from '~core/model/ids';
import { planSha256 } from '~core/plan/seal';
import { readingsSha256 } from '~core/series/readingsHash';
import { entry, heightTrait, plan as smallPlan, trialOf } from '~core/testing/trial';
import { seededRandom } from '~core/stats/random';
import { largeTrial } from './largeTrial';

export interface BenchSize {
  trials: number;
  photos: number;
  /** rounds of the large trial: 2,400 entries each */
  rounds: number;
  readings: number;
}

/** A finished trial as most are: 24 units, three traits, five rounds. */
function usualTrial(i: number, pictures: Entry[]) {
  const traits = ['Height', 'Leaves', 'Width'].map((name) => heightTrait({ id: name as never, name }));
  const base = smallPlan({ treatments: ['Water', 'A', 'B', 'C'], replicates: 6, blocked: true, traits });
  const plan = {
    ...base,
    id: `usual-${i}` as TrialId,
    code: `U${i}` as typeof base.code,
    question: `Which feed grows the tallest rocket, ${i}?`,
    startDate: new Date(Date.now() - (i + 30) * 86_400_000).toISOString().slice(0, 10),
    rounds: [0, 7, 14, 21, 28].map((day) => ({
      ...{ id: `r${day}` as never, name: `Day ${day}`, day },
      traitIds: traits.map((t) => t.id),
    })),
  };
  const random = seededRandom(i);
  const log: Entry[] = [entry({ kind: 'seal', planSha256: planSha256(plan) })];
  for (const round of plan.rounds)
    for (const t of traits)
      for (const u of plan.units) {
        const arm = plan.treatments.findIndex((x) => x.id === u.treatmentId);
        const value = Number((10 + round.day / 3 + arm + random.normal()).toFixed(1));
        const which = { unitId: u.id, traitId: t.id, roundId: round.id };
        log.push(entry({ kind: 'measurement', ...which, sample: null, value }));
      }
  return { plan, log: [...log, ...pictures] };
}

/** Writes the backup into a file, one part after the other. @returns its path */
export async function writeLargeBench(size: BenchSize): Promise<string> {
  const path = join(mkdtempSync(join(tmpdir(), 'palazzo-bench-')), 'bench.zip');
  const zip = new ZipWriter(Writable.toWeb(createWriteStream(path)) as WritableStream, { level: 0 });
  const about = { palazzo: 'backup', version: 1, withKeys: false, madeAt: new Date().toISOString() };
  await zip.add('backup.json', new TextReader(JSON.stringify(about)));
  await zip.add('library.json', new TextReader(libraryToFile([])));
  const base = smallPlan({ treatments: ['Water', 'A', 'B', 'C'], replicates: 6 });
  // One picture as a phone takes it, made different each time by what stands after its end.
  const drawn = drawPlants({
    ...{ width: 480, height: 360, cover: 0.4, seed: 1 },
    ...{ leaf: [78, 138, 52] as const, ground: [94, 74, 58] as const },
  });
  const jpeg = encode({ ...drawn, data: Buffer.from(drawn.data) }, 80).data;
  const pictureOf = (trialId: string, i: number) => {
    const bytes = new Uint8Array(Buffer.concat([jpeg, randomBytes(100_000)]));
    const hash = bytesToHex(sha256(bytes));
    const line = entry({
      ...{ kind: 'photo', unitId: base.units[i % 24]!.id, file: `${i}.jpg`, caption: '' },
      ...{ sha256: hash, thumbSha256: hash, width: 480, height: 360 },
    });
    return { bytes, hash, line, trialId };
  };
  const photosEach = Math.ceil(size.photos / size.trials);
  for (let i = 0, made = 0; i < size.trials - 1; i++) {
    const own = Array.from({ length: Math.min(photosEach, size.photos - made) }, (_, k) =>
      pictureOf(`usual-${i}`, k),
    );
    made += own.length;
    const { plan, log } = usualTrial(
      i,
      own.map((p) => p.line),
    );
    await zip.add(`trials/${plan.id}.zip`, new Uint8ArrayReader(exportTrial(trialOf(plan, log))));
    for (const { hash, bytes, trialId } of own)
      await zip.add(`photos/${hash}.jpg`, new Uint8ArrayReader(bytes), { comment: trialId });
  }
  const { plan, log } = largeTrial(size.rounds);
  const from = Date.parse(`${plan.startDate}T00:00:00Z`);
  const times = Float64Array.from({ length: size.readings }, (_, i) => from + i * 5_000);
  const columns = [Float64Array.from(times, (_, i) => 18 + 6 * Math.sin(i / 2750) + (i % 7) / 10)];
  const readings = entry({
    ...{ kind: 'series', seriesId: 'air', name: 'shelf logger', unitId: null, treatmentId: null },
    ...{ columns: [{ name: 'temperature', unit: '°C' }], rows: times.length },
    ...{ from: new Date(from).toISOString(), to: new Date(times.at(-1) ?? from).toISOString() },
    sha256: readingsSha256(times, columns),
  });
  const series = [{ seriesId: 'air', times, columns }];
  const bytes = exportTrial(trialOf(plan, [...log, readings]), { photos: [], series });
  await zip.add(`trials/${plan.id}.zip`, new Uint8ArrayReader(bytes));
  await zip.close();
  return path;
}
