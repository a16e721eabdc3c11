// A trial's file tampered with in every way its reader could meet: what is told, and what only a posted hash tells.
import { createHash } from 'node:crypto';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { exportTrial } from '~core/formats/dataPackage';
import { recordOf } from '~core/formats/record';
import { shortCode } from '~core/plan/shortCode';
import type { Entry } from '~core/log/entry';
import { planSha256 } from '~core/plan/seal';
import { entry, harvest, plan, trialOf, unitId } from '~core/testing/trial';
import { main } from './main';

const dir = mkdtempSync(join(tmpdir(), 'palazzo-verify-'));
const p = plan({ treatments: ['Water', 'A'], replicates: 3 });
const bytes = strToU8('no picture, but bytes of one');
const sha = createHash('sha256').update(bytes).digest('hex');
const photo = { kind: 'photo' as const, unitId: unitId('A', 0), file: 'a.jpg', sha256: sha, caption: '' };
const log = [
  entry({ kind: 'seal', planSha256: planSha256(p) }, 'the-seal'),
  ...harvest({ Water: [1, 2, 3], A: [4, 5, 6] }),
  entry(photo, 'the-photo'),
];
const zip = exportTrial(trialOf(p, log), {
  photos: [{ sha256: sha, type: 'image/jpeg', bytes }],
  series: [],
});
let n = 0;
const verified = (file: Uint8Array, ...more: string[]) => {
  const path = join(dir, `${n++}.zip`);
  writeFileSync(path, file);
  const ended = main(['verify', path, '--json', ...more]);
  const said: Record<string, unknown> = { status: ended.status };
  return Object.assign(said, JSON.parse(ended.stdout || '{}') as object);
};
const changed = (name: string, change: (text: string) => string | null) => {
  const files = unzipSync(zip);
  const text = change(strFromU8(files[name]!));
  if (text === null) delete files[name];
  else files[name] = strToU8(text);
  return zipSync(files);
};
const inLog = (change: (lines: Entry[]) => unknown[]) =>
  changed('log.json', (text) => JSON.stringify(change(JSON.parse(text) as Entry[])));

describe('a file as it was written', () => {
  it('is as it says, also when it is packed and laid out anew', () => {
    const whole = { status: 0, seal: 'ok', lines: 8, altered: [], bulk: { checked: 1, altered: [] } };
    expect(verified(zip)).toMatchObject(whole);
    expect(verified(inLog((l) => l))).toMatchObject(whole);
  });
  it('has one hash, whoever reads it', () => {
    const { signed } = verified(zip);
    expect(signed).toMatch(/^[0-9a-f]{64}$/);
    expect(verified(zip)['signed']).toBe(signed);
  });
  it('holds against the seal that was posted, as hash or short code', () => {
    expect(verified(zip, '--seal', planSha256(p)).status).toBe(0);
    expect(verified(zip, '--seal', shortCode(planSha256(p)).toLowerCase()).status).toBe(0);
    expect(verified(zip, '--seal', 'f'.repeat(64))).toMatchObject({ status: 1, seal: 'differs' });
    expect(verified(exportTrial(trialOf(p, [])), '--seal', planSha256(p))).toMatchObject({ status: 1 });
  });
});

describe('a file that was tampered with', () => {
  it.each<[string, Uint8Array, string[]]>([
    ['a value changed', inLog((l) => l.map((e, i) => (i === 2 ? { ...e, value: 99 } : e))), [log[2]!.id]],
    ['a line taken out', inLog((l) => l.filter((_, i) => i !== 3)), [log[3]!.id]],
    ['a line put in', inLog((l) => [...l, { ...l[2]!, id: 'new', counter: 99 }]), ['new']],
    ['two lines changed over', inLog((l) => [l[0], l[2], l[1], ...l.slice(3)]), [log[1]!.id, log[2]!.id]],
    [
      'a table changed',
      changed('data/observations.csv', (t) => t.replace('4', '9')),
      ['data/observations.csv'],
    ],
    ['a table taken out', changed('data/observations.csv', () => null), ['data/observations.csv']],
    [
      'the record changed by hand',
      changed('hashes.json', (t) => t.replace(/"signed":"./, '"signed":"x')),
      ['hashes.json'],
    ],
  ])('%s', (_, file, altered) => {
    const found = verified(file);
    expect(found.status).toBe(1);
    expect((found['altered'] as string[]).sort()).toEqual(altered.sort());
  });
  it('a plan changed after the seal is told by the seal', () => {
    const other = changed('plan.json', (t) => t.replace('"prediction": "', '"prediction": "I knew. '));
    expect(verified(other)).toMatchObject({ status: 1, seal: 'differs', altered: ['plan.json'] });
  });
  it('a picture that isn’t the one the log names', () => {
    const other = changed(`photos/${sha}.jpg`, () => 'another');
    expect(verified(other)).toMatchObject({
      status: 1,
      bulk: { checked: 1, altered: [`photos/${sha}.jpg`] },
    });
  });
  it('made anew from end to end it fits itself: only the posted seal tells', () => {
    const forged = { ...p, prediction: 'I knew.' };
    const anew = exportTrial(trialOf(forged, [entry({ kind: 'seal', planSha256: planSha256(forged) }, 's')]));
    expect(verified(anew)).toMatchObject({ status: 0, seal: 'ok' });
    expect(verified(anew, '--seal', planSha256(p))).toMatchObject({ status: 1, seal: 'differs' });
  });
  it('an older file says nothing of itself, and that is said', () => {
    expect(verified(changed('hashes.json', () => null))).toMatchObject({ status: 0, unsigned: true });
  });
});

it('bad input is one line, and 2', () => {
  expect(main(['verify', join(dir, 'nowhere.zip')]).status).toBe(2);
  writeFileSync(join(dir, 'x.zip'), 'no zip');
  expect(main(['verify', join(dir, 'x.zip')])).toMatchObject({ status: 2, stdout: '' });
  writeFileSync(join(dir, 'ok.zip'), zip);
  expect(main(['verify', join(dir, 'ok.zip'), '--seal', 'short'])).toMatchObject({ status: 2 });
  expect(main(['verify', join(dir, 'ok.zip')]).stdout).toContain('the plan is the one that was sealed');
});

it('a short code is the first 80 bits', () => {
  expect(shortCode('0'.repeat(64))).toBe('0000-0000-0000-0000');
  expect(shortCode('f'.repeat(64))).toBe('ZZZZ-ZZZZ-ZZZZ-ZZZZ');
  // 0x8 = 10000 binary in its first five bits: letter 16, G.
  expect(shortCode(`8${'0'.repeat(63)}`)).toBe('G000-0000-0000-0000');
  expect(recordOf({ a: 1 }, []).plan).toBe(createHash('sha256').update('{"a":1}').digest('hex'));
});
