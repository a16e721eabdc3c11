import { expect, it } from 'vitest';
import { deriveState } from '../log/state';
import { harvest, plan } from '../testing/trial';
import { findingOf } from '../account/findingInput';
import { makeVerdict } from '../verdict/verdict';
import { filmingBlocks, spoken } from './filming';
import { toPlainText } from './plainText';

const made = plan({ treatments: ['Water', 'Bosco'], replicates: 3 });
const state = deriveState(made, harvest({ Water: [50, 52, 49], Bosco: [60.2, 62, 61] }));
const finding = findingOf(state, made.traits[0]!);
if (!finding.ok) throw new Error(finding.error.tag);
const verdict = makeVerdict(made, finding.value, (id) => id, { state });

it('no name is said before the reveal', () => {
  const text = toPlainText(filmingBlocks(state, finding.value, verdict, (id) => id));
  const reveal = text.indexOf('The reveal');
  expect(reveal).toBeGreaterThan(0);
  expect(text.slice(0, reveal)).not.toContain('Bosco');
  expect(text.slice(reveal)).toContain('B is Bosco, product tested.');
  expect(text.slice(reveal)).toContain('Bosco: 61 grams.');
});
it('without a finding nothing is decided', () => {
  expect(toPlainText(filmingBlocks(state, null, null, (id) => id))).toContain('Nothing is decided yet.');
});
it('figures as they are said', () => {
  expect(spoken(80.94, 'g')).toBe('81 grams');
  expect(spoken(4.26, 'cm')).toBe('4.3 centimetres');
  expect(spoken(-3, 'points')).toBe('−3.0 points');
});
it('plain text: headings underlined, tables in columns, pictures as their words', () => {
  const text = toPlainText([
    { type: 'heading', level: 1, text: 'Äh' },
    { type: 'table', columns: [{ head: 'who', numeric: false }, { head: 'g', numeric: true }], rows: [{ cells: [{ type: 'text', text: 'Water' }, { type: 'figure', value: 5, decimals: 1 }] }] }, // prettier-ignore
    { type: 'figure', id: 'x', alt: 'Every tray', caption: '' },
  ]);
  expect(text).toBe('Äh\n==\n\nwho      g\nWater  5.0\n\n[Every tray]\n');
});
