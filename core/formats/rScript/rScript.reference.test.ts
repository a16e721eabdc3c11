// R itself (webR) runs the script of a trial and must give the figures of the Findings room: every method, uneven trials,
// missing cells, equals, hostile names. Demo trials run in cli/script.reference.test.ts.
import { describe, expect, it } from 'vitest';
import { findingValuesTable } from '../findingValuesTable';
import type { Entry } from '../../log/entry';
import type { TraitId } from '../../model/ids';
import type { Plan, Trait } from '../../model/plan';
import { startR } from '../../testing/r';
import { entry, plan, trait, trialOf } from '../../testing/trial';
import { seededRandom } from '../../stats/random';
import { makeFinding } from '../../account/finding';
import { trialFindings } from '../../account/trialFindings';
import { askedFindings } from './findingValues';
import { rLines, rScript, rText } from './rScript';

const r = await startR();

interface Made {
  trait?: Partial<Trait>;
  treatments?: string[];
  replicates?: number;
  blocked?: boolean;
  peers?: boolean;
  /** in place of the usual one */
  method?: string;
  /** value of a unit; null: not measured */
  value: (treatment: number, replicate: number, u: () => number) => object | null;
}

function trialWith({
  trait: over,
  treatments = ['Water', 'A', 'B'],
  replicates = 4,
  blocked,
  peers,
  value,
}: Made) {
  const of = trait({ id: 'x' as TraitId, name: 'X', unit: '', kind: 'number', summary: 'last', ...over });
  const base = plan({ treatments, replicates, blocked: blocked ?? false, traits: [of] });
  const made: Plan = peers
    ? { ...base, peers: true, treatments: base.treatments.map((t) => ({ ...t, role: 'test' as const })) }
    : base;
  const random = seededRandom(3);
  const log = made.units.flatMap((u, i): Entry[] => {
    const v = value(treatments.indexOf(u.treatmentId), Math.floor(i / treatments.length), () =>
      random.uniform(),
    );
    return v === null
      ? []
      : [entry({ kind: 'measurement', unitId: u.id, traitId: of.id, roundId: 'r2', sample: null, ...v })];
  });
  return trialOf(made, log);
}

async function bothSides(made: Made) {
  const trial = trialWith(made);
  const found = trialFindings(trial);
  const method = made.method ?? null;
  const asked = askedFindings(found.inputs, method);
  const script = rScript('Does R say the same?', found.order.map(found.nameOf), asked, {
    csv: findingValuesTable(found).csv,
  });
  await r.numbers(`capture.output({${script}\n}); 0`);
  const own = found.inputs.flatMap(({ trait: name, round, input }) => {
    const f = makeFinding({ ...input, method });
    return f.ok
      ? f.value.analysis.versusControl.map((c) => ({ key: `${name}|${round ?? ''}|${found.nameOf(c.a)}`, c }))
      : [];
  });
  const column = async (name: string) =>
    (await r.texts(`ifelse(is.na(result$${name}), "", sprintf("%.17g", result$${name}))`)).map((t) =>
      t === '' ? null : Number(t),
    );
  const [difference, low, high, p] = [
    await column('difference'),
    await column('low'),
    await column('high'),
    await column('p'),
  ];
  const keys = await r.texts(
    'paste(result$trait, ifelse(is.na(result$round), "", result$round), result$name, sep = "|")',
  );
  return { own, keys, theirs: { difference, low, high, p }, trial };
}

const agree = (own: number | null, theirs: number | null, within: number) => {
  // An open end stands empty.
  if (own === null || theirs === null || !Number.isFinite(own))
    expect([own !== null && Number.isFinite(own) ? own : null, theirs]).toEqual([null, null]);
  else expect(Math.abs(own - theirs)).toBeLessThan(within * Math.max(1, Math.abs(own)));
};

const normal = (u: () => number) => Math.sqrt(-2 * Math.log(1 - u())) * Math.cos(2 * Math.PI * u());
const figure = (t: number, _: number, u: () => number) => ({
  value: Number((50 + 4 * t + 5 * normal(u)).toFixed(1)),
});

const cases: Record<string, Made & { within?: number }> = {
  'means, five contenders': { treatments: ['Water', 'A', 'B', 'C', 'D'], value: figure },
  'means, one contender': { treatments: ['Water', 'A'], replicates: 3, value: figure },
  'means, unequal numbers': { treatments: ['Water', 'A', 'B', 'C'], value: (t, i, u) => (t === 2 && i > 1 ? null : figure(t, i, u)) }, // prettier-ignore
  'means in blocks': { blocked: true, treatments: ['Water', 'A', 'B', 'C'], value: figure },
  'blocks with missing cells': { blocked: true, treatments: ['Water', 'A', 'B', 'C', 'D'], within: 2e-3, value: (t, i, u) => ((t === 1 && i === 0) || (t === 3 && i === 2) || (t === 4 && i < 2) ? null : figure(t, i, u)) }, // prettier-ignore
  'equals, every pair': { peers: true, treatments: ['K', 'L', 'M', 'N'], value: figure },
  'a wanted band': { trait: { direction: 'band', bandLow: 48, bandHigh: 55 }, value: figure },
  'all of a contender alike': { value: (t) => ({ value: 50 + t }) },
  'all but one alike': { value: (t, i) => ({ value: 50 + t + (t === 1 && i === 0 ? 0.1 : 0) }) },
  'one unit each': { replicates: 1, value: figure },
  'one unit each in one block': { replicates: 1, blocked: true, value: figure },
  'k of n': { trait: { kind: 'ratio', outOf: 5, unit: '%' }, replicates: 6, value: (t, _, u) => ({ value: Math.min(5, Math.floor((2 + 1.5 * t) * u() * 1.3)) }) }, // prettier-ignore
  'k of n in blocks': { blocked: true, trait: { kind: 'ratio', outOf: 5, unit: '%' }, replicates: 8, value: (t, _, u) => ({ value: Math.min(5, Math.floor((2 + 2 * t) * u() * 1.3)) }) }, // prettier-ignore
  'k of n in few blocks': { blocked: true, treatments: ['Water', 'A', 'B', 'C'], trait: { kind: 'ratio', outOf: 5, unit: '%' }, replicates: 4, value: (t, _, u) => ({ value: Math.min(5, Math.floor((1 + 1.5 * t) * u() * 1.5)) }) }, // prettier-ignore
  'k of n, three units': { trait: { kind: 'ratio', outOf: 5, unit: '%' }, replicates: 3, value: (t) => ({ value: t + 1 }) }, // prettier-ignore
  'k of n, many pots': { blocked: true, treatments: ['Water', 'A'], trait: { kind: 'ratio', outOf: 9, unit: '%' }, replicates: 19, value: (t, _, u) => ({ value: Math.min(9, Math.floor((3 + 2 * t) * u() * 2)) }) }, // prettier-ignore
  'scores': { trait: { kind: 'score' }, replicates: 5, value: (t, _, u) => ({ value: Math.min(5, 1 + Math.floor(3 * u() + t)) }) }, // prettier-ignore
  'scores in whole blocks': { blocked: true, trait: { kind: 'score' }, replicates: 6, value: (t, _, u) => ({ value: Math.min(5, 1 + Math.floor(2 * u() + t)) }) }, // prettier-ignore
  'scores of many units': { trait: { kind: 'score' }, replicates: 11, value: (t, _, u) => ({ value: Math.min(5, 1 + Math.floor(3 * u() + t)) }) }, // prettier-ignore
  'scores, uneven': { trait: { kind: 'score', direction: 'lower' }, replicates: 6, value: (t, i, u) => (t === 1 && i < 2 ? null : { value: Math.min(5, 1 + Math.floor(3 * u() + t)) }) }, // prettier-ignore
  'scores all alike': { trait: { kind: 'score' }, value: () => ({ value: 3 }) },
  'ranks': { trait: { kind: 'rank', direction: 'lower' }, replicates: 4, value: (t, i) => ({ value: 12 - (i * 3 + t) }) }, // prettier-ignore
  'days until': { trait: { kind: 'time', direction: 'lower' }, replicates: 7, value: (t, _, u) => { const day = Math.ceil(-9 * Math.log(1 - u()) * (1 + t / 2)); return day > 14 ? { value: 14, notYet: true } : { value: day, notYet: false }; } }, // prettier-ignore
  'days until, in blocks': { blocked: true, trait: { kind: 'time', direction: 'lower' }, replicates: 9, value: (t, _, u) => ({ value: Math.ceil(4 + 6 * u() + 4 * t), notYet: false }) }, // prettier-ignore
  'days until, many units': { trait: { kind: 'time', direction: 'lower' }, replicates: 11, value: (t, _, u) => { const day = Math.ceil(4 + 12 * u() + 3 * t); return day > 15 ? { value: 15, notYet: true } : { value: day, notYet: false }; } }, // prettier-ignore
  'counts': { trait: { kind: 'count', decimals: 0 }, replicates: 5, value: (t, _, u) => ({ value: Math.round(20 + 6 * t + 5 * normal(u)) }) }, // prettier-ignore
  'counts in blocks': { blocked: true, trait: { kind: 'count', decimals: 0 }, replicates: 5, value: (t, i, u) => ({ value: Math.round(20 + 6 * t + 3 * i + 3 * normal(u)) }) }, // prettier-ignore
  'small counts': { trait: { kind: 'count', decimals: 0 }, replicates: 6, value: (t, _, u) => ({ value: Math.floor(3 * u() + t) }) }, // prettier-ignore
  'counts with nothing in one': { trait: { kind: 'count', decimals: 0 }, replicates: 5, value: (t, _, u) => ({ value: t === 0 ? 0 : Math.round(9 + 5 * u()) }) }, // prettier-ignore
  'none left in one, in blocks': { blocked: true, trait: { kind: 'count', decimals: 0, direction: 'lower' }, replicates: 4, value: (t, i, u) => ({ value: t === 1 ? 0 : Math.round(9 + 2 * i + 5 * u()) }) }, // prettier-ignore
  'none left in the only other, in blocks': { blocked: true, treatments: ['Water', 'A'], trait: { kind: 'count', decimals: 0, direction: 'lower' }, replicates: 4, value: (t, i, u) => ({ value: t === 1 ? 0 : Math.round(9 + 2 * i + 5 * u()) }) }, // prettier-ignore
  'few counts in blocks': { blocked: true, trait: { kind: 'count', decimals: 0 }, replicates: 5, value: (t, i, u) => ({ value: i === 2 ? 0 : Math.floor(4 * u() * (1 + t / 2)) }) }, // prettier-ignore
  'k of n, equals': { peers: true, treatments: ['K', 'L', 'M', 'N'], trait: { kind: 'ratio', outOf: 10, unit: '%' }, replicates: 7, value: (t, _, u) => ({ value: Math.min(10, Math.floor(4 + 2 * t + 5 * (u() - 0.5))) }) }, // prettier-ignore
  'k of n, one near all': { trait: { kind: 'ratio', outOf: 10, unit: '%' }, replicates: 4, value: (t, _, u) => ({ value: t === 2 ? 10 : Math.floor(10 * u()) }) }, // prettier-ignore
  'scores in few blocks, as figures': { blocked: true, trait: { kind: 'score' }, replicates: 4, value: (t, i, u) => ({ value: Math.min(5, 1 + Math.floor(2 * u() + t + i / 3)) }) }, // prettier-ignore
  'ranks, three units': { trait: { kind: 'rank', direction: 'lower' }, replicates: 3, value: (t, i) => ({ value: 1 + ((i * 7 + t * 4) % 9) }) }, // prettier-ignore
  'ranks of equals': { peers: true, trait: { kind: 'rank', direction: 'lower' }, replicates: 5, value: (t, i) => ({ value: 1 + ((i * 7 + t * 4) % 15) }) }, // prettier-ignore
  'uneven contenders in blocks': { blocked: true, treatments: ['Water', 'A', 'B', 'C'], replicates: 5, value: (t, i, u) => ({ value: Number((50 + 3 * i + 4 * t + (t === 0 ? 9 : t === 2 ? 5 : 1) * normal(u)).toFixed(1)) }) }, // prettier-ignore
  'uneven equals': { peers: true, treatments: ['K', 'L', 'M'], replicates: 5, value: (t, i, u) => (t === 1 && i === 0 ? null : { value: Number((50 + 4 * t + (t === 2 ? 9 : 1) * normal(u)).toFixed(1)) }) }, // prettier-ignore
  'means, each its own spread': { method: 'welch', treatments: ['Water', 'A', 'B'], value: (t, i, u) => (t === 1 && i === 0 ? null : figure(t, i, u)) }, // prettier-ignore
  'ratios on the log scale': { method: 'log', blocked: true, value: figure },
  'means by swapping labels': { method: 'permutation', replicates: 6, value: figure },
  'scores by means': { method: 'linear', trait: { kind: 'score' }, replicates: 5, value: (t, _, u) => ({ value: 1 + Math.floor(3 * u() + t) }) }, // prettier-ignore
  'hostile names': { treatments: ['Wa"ter, #1', '=A\\n\'x', 'B 🌱 \ud800', 'C\nD'], trait: { name: '"q", r\\' }, value: figure }, // prettier-ignore
};

describe.each(Object.entries(cases))('%s', (_, made) => {
  it('R gives the same figures for the same contenders', async () => {
    const { own, keys, theirs } = await bothSides(made);
    const plain = (s: string) => s.replace(/\ud800/, '\ufffd');
    expect(keys).toEqual(own.map((o) => plain(o.key)));
    own.forEach(({ c }, i) => {
      agree(c.estimate, theirs.difference[i]!, 1e-6);
      for (const [name, value] of [
        ['low', c.low],
        ['high', c.high],
        ['p', c.p],
      ] as const)
        // prettier-ignore
        agree(value, theirs[name][i]!, made.within ?? 1e-6);
    });
  });
});

it('the lines of one finding carry its values and nothing they don’t need', async () => {
  const trial = trialWith({ replicates: 4, value: figure });
  const found = trialFindings(trial);
  const one = { ...found.inputs[0]!, input: { ...found.inputs[0]!.input, method: 'welch' } };
  const lines = rLines('Is it?', one, found, findingValuesTable({ inputs: [one], nameOf: found.nameOf }).csv);
  expect(lines).not.toContain('glm(');
  await r.numbers(`capture.output({${lines}\n}); 0`);
  const own = makeFinding(one.input);
  const [difference] = await r.numbers('result$difference');
  expect(own.ok && own.value.analysis.versusControl[0]!.estimate).toBeCloseTo(difference!, 9);
});

it('texts stand in R as they are, whatever is in them', async () => {
  const text = 'a "b" \\n é 🌱 \t #';
  expect(await r.texts(rText(text))).toEqual([text]);
  expect(rText(null)).toBe('NA');
});
