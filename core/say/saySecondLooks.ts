import { countWord, formatFigure, formatP, listNames, plural } from '../quantity/format';
import type { Finding } from '../account/finding';
import { differenceUnit } from './sayContrast';
import type { NameOf } from '../model/nameOf';
import type { Changed, SecondLooks } from '../looks/secondLooks';

/** A second look in words. */
interface LookNote {
  id: string;
  tone: 'plain' | 'open';
  text: string;
}

const stands: Record<Changed['to'], string> = {
  better: 'is clearly better',
  worse: 'is clearly worse',
  open: 'is no longer told from the control',
};

/** @example 'A is no longer told from the control' */
const sayChanged = (changed: readonly Changed[], nameOf: NameOf): string =>
  listNames(changed.map((c) => `${nameOf(c.id)} ${c.to === 'open' ? stands.open : stands[c.to]}`));

const p = (value: number) => (value < 0.001 ? 'p < 0.001' : `p = ${formatP(value)}`);

/** Everything the second looks have to say, one note each; empty where there is nothing to say. */
export function saySecondLooks(
  looks: SecondLooks,
  finding: Finding,
  nameOf: NameOf,
  unitNoun: string,
): LookNote[] {
  const out: LookNote[] = [];
  const { trait } = finding;
  const add = (id: string, tone: LookNote['tone'], text: string) => out.push({ id, tone, text });
  const then = (changed: readonly Changed[], otherwise: string) =>
    changed.length > 0 ? `${sayChanged(changed, nameOf)}.` : otherwise;
  if (looks.swapped) {
    const { changed, tooFew } = looks.swapped;
    if (tooFew)
      add(
        'swapped',
        'open',
        `Without the normal curve so few ${plural(unitNoun)} can’t tell anything: the finding leans on it.`,
      );
    else if (changed.length > 0)
      add(
        'swapped',
        'open',
        `By swapping labels, which assumes no normal curve: ${sayChanged(changed, nameOf)}. The two disagree because so few ${plural(unitNoun)} can be swapped in few ways, or because one value weighs much.`,
      );
    else add('swapped', 'plain', 'By swapping labels, which assumes no normal curve, the same.');
  }
  if (looks.leastP !== null)
    add(
      'leastP',
      'open',
      `With so few ${plural(unitNoun)} the smallest p that swapping them can give is ${formatFigure(looks.leastP, 2)}.`,
    );
  if (looks.uneven) {
    const { most, least, ratio, low, high, changed } = looks.uneven;
    add(
      'uneven',
      'open',
      `${nameOf(most)} is more uneven than ${nameOf(least)}: its spread is ${formatFigure(ratio, 1)} times as large (${formatFigure(low, 1)} to ${formatFigure(high, 1)}; Brown–Forsythe over all ${p(looks.uneven.p)}).`,
    );
    if (!finding.peers)
      add(
        'welch',
        changed.length > 0 ? 'open' : 'plain',
        `With a spread of its own for each: ${then(changed, 'the same.')}`,
      );
  }
  if (looks.growing)
    add(
      'growing',
      looks.growing.changed.length > 0 ? 'open' : 'plain',
      `Spread grows with the value; on the log scale, as per cent: ${then(looks.growing.changed, 'the same.')}`,
    );
  for (const o of looks.outliers)
    add(
      `outlier-${o.unit}`,
      'open',
      `${o.code} (${nameOf(o.treatment)}, ${formatFigure(o.value, trait.decimals)} ${trait.unit}`.trimEnd() +
        `) lies far from what its contender and block predict (${p(o.p)} for the farthest of ${finding.units.length}). Without it: ${then(o.changed, 'the same.')}`,
    );
  if (looks.earlier) {
    const { day, name, changed } = looks.earlier;
    add(
      'earlier',
      changed.length > 0 ? 'open' : 'plain',
      `Had it ended at the visit before${name ? `, ${name.toLowerCase()}` : ''} (day ${day}): ${then(changed, 'the same.')}`,
    );
  }
  const byChange = new Map<string, string[]>();
  for (const b of looks.blocks) {
    const sentence = sayChanged(b.changed, nameOf);
    byChange.set(sentence, [...(byChange.get(sentence) ?? []), b.block]);
  }
  for (const [said, blocks] of byChange)
    add(
      `block-${blocks.join('-')}`,
      'open',
      `Without ${blocks.length === 1 ? `block ${blocks[0]}` : `any one of blocks ${listNames(blocks)}`}: ${said}.`,
    );
  for (const place of looks.places) {
    const where = {
      light: 'light',
      row: 'row',
      column: 'position in the row',
      edge: 'edge of the area',
      neighbours: 'units beside',
    }[place.what];
    add(
      `place-${place.what}`,
      'open',
      `What the contenders don’t explain goes with the ${where} (r = ${formatFigure(place.r, 2)}, ${p(place.p)}): position played a part.`,
    );
  }
  if (looks.next) {
    const { units, difference, cvPercent } = looks.next;
    const n = Math.min(...finding.analysis.summaries.map((s) => s.n));
    const wanted = `${formatFigure(difference, trait.decimals)} ${differenceUnit(finding)}`.trim();
    add(
      'next',
      'plain',
      `Next time: ${unitNoun} to ${unitNoun} varied by ${formatFigure(cvPercent, 0)} %; to see ${wanted} in four of five trials takes ${units <= n ? `no more than the ${countWord(n)} of each used here` : `${units} ${plural(unitNoun)} of each`}.`,
    );
  }
  return out;
}
