import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { mainOrSlow } from './main';

const dir = mkdtempSync(join(tmpdir(), 'palazzo-read-'));
const file = (name: string, content: string | Uint8Array) => {
  writeFileSync(join(dir, name), content);
  return join(dir, name);
};
const asked = async (...args: string[]) => {
  const { status, stdout, stderr } = await mainOrSlow(['read', ...args]);
  return { status, stderr, json: status === 0 ? (JSON.parse(stdout) as Record<string, unknown>) : null };
};

/** A workbook as small as there is: sheets of inline texts and numbers (ECMA-376). */
function workbook(sheets: Record<string, (string | number)[][]>): Uint8Array {
  const names = Object.keys(sheets);
  const ns = 'http://schemas.openxmlformats.org';
  const column = (i: number) => String.fromCharCode(65 + i);
  const cell = (v: string | number, at: string) =>
    typeof v === 'number'
      ? `<c r="${at}"><v>${v}</v></c>`
      : `<c r="${at}" t="inlineStr"><is><t>${v}</t></is></c>`;
  const sheet = (rows: (string | number)[][]) =>
    `<?xml version="1.0"?><worksheet xmlns="${ns}/spreadsheetml/2006/main"><sheetData>${rows
      .map((r, i) => `<row r="${i + 1}">${r.map((v, j) => cell(v, `${column(j)}${i + 1}`)).join('')}</row>`)
      .join('')}</sheetData></worksheet>`;
  const parts: Record<string, string> = {
    '[Content_Types].xml': `<?xml version="1.0"?><Types xmlns="${ns}/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/></Types>`,
    '_rels/.rels': `<?xml version="1.0"?><Relationships xmlns="${ns}/package/2006/relationships"><Relationship Id="r1" Type="${ns}/officeDocument/2006/relationships/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    'xl/workbook.xml': `<?xml version="1.0"?><workbook xmlns="${ns}/spreadsheetml/2006/main" xmlns:r="${ns}/officeDocument/2006/relationships"><sheets>${names.map((n, i) => `<sheet name="${n}" sheetId="${i + 1}" r:id="s${i + 1}"/>`).join('')}</sheets></workbook>`,
    'xl/_rels/workbook.xml.rels': `<?xml version="1.0"?><Relationships xmlns="${ns}/package/2006/relationships">${names.map((_, i) => `<Relationship Id="s${i + 1}" Type="${ns}/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet${i + 1}.xml"/>`).join('')}</Relationships>`,
  };
  names.forEach((n, i) => (parts[`xl/worksheets/sheet${i + 1}.xml`] = sheet(sheets[n]!)));
  return zipSync(Object.fromEntries(Object.entries(parts).map(([n, t]) => [n, strToU8(t)])));
}

const rows = [
  ['Feed', 'Yield (g)'],
  ['Water', 12.5],
  ['Water', 13.1],
  ['A', 15.2],
  ['A', 16],
];
const csv = rows.map((r) => r.join(',')).join('\n');

describe('palazzo read', () => {
  it('prints exactly the promised keys', async () => {
    const { json } = await asked(file('a.csv', csv), '--json');
    expect(Object.keys(json!)).toEqual([
      'shape',
      'decimal',
      'rows',
      'left',
      'control',
      'columns',
      'findings',
    ]);
    expect(json).toMatchObject({
      ...{ shape: 'long', decimal: '.', rows: 4, left: [], control: 'Water' },
      columns: [
        { name: 'Feed', role: 'treatment' },
        { name: 'Yield', role: 'response', kind: 'number', unit: 'g' },
      ],
      findings: [
        {
          ...{ trait: 'Yield', round: null, crop: null, method: 'linear' },
          versusControl: [{ name: 'A', difference: expect.closeTo(2.8, 10) as number }],
        },
      ],
    });
  });
  it('a workbook says what the same cells as text say; a sheet is named', async () => {
    const book = file('b.xlsx', workbook({ Notes: [['nothing', 'here']], Results: rows }));
    const fromText = (await asked(file('a.csv', csv), '--json')).json;
    expect((await asked(book, '--sheet', 'Results', '--json')).json).toEqual(fromText);
    expect(await asked(book, '--sheet', 'Else')).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('there are Notes, Results') as string,
    });
  });
  it('semicolons and tabs are read as commas are', async () => {
    const fromText = (await asked(file('a.csv', csv), '--json')).json;
    expect((await asked(file('a.tsv', csv.replaceAll(',', '\t')), '--json')).json).toEqual(fromText);
    const comma = csv.replaceAll(',', ';').replaceAll('.', ',');
    expect((await asked(file('c.csv', comma), '--json')).json).toEqual({ ...fromText, decimal: ',' });
  });
  it.each([
    [['nowhere.csv'], "can't be read"],
    [[file('d.csv', 'one,two\nx,y')], 'No heading'],
    [[file('a.csv', csv), '--treatment', 'Sort'], 'There is no column “Sort”'],
    [[file('a.csv', csv), '--control', 'B'], 'isn’t among the treatments: Water, A'],
    [[file('z.xlsx', strToU8('PKnothing'))], 'can’t be read as a workbook'],
    [[], 'Name one file'],
  ])('%j ends with status 2 and one line', async (args, said) => {
    const { status, stderr } = await asked(...args, '--json');
    expect(status).toBe(2);
    expect(stderr.replaceAll("can't", 'can’t')).toContain(said.replaceAll("can't", 'can’t'));
    expect(stderr.trim().split('\n')).toHaveLength(1);
  });
  it('says it in words', async () => {
    const { stdout } = await mainOrSlow(['read', file('a.csv', csv)]);
    expect(stdout).toContain('Control: Water.');
    expect(stdout).toMatch(/Yield\s+response\s+number\s+g/);
  });
});
