import fc from 'fast-check';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { plan, trialOf } from '../testing/trial';
import { describeImportError, exportTrial, importTrial } from './dataPackage';
import { MOST_DEEP, safeJson } from './safeJson';

const nested = (n: number) => '['.repeat(n) + ']'.repeat(n);

describe('JSON from outside', () => {
  it('is what JSON.parse makes of it, for anything that isn’t out of the ordinary', () => {
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 8 }), (value) => {
        const text = JSON.stringify(value);
        expect(safeJson(text)).toEqual({ ok: true, value: JSON.parse(text) });
      }),
    );
  });
  it('nested too deep is refused, whatever stands in its strings', () => {
    expect(safeJson(nested(MOST_DEEP)).ok).toBe(true);
    expect(safeJson(nested(MOST_DEEP + 1))).toEqual({ ok: false, error: 'tooDeep' });
    expect(safeJson(nested(200_000))).toEqual({ ok: false, error: 'tooDeep' });
    expect(safeJson(JSON.stringify('['.repeat(500) + '\\"' + '{'.repeat(500))).ok).toBe(true);
  });
  it('halves of characters become a sign for what can’t be shown, in keys too; whole ones stay', () => {
    expect(safeJson('["\\ud83c\\udf31", "\\ud800x", "\\udc00", {"\\ud801": 1}]')).toEqual({
      ok: true,
      value: ['🌱', '\uFFFDx', '\uFFFD', { '\uFFFD': 1 }],
    });
  });
  it('keys that mean something to JavaScript are keys', () => {
    const read = safeJson('{"__proto__": {"polluted": 1}}');
    expect(read.ok && Object.keys(read.value as object)).toEqual(['__proto__']);
    expect(({} as { polluted?: number }).polluted).toBeUndefined();
  });
});

describe('a trial’s zip', () => {
  const files = unzipSync(exportTrial(trialOf(plan())));
  const refused = (part: Record<string, Uint8Array>) => {
    const read = importTrial(zipSync({ ...files, ...part }, { level: 9 }));
    return read.ok ? 'taken in' : describeImportError(read.error);
  };
  it('that unpacks to a thousand times its size isn’t unpacked', () => {
    expect(refused({ 'log.json': new Uint8Array(20_000_000).fill(0x20) })).toMatch(/no log\.json/);
  });
  it('whose sealed plan is nested without end is refused in words', () => {
    expect(refused({ 'sealed-plan.json': strToU8(nested(5000)) })).toMatch(
      /sealed-plan\.json is nested deeper than any real one/,
    );
  });
});
