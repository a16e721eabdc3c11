// Every reader of files, with a good file of its kind to spoil, and what must hold of what it takes in.
import '../../app/testing/browserGlobals';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { exportTrial, importTrial } from '~core/formats/dataPackage';
import { importBulk } from '~core/formats/bulkFiles';
import { readTable } from '~core/formats/csv';
import { readGridText } from '~core/formats/gridText';
import { libraryFromFile, libraryToFile } from '~core/formats/libraryFile';
import { pastedRows, readFigure } from '~core/log/pasted';
import { deriveState } from '~core/log/state';
import { pasteIntoChart } from '~core/mixing/chartPaste';
import type { FeedingChart } from '~core/mixing/feedingChart';
import { toICalendar } from '~core/formats/iCalendar';
import { pictureSize } from '~core/imaging/pictureSize';
import { planSha256 } from '~core/plan/seal';
import { parseRate } from '~core/quantity/rate';
import { pageColours } from '~core/picture/paper';
import { toHtml } from '~core/report/html';
import { trialReview } from '~core/report/trialReview';
import { decodeText } from '~core/series/decodeText';
import { readLogger } from '~core/series/loggerFile';
import { entry, harvest, height, plan, product, trialOf, unitId, use } from '~core/testing/trial';
import { makeFinding } from '~core/account/finding';
import { trialFindings } from '~core/account/trialFindings';
import { LetterHead, packLetter, unpackLetter } from '../../app/lan/letter';
import { readBackup, writeBackup } from '../../app/store/backup';
import { bench } from '../../app/store/bench';
import { forget } from '../../app/store/trialMemory';
import { saveProduct } from '../../app/store/products';
import { createTrial } from '../../app/store/trials';
import { onBench } from '../../app/testing/browserGlobals';
import { type Spoiling, nasty } from './mutate';

type Say = (what: 'invalid', detail: string) => void;

const p = plan({ treatments: ['Water', 'A'], replicates: 3 });
const good = trialOf(
  {
    ...p,
    products: [product()],
    treatments: p.treatments.map((t, i) => (i === 1 ? { ...t, products: [use()] } : t)),
  },
  [
    entry({ kind: 'seal', planSha256: planSha256(p) }),
    ...harvest({ Water: [50, 51, 52], A: [60, 61, 62] }),
    entry(height(unitId('Water', 0), 5.5)),
    entry({ kind: 'note', unitId: null, text: 'a note' }),
  ],
  { key: { order: p.treatments.map((t) => t.id) } },
);
const goodZip = exportTrial(good);
const goodFiles = unzipSync(goodZip);
const goodLibrary = libraryToFile([product()]);
const goodLogger = ['time,temp (°C),rh (%)', ...Array.from({ length: 60 }, (_, i) => `2026-03-${String(1 + (i % 28)).padStart(2, '0')} 1${i % 10}:00,${20 + (i % 5)}.5,${50 + i}`)].join('\n'); // prettier-ignore

/** `steps`: so many readings one after the other, each of which may take as long as one */
export type Reader = readonly [name: string, run: () => void | Promise<void>, steps?: number];

/**
 * All readers, each with a file spoilt anew at every run; and bombs, made once because packing them takes longer than
 * refusing them may.
 *
 * @param said what was taken in and isn't valid
 */
export async function readersOf(spoil: Spoiling, said: Say): Promise<{ readers: Reader[]; bombs: Reader }> {
  const { random, below, oneOf, mutated, mutatedBytes, mutatedText } = spoil;

  /** A zip whose parts claim to be huge, or unpack to far more than they are. */
  function bomb(): Uint8Array {
    const huge = new Uint8Array(oneOf([5, 30, 90]) * 1_000_000).fill(oneOf([0x20, 0x5b, 0x30]));
    return zipSync({
      ...goodFiles,
      [oneOf(['log.json', 'plan.json', 'sealed-plan.json'])]: [huge, { level: 9 }],
    });
  }

  /** What is taken in has to be whole: derived, exported to the same again, judged and printed without a tag in it. */
  function checkTrial(zip: Uint8Array): void {
    const read = importTrial(zip);
    if (!read.ok) return;
    const trial = read.value;
    const state = deriveState(trial.plan, trial.log);
    planSha256(trial.plan);
    const again = importTrial(exportTrial(trial));
    if (!again.ok || JSON.stringify(again.value) !== JSON.stringify(trial)) {
      said('invalid', `comes back as another: ${again.ok ? 'differs' : JSON.stringify(again.error)}`);
    }
    for (const { input } of trialFindings(trial, state).inputs.slice(0, 4)) makeFinding(input);
    const review = trialReview(trial, '2026-04-01');
    if (review) {
      const html = toHtml(review.title, review.blocks, () => '', pageColours, {});
      if (
        /<script(?! type="application\/json" id="card-data")|<img (?!alt)| onerror=(?!alert\(1\)&gt;)/i.test(
          html.replace(/&lt;[^<]*/g, ''),
        )
      )
        said('invalid', 'a text became markup');
    }
    const tables = unzipSync(exportTrial(trial));
    for (const [name, bytes] of Object.entries(tables)) {
      if (!name.endsWith('.csv')) continue;
      if (/(^|[,\n])"?[=@]/.test(new TextDecoder().decode(bytes)))
        said('invalid', `${name}: a cell a spreadsheet would run`);
    }
  }

  function checkLogger(text: string): void {
    const read = readLogger(text);
    if (!read.ok) return;
    const { times, columns } = read.value;
    for (const c of columns)
      if (c.values.length !== times.length) said('invalid', 'columns of unequal length');
    for (let i = 0; i < times.length; i++)
      if (!Number.isFinite(times[i]!) || (i > 0 && times[i]! < times[i - 1]!))
        return said('invalid', 'times out of order');
  }

  /** A picture as bytes that begin like one. */
  const photo = Uint8Array.from([0xff, 0xd8, 0xff, 0xe0, ...Array.from({ length: 900 }, (_, i) => i % 251)]);
  const photoSha = bytesToHex(sha256(photo));
  const withPhoto = {
    ...good,
    log: [
      ...good.log,
      entry({ kind: 'photo', unitId: unitId('Water', 0), file: 'a.jpg', sha256: photoSha, caption: '' }),
    ],
  };
  const photoZip = exportTrial(withPhoto, {
    photos: [{ sha256: photoSha, type: 'image/jpeg', bytes: photo }],
    series: [],
  });

  /** Pictures and readings of a file: none may be taken whose bytes aren't those the log names. */
  function checkBulk(zip: Uint8Array): void {
    const read = importTrial(zip);
    if (!read.ok) return;
    for (const p of importBulk(zip, read.value).photos)
      if (bytesToHex(sha256(p.bytes)) !== p.sha256) said('invalid', 'a picture under another’s hash');
  }

  onBench('own');
  await createTrial(good.plan, good.review, good.log, good.key);
  await saveProduct(product());
  const goodBackup = new Uint8Array(
    await (await writeBackup({ withKeys: true, onProgress: () => {} })).blob!.arrayBuffer(),
  );
  const backupFiles = unzipSync(goodBackup);

  /** What was taken out of a backup can be saved and read again, whatever else was in it. */
  async function takenOut(bytes: Uint8Array): Promise<void> {
    const read = await readBackup(new Blob([bytes as Uint8Array<ArrayBuffer>]));
    if (!read.ok) return;
    onBench('demo');
    try {
      const db = await bench();
      for (const table of db.tables) await table.clear();
      forget(good.plan.id);
      await read.value.apply();
      const { faults } = await writeBackup({ withKeys: true });
      if (faults.length > 0)
        said('invalid', `taken in, and can’t be saved again: ${faults[0]!.filename}: ${faults[0]!.why}`);
    } finally {
      onBench('own');
    }
  }

  async function checkBackup(bytes: Uint8Array): Promise<void> {
    const read = await readBackup(new Blob([bytes as Uint8Array<ArrayBuffer>]));
    if (!read.ok && (read.error.length > 400 || /undefined|\[object/.test(read.error)))
      said('invalid', `a backup refused without a plain word: ${read.error}`);
  }

  const chart: FeedingChart = {
    columns: [{ stage: 'Week 1', fromDay: 0, strengthPercent: 100 }],
    rows: [{ productId: 'feed', cells: ['1 mL/L'] }],
    everyDays: 7,
    lastDay: 6,
  };
  const goodPaste = '1 mL/L\t2 mL/L\t3 mL/L\n4 mL/L\t5 mL/L\t6 mL/L';

  function checkChart(text: string): void {
    const pasted = pasteIntoChart(chart, below(3), below(3), text);
    if (pasted === null || pasted === 'tooLarge') return;
    if (pasted.rows.some((r) => r.cells.length !== pasted.columns.length))
      said('invalid', 'a chart with cells beside its columns');
  }

  function checkLetter(bytes: Uint8Array): void {
    const letter = unpackLetter(bytes);
    if (letter && !LetterHead.safeParse(letter.head).success) said('invalid', 'a letter that isn’t one');
  }
  const goodLetter = packLetter(
    { kind: 'trial', trialId: good.plan.id, base: null, overrules: [] },
    goodZip.slice(0, 500),
  );

  /** A text that would like to be more. */
  const hostile = (): string =>
    oneOf(nasty) +
    oneOf(['\r\n', '\n', '\r', '\u2028', ';', '\\']) +
    oneOf(['BEGIN:VEVENT', 'END:VCALENDAR', ...nasty]);
  /** A backup with one trial spoilt: the good one must come all the same. */
  const withSpoiltTrial = () => {
    const name = Object.keys(backupFiles).find((n) => n.startsWith('trials/'))!;
    return zipSync({ ...backupFiles, 'trials/spoilt.zip': mutatedBytes(backupFiles[name]!) }, { level: 0 });
  };

  const readers: Reader[] = [
    ['photos', () => checkBulk(mutatedBytes(photoZip))],
    ['backup, bytes', () => checkBackup(mutatedBytes(goodBackup))],
    [
      'backup, taken out',
      () => takenOut(random.uniform() < 0.5 ? withSpoiltTrial() : mutatedBytes(goodBackup)),
      3,
    ],
    [
      'calendar',
      () => {
        const events = Array.from({ length: 1 + below(3) }, (_, i) => ({
          ...{ uid: `${i}`, date: '2026-03-02', at: oneOf([null, '08:00']), minutes: 5 },
          ...{ summary: hostile(), description: hostile(), location: hostile() },
        }));
        const text = toICalendar(events, { timeZone: 'Europe/Berlin', now: 0, name: hostile() });
        const begun = (what: string) => text.split('\r\n').filter((l) => l === `BEGIN:${what}`).length;
        if (begun('VEVENT') !== events.length || begun('VCALENDAR') !== 1 || /\r(?!\n)|(?<!\r)\n/.test(text))
          said('invalid', 'a text wrote lines of its own into a calendar');
      },
    ],
    ['picture size', () => void pictureSize(mutatedBytes(photo))],
    [
      'backup, values',
      () => {
        const name = oneOf(['backup.json', 'library.json', 'keys.json']);
        const json: unknown = JSON.parse(new TextDecoder().decode(backupFiles[name] ?? strToU8('{}')));
        const text = random.uniform() < 0.8 ? JSON.stringify(mutated(json)) : '['.repeat(50_000);
        return checkBackup(zipSync({ ...backupFiles, [name]: strToU8(text) }, { level: 1 }));
      },
    ],
    [
      'chart paste',
      () =>
        checkChart(
          random.uniform() < 0.9 ? mutatedText(goodPaste) : oneOf(['\t', '\n', 'x\t']).repeat(90_000),
        ),
    ],
    ['letter', () => checkLetter(mutatedBytes(goodLetter))],
    [
      'pasted values',
      () => {
        const columns = [['height'], ['sample 2', '2']].map((names) => ({
          ...{ names: names as [string, ...string[]], read: readFigure },
        }));
        for (const n of [1, 2])
          pastedRows(mutatedText('TST-01 1.5\nTST-02 2\nTST-03 3'), p.units, columns.slice(0, n));
      },
    ],
    ['trial, bytes', () => checkTrial(mutatedBytes(goodZip))],
    [
      'trial, values',
      () => {
        const name = oneOf(['plan.json', 'log.json', 'plan.json', 'key.json']);
        const json: unknown = JSON.parse(new TextDecoder().decode(goodFiles[name]));
        checkTrial(zipSync({ ...goodFiles, [name]: strToU8(JSON.stringify(mutated(json))) }, { level: 1 }));
      },
    ],
    [
      'trial, JSON text',
      () => {
        const name = oneOf(['plan.json', 'log.json', 'sealed-plan.json', 'conflicts.json']);
        const depth = oneOf([10, 70, 50_000]);
        const text = oneOf([
          '['.repeat(depth) + ']'.repeat(depth),
          '{"a":'.repeat(depth) + '1' + '}'.repeat(depth),
          mutatedText(new TextDecoder().decode(goodFiles[name] ?? goodFiles['plan.json'])),
          '{"__proto__":{"polluted":1}}',
          '"\\ud800"',
        ]);
        checkTrial(zipSync({ ...goodFiles, [name]: strToU8(text) }, { level: 1 }));
      },
    ],
    [
      'library',
      () => {
        const text =
          random.uniform() < 0.7
            ? JSON.stringify(mutated(JSON.parse(goodLibrary)))
            : mutatedText(goodLibrary);
        const read = libraryFromFile(text);
        if (!read.ok) return;
        const again = libraryFromFile(libraryToFile(read.value));
        if (!again.ok || JSON.stringify(again.value) !== JSON.stringify(read.value))
          said('invalid', 'a library comes back as another');
      },
    ],
    ['logger, text', () => checkLogger(mutatedText(goodLogger))],
    ['logger, bytes', () => checkLogger(decodeText(mutatedBytes(strToU8(goodLogger))))],
    ['table', () => void readTable(mutatedText(goodLogger))],
    ['grid', () => void readGridText(mutatedText('1\t2\n4\t5\n6\t7'), p.areas)],
    [
      'rate',
      () =>
        void parseRate(
          `${oneOf(['1', '1/2', '1–2', ...nasty])} ${oneOf(['tsp', 'mL', 'g', ...nasty])}/${oneOf(['gal', 'L', 'm²', ...nasty])}`,
        ),
    ],
  ];

  const bombs = Array.from({ length: 9 }, bomb);
  return { readers, bombs: ['trial, bomb', () => checkTrial(oneOf(bombs))] };
}
