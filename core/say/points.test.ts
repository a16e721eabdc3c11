// Points are no per cent of a per cent; one unit each prints no statistic.
import { expect, it } from 'vitest';
import { findingOf } from '../account/findingInput';
import { deriveState } from '../log/state';
import type { TraitId } from '../model/ids';
import { againstControlTable, pairsTable } from '../report/findingBlocks';
import { cellText } from '../report/cell';
import { entry, plan, trait, unitId } from '../testing/trial';
import { methodText, notes } from './words';

const measured = (kind: 'ratio' | 'score', values: Record<string, number[]>) => {
  const t = trait({
    ...{ id: 'x' as TraitId, name: 'Rooted', kind, summary: 'last', decimals: 0 },
    ...(kind === 'ratio'
      ? { unit: '%', outOf: 20 }
      : { unit: '', scale: [1, 2, 3, 4, 5].map((value) => ({ value, text: '' })) }),
  });
  const names = Object.keys(values);
  const p = plan({ treatments: names, replicates: values[names[0]!]!.length, traits: [t] });
  const log = names.flatMap((n) =>
    values[n]!.map((value, i) =>
      entry({ kind: 'measurement', unitId: unitId(n, i), traitId: 'x', roundId: 'r2', sample: null, value }),
    ),
  );
  const f = findingOf(deriveState(p, log), t);
  if (!f.ok) throw new Error(f.error.tag);
  return { p, f: f.value };
};

it('k of n differs by points, and so does what matters', () => {
  const { f } = measured('ratio', { Water: [4, 4, 5, 3, 4, 4], A: [17, 18, 16, 17, 17, 18] });
  const [beat] = notes(f, (x) => x, 'pot');
  expect(beat!.title).toBe('A beat Water.');
  // 103 of 120 less 24 of 120 are 65.8 points; a tenth of 20 % is 2 points.
  expect(beat!.text).toMatch(/^By 65\.8 points, even at the low end more than the 2 points that matters\.$/);
});
it('scores of one unit each: no H, no p, no “ahead in ten of ten”', () => {
  const { p, f } = measured('score', { Water: [1], A: [5], B: [3] });
  expect(methodText(f, 'pot')).not.toMatch(/Kruskal|p =/);
  const cells = [againstControlTable(f, p, (x) => x), pairsTable(f, (x) => x)].flatMap((t) =>
    t.rows.flatMap((r) => r.cells.map(cellText)),
  );
  expect(cells.join('|')).not.toMatch(/10\.0/);
});
