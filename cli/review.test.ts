// The review of a trial file: read back as a page, as Markdown and as PDF text; closed codes and bad arguments refused.
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { OPS, getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { afterAll, describe, expect, it } from 'vitest';
import { exportTrial } from '~core/formats/dataPackage';
import { harvest, plan, trialOf } from '~core/testing/trial';
import { mainOrSlow } from './main';

const folder = mkdtempSync(join(tmpdir(), 'palazzo-review-'));
afterAll(() => rmSync(folder, { recursive: true }));
const hostile = '<script>alert(1)</script> & "A"';
const values = { Water: [50, 52, 49], [hostile]: [60, 62, 58.5] };
const made = plan({ treatments: ['Water', hostile] });
const zip = join(folder, 'trial.zip');
writeFileSync(zip, exportTrial(trialOf(made, harvest(values))));

async function written(format: string, from = zip) {
  const out = join(folder, `review.${format}`);
  const ended = await mainOrSlow(['review', from, '--format', format, '--out', out]);
  return { ended, out };
}

describe('review', () => {
  it('as a page: the sentence, its picture inside, no script and no request', async () => {
    const { ended, out } = await written('html');
    expect(ended).toEqual({ status: 0, stdout: `${out}\n`, stderr: '' });
    const page = readFileSync(out, 'utf8');
    expect(page).toContain('beat Water.');
    expect(page).toMatch(/role="img" aria-label="[^"]+"><svg /);
    expect(page).not.toContain('<script');
    expect(page).not.toMatch(/(?:src|href)="(?!data:)/);
    expect(page).toMatch(/font-family:"Fraunces Variable";[^}]*url\(data:font\/woff2;base64,/);
    const picture = /<svg [\s\S]*?<\/svg>/.exec(page)![0];
    expect(picture.match(/<g transform/g)).toHaveLength(6);
    expect(picture).toContain('Fraunces Variable');
  });
  it('as Markdown: names can’t become markup', async () => {
    const { out } = await written('md');
    const text = readFileSync(out, 'utf8');
    expect(text).toContain('# Is it worth it?');
    expect(text).toContain('\\<script\\>');
    expect(text).not.toMatch(/[^\\]<script/);
  });
  it('as PDF: its text reads back, pages are numbered', async () => {
    const { out } = await written('pdf');
    const document = await getDocument({ data: new Uint8Array(readFileSync(out)) }).promise;
    const pages = await Promise.all(
      Array.from({ length: document.numPages }, async (_, i) =>
        (await (await document.getPage(i + 1)).getTextContent()).items
          .map((t) => ('str' in t ? t.str : ''))
          .join(' ')
          .replaceAll(/\s+/g, ' '),
      ),
    );
    expect(pages[0]).toContain('Is it worth it?');
    expect(pages.join(' ')).toContain('beat Water.');
    expect(pages[0]).toContain(`1 / ${document.numPages}`);
  });
  it('has the contact sheet with its photos in it, in a page and in a PDF', async () => {
    await mainOrSlow(['demo', '--out', folder]);
    const demo = join(folder, 'PAR.zip');
    const page = readFileSync((await written('html', demo)).out, 'utf8');
    const img = /<img [^>]*alt="Photos of one tray of each contender[^>]*>/.exec(page)![0];
    const sheet = /base64,([^"]+)/.exec(img)![1]!;
    const drawn = Buffer.from(sheet, 'base64').toString();
    // Five contenders on three days.
    expect(drawn.match(/<image [^>]*href="data:image\/(?:png|jpeg);base64,/g)).toHaveLength(15);
    expect(drawn).toContain('day 17');
    const bytes = new Uint8Array(readFileSync((await written('pdf', demo)).out));
    const document = await getDocument({ data: bytes }).promise;
    const painted = await Promise.all(
      Array.from({ length: document.numPages }, async (_, i) =>
        (await (await document.getPage(i + 1)).getOperatorList()).fnArray.filter(
          (f) => f === OPS.paintImageXObject,
        ),
      ),
    );
    expect(painted.flat().length).toBeGreaterThanOrEqual(15);
  });
  it('says what is wrong', async () => {
    const closed = join(folder, 'closed.zip');
    writeFileSync(closed, exportTrial(trialOf({ ...made, blinding: 'scorer' }, harvest(values))));
    const { ended } = await written('html', closed);
    expect(ended.status).toBe(2);
    expect(ended.stderr).toMatch(/codes of this trial are closed/);
    expect((await mainOrSlow(['review', zip, '--format', 'doc', '--out', 'x'])).stderr).toMatch(
      /--format is one of/,
    );
    expect((await mainOrSlow(['review', zip, '--format', 'md', '--out', '/nowhere/x.md'])).stderr).toMatch(
      /can't be written/,
    );
  });
});
